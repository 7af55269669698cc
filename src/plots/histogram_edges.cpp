#include "plots/histogram_edges.h"

#include <algorithm>
#include <cmath>

namespace coulter {

double quantile(const std::vector<double>& ascending, double share) {
    const double at = share * static_cast<double>(ascending.size() - 1), below = std::floor(at);
    const auto i = static_cast<std::size_t>(below);
    if (i + 1 >= ascending.size()) return ascending.back();
    return ascending[i] + (at - below) * (ascending[i + 1] - ascending[i]);
}

std::size_t freedmanDiaconisBins(std::vector<double> numbers) {
    std::ranges::sort(numbers);
    const auto n = static_cast<double>(numbers.size());
    const double extent = numbers.back() - numbers.front(),
                 quartiles = quantile(numbers, 0.75) - quantile(numbers, 0.25);
    if (!(extent > 0)) return 1;
    const double width = 2 * quartiles / std::cbrt(n);
    const double bins = width > 0 ? std::ceil(extent / width) : std::ceil(std::log2(n) + 1);
    return static_cast<std::size_t>(std::clamp(bins, 1.0, static_cast<double>(mostBins)));
}

std::vector<double> edgesOfCount(const std::vector<double>& numbers, std::size_t count) {
    auto [low, high] = std::ranges::minmax(numbers);
    if (!(low < high)) { // all numbers are one
        const double half = low == 0 ? 0.5 : std::abs(low) / 20;
        low -= half;
        high += half;
    }
    std::vector<double> edges;
    for (std::size_t i = 0; i < count; ++i)
        edges.push_back(low + (high - low) * static_cast<double>(i) / static_cast<double>(count));
    edges.push_back(high);
    return edges;
}

std::vector<double> edgesOfWidth(const std::vector<double>& numbers, double width) {
    if (!(width > 0) || !std::isfinite(width)) return {};
    const auto [low, high] = std::ranges::minmax(numbers);
    const double first = std::floor(low / width), last = std::max(first + 1, std::ceil(high / width));
    if (!(last - first <= static_cast<double>(mostBins)) || std::abs(first) > 1e15) return {};
    // Where a whole number of them makes one, as for 0.1, dividing gives the decimals that are meant.
    const double parts = std::round(1 / width);
    const bool divides = parts >= 1 && std::abs(parts * width - 1) < 1e-12;
    std::vector<double> edges;
    for (double i = first; i <= last; ++i) edges.push_back(divides ? i / parts : i * width);
    return edges;
}

std::vector<std::size_t> countsBetween(const std::vector<double>& edges, const std::vector<double>& numbers) {
    std::vector<std::size_t> counts(edges.size() - 1);
    for (const double value : numbers) {
        if (!(value >= edges.front() && value <= edges.back())) continue;
        const auto next = std::ranges::upper_bound(edges, value);
        const auto bin = static_cast<std::size_t>(next - edges.begin()) - 1;
        ++counts[std::min(bin, counts.size() - 1)];
    }
    return counts;
}

} // namespace coulter
