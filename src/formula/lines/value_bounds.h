#pragma once
#include "formula/page/page.h"

namespace coulter {

/// A bound of the error of a quantity's value, by interval arithmetic over its formula. Inf where none is known without
/// much work: of integrals and series, and of what was measured.
double errorOfQuantity(const Page& page, const Line& line);

} // namespace coulter
