#pragma once
#include "formula/base/interval.h"
#include "formula/base/problem.h"
#include "formula/page/line.h"

#include <string>
#include <vector>

namespace coulter {

/// Most points of one grid: more is refused with a sentence rather than filling the memory.
inline constexpr double mostGridPoints = 10e6;

/// The points of a grid, in ascending order, exactly as the notation has them; or the problem that there are none.
struct GridPoints {
    std::vector<double> points;
    Problems problems;
};

/// `count n`: n evenly spaced points, of which a closed end is one and an open end is not.
/// `step h`: from the low end by h; the high end only when closed and on the grid to rounding.
/// `logarithmic`: even in the logarithm; both ends of one sign and not zero.
/// Where a field was measured: those of its places that lie in the interval.
/// Without count and step the grid is adaptive and has no points of its own: empty, without a problem.
GridPoints gridPoints(const Interval& interval, const Grid& grid, const std::string& variable);

/// Whether the grid is adaptive, so that the figure decides where its points lie.
inline bool isAdaptive(const Grid& grid) { return !grid.count && !grid.step && !grid.places; }

} // namespace coulter
