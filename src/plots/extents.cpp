#include "plots/extents.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_reduce.h>

namespace coulter {

void Extents::holdAll(bool isAcross, const std::vector<double>& numbers) {
    const bool positive = (isAcross ? xScale : yScale) == ScaleKind::Logarithmic;
    const Limits nothing{HUGE_VAL, -HUGE_VAL};
    const Limits all = tbb::parallel_reduce(
        tbb::blocked_range<std::size_t>(0, numbers.size(), 65'536), nothing,
        [&](const auto& part, Limits limits) {
            for (std::size_t i = part.begin(); i < part.end(); ++i) { // without a branch that depends on the numbers
                const double value = numbers[i];
                const bool counts = std::abs(value) < HUGE_VAL && (!positive || value > 0);
                limits.low = counts && value < limits.low ? value : limits.low;
                limits.high = counts && value > limits.high ? value : limits.high;
            }
            return limits;
        },
        [](const Limits& a, const Limits& b) {
            return Limits{std::min(a.low, b.low), std::max(a.high, b.high)};
        });
    if (all.low <= all.high) hold(isAcross ? allX : allY, all);
}

} // namespace coulter
