#pragma once
#include "formula/notation/expr.h"

namespace coulter {

/// A number that is positive inside where a condition holds, negative outside, and zero along its border: of a = b the
/// difference a − b; of a < b and a <= b the difference b − a; of several that all must hold the least, of several of
/// which one must hold the greatest; of a denied condition the opposite.
ExprPtr marginOf(const ExprPtr& condition);

} // namespace coulter
