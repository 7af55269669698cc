#pragma once
#include "formula/zeros/zeros.h"

namespace coulter {

/// Zeros at which a function changes its sign, found at places that are looked at and by bisection between them: where
/// no bounds are known, as of series. None of them is proven, nor that there are no others.
std::vector<Zero> signChanges(const Program& f, const Bounds& part);

} // namespace coulter
