#pragma once
#include "formula/bounds/enclosure.h"
#include "special/kernels.h"

namespace coulter {

/// The values of one operation while its operands run over a and b; `same`: both operands are the same value.
Enclosure enclose(Kernel kernel, const Enclosure& a, const Enclosure& b, bool same);

} // namespace coulter
