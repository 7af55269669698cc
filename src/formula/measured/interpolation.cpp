#include "formula/measured/interpolation.h"

#include "formula/bounds/bounds_arithmetic.h"

#include <algorithm>
#include <cmath>

namespace coulter {

std::size_t Interpolation::stretchOf(double at) const {
    const auto next = std::ranges::upper_bound(x, at) - x.begin();
    return static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(next - 1, 0, static_cast<std::ptrdiff_t>(x.size()) - 2));
}

double Interpolation::operator()(double at) const {
    if (!holds(at, at)) return std::nan("");
    const std::size_t i = stretchOf(at);
    // From the nearer end, so that both ends have their own values.
    const double width = x[i + 1] - x[i], rise = y[i + 1] - y[i];
    return at - x[i] <= x[i + 1] - at ? y[i] + (at - x[i]) / width * rise : y[i + 1] - (x[i + 1] - at) / width * rise;
}

Bounds Interpolation::over(double low, double high) const {
    Bounds all{HUGE_VAL, -HUGE_VAL};
    double size = 0;
    const auto take = [&](double value) {
        all = {std::min(all.low, value), std::max(all.high, value)};
        size = std::max(size, std::abs(value));
    };
    const std::size_t first = stretchOf(low), last = stretchOf(high);
    take((*this)(low));
    take((*this)(high));
    for (std::size_t i = first + 1; i <= last; ++i) take(y[i]);
    for (const std::size_t i : {first, last}) size = std::max({size, std::abs(y[i]), std::abs(y[i + 1])});
    // A value has few roundings, each of them small beside the points that it lies between.
    const double margin = 8 * 0x1p-53 * size;
    return {all.low - margin, all.high + margin};
}

Bounds Interpolation::slopesOver(double low, double high, bool& isStraight) const {
    std::size_t first = stretchOf(low), last = stretchOf(high);
    if (last > first && high == x[last]) --last; // it ends at a corner
    isStraight = first == last;
    Bounds all{HUGE_VAL, -HUGE_VAL};
    for (std::size_t i = first; i <= last; ++i) {
        const Bounds rise = outwards(y[i + 1] - y[i], y[i + 1] - y[i]),
                     width = outwards(x[i + 1] - x[i], x[i + 1] - x[i]);
        all = i == first ? rise / width : hullOf(all, rise / width);
    }
    return all;
}

} // namespace coulter
