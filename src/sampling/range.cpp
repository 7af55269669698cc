#include "sampling/range.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace coulter {

std::optional<std::pair<double, double>> robustRange(std::span<const double> values) {
    std::vector<double> sorted;
    for (const double value : values) {
        if (std::isfinite(value)) sorted.push_back(value);
    }
    if (sorted.empty()) return std::nullopt;
    std::ranges::sort(sorted);
    const auto quantile = [&](double q) {
        return sorted[static_cast<std::size_t>(q * static_cast<double>(sorted.size() - 1))];
    };
    const double least = sorted.front(), greatest = sorted.back();
    const double low = quantile(0.05), high = quantile(0.95), core = high - low;
    // Six times the extent of nine tenths of the values still leaves those well readable.
    if (!(core > 0) || greatest / 2 - least / 2 <= 3 * core) return std::pair{least, greatest};
    return std::pair{std::max(least, low - 0.75 * core), std::min(greatest, high + 0.75 * core)};
}

} // namespace coulter
