#pragma once
#include "plots/plot_kind.h"

namespace coulter {

/// Why there is no line: levels that nothing in view has, with the values that there are, as far as that is proven; or
/// where the field has them although nothing was drawn. Empty if there are lines.
std::string remarkOnLevels(const Drawn& drawn, const Frame& frame);
std::string remarkOnNothing(const Drawn& drawn, const Frame& frame, const std::vector<double>& levels);

} // namespace coulter
