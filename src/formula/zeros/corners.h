#pragma once
#include "formula/program/program.h"
#include "special/bounds.h"

namespace coulter {

/// Which extremum a function of one variable has within a narrow part.
enum class Corner { Unknown, None, Maximum, Minimum };

/// Decides what lies in a part where a continuous function has a corner: where an operation of it changes its piece
/// (|u| at u = 0, min and max, conditions) and everything else is smooth.
///
/// The operation's operands cross once, as their difference is monotone there by its bounded slope; before and after
/// that, the function is that of either piece alone, whose slopes are bounded over the whole part. Both signs say what
/// it is, and that there is nothing else within: it is proven, not looked at. Unknown where more than one operation
/// changes its piece, or where a slope may be zero.
/// @param f  must be continuous within the part
Corner cornerWithin(const Program& f, const Bounds& part);

} // namespace coulter
