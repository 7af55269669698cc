#pragma once
#include <optional>
#include <span>
#include <utility>

namespace coulter {

/// The range of values worth showing: all of them, unless a few lie so far out (beside a pole, at a steep end) that
/// they would flatten the rest. Infinite and undefined values do not count. None if no value is finite.
std::optional<std::pair<double, double>> robustRange(std::span<const double> values);

} // namespace coulter
