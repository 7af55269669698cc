#pragma once
#include "formula/notation/expr.h"

namespace coulter {

/// A formula of the same value in the form a person would write: numbers gathered in front, like terms and like factors
/// joined, fractions written once, brackets where needed. Products of sums are not multiplied out. Powers are joined
/// only where that leaves the domain as it is, save for single points where a factor vanished.
ExprPtr simplified(const ExprPtr& e);

} // namespace coulter
