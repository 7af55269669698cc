#include "sampling/panel_map.h"

#include <cmath>

namespace coulter {

double AxisMap::logarithmicToSheet(double coordinate) const {
    return (std::log(coordinate) - std::log(low)) / (std::log(high) - std::log(low)) * length;
}

double AxisMap::fromSheet(double mm) const {
    const double t = mm / length;
    if (kind == ScaleKind::Logarithmic) return std::exp(std::log(low) + t * (std::log(high) - std::log(low)));
    return low + t * (high - low);
}

} // namespace coulter
