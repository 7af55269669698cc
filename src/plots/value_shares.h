#pragma once
#include "plots/drawn.h"

#include <vector>

namespace coulter {

/// How the values of a field are spread over a scale: the share of its area, as it was sampled, in each of so many
/// stretches of equal length on the sheet. Values beyond the scale are in none. Of a vector its length; empty if
/// nothing was sampled.
std::vector<double> valueShares(const Drawn& drawn, const AxisMap& scale, std::size_t stretches);

} // namespace coulter
