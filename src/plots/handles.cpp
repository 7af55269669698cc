#include "plots/handles.h"

#include "formula/base/text.h"

#include <charconv>
#include <cmath>

namespace coulter {

std::string roundedPlace(double place, const AxisMap& map) {
    const double quarter = std::abs(map.fromSheet(map.toSheet(place) + 0.25) - place);
    if (!(quarter > 0) || !std::isfinite(quarter)) return shortestNumber(place);
    const int digits = static_cast<int>(std::floor(std::log10(std::abs(place) / quarter))) + 2;
    return std::abs(place) < quarter / 2 ? "0" : roundedNumber(place, std::max(1, std::min(digits, 15)));
}

bool isPlainNumber(const std::string& text, double& value) {
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc{} && end == text.data() + text.size();
}

} // namespace coulter
