#pragma once
#include "sampling/panel_map.h"

#include <string>

namespace coulter {

// What the kinds share that have something to be dragged.

/// A place of a scale as a number with as many digits as a quarter of a millimetre tells apart.
std::string roundedPlace(double place, const AxisMap& map);

/// Whether a formula is spelled as a number, which dragging may replace.
bool isPlainNumber(const std::string& text, double& value);

} // namespace coulter
