#pragma once
#include "special/extended.h"

namespace coulter {

/// F(a, b; c; x) for x ≤ 1 in extended precision; NaN where undefined.
Extended hypergeometric(Extended a, Extended b, Extended c, Extended x);

} // namespace coulter
