#include "sampling/grid.h"

#include "formula/base/text.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

GridPoints refuse(std::string sentence, std::string suggestion = "") {
    return {{}, {{-1, 0, 0, std::move(sentence), std::move(suggestion)}}};
}

GridPoints counted(const Interval& interval, double count, bool logarithmic, const std::string& variable) {
    const int openEnds = (interval.lowClosed ? 0 : 1) + (interval.highClosed ? 0 : 1);
    // n points leave n − 1 steps between them, and one more towards each open end.
    const auto n = static_cast<std::size_t>(count);
    const auto steps = static_cast<double>(n) - 1 + openEnds;
    if (steps < 1)
        return refuse("A count of 1 cannot hold both closed ends of " + variable + ".",
                      "write count 2, or open an end");
    const double low = logarithmic ? std::log(std::abs(interval.low)) : interval.low;
    const double high = logarithmic ? std::log(std::abs(interval.high)) : interval.high;
    const double sign = interval.low < 0 ? -1 : 1;
    std::vector<double> points(n);
    for (std::size_t k = 0; k < n; ++k) {
        const double i = static_cast<double>(k) + (interval.lowClosed ? 0 : 1);
        const double even = low + i * (high - low) / steps;
        points[k] = logarithmic ? sign * std::exp(even) : even;
    }
    if (interval.lowClosed) points.front() = interval.low;
    if (interval.highClosed) points.back() = interval.high;
    return {std::move(points), {}};
}

GridPoints stepped(const Interval& interval, double step, const std::string& variable) {
    const double steps = (interval.high - interval.low) / step;
    if (steps > mostGridPoints) {
        return refuse("A step of " + shortestNumber(step) + " for " + variable +
                          " asks for more than 10 million points.",
                      "choose a larger step");
    }
    const double whole = std::round(steps);
    const bool onGrid = whole >= 1 && std::abs(steps - whole) <= 1e-9 * std::max(1.0, whole);
    const auto last = static_cast<std::size_t>(onGrid ? whole : std::floor(steps));
    std::vector<double> points;
    for (std::size_t k = interval.lowClosed ? 0 : 1; k <= last; ++k)
        points.push_back(interval.low + static_cast<double>(k) * step);
    if (onGrid && !points.empty()) {
        if (interval.highClosed)
            points.back() = interval.high;
        else
            points.pop_back();
    }
    if (points.empty())
        return refuse("With a step of " + shortestNumber(step) + " no point of " + variable +
                          " lies inside its interval.",
                      "choose a smaller step");
    return {std::move(points), {}};
}

} // namespace

GridPoints gridPoints(const Interval& interval, const Grid& grid, const std::string& variable) {
    if (grid.logarithmic && !(interval.low * interval.high > 0)) {
        return refuse("A logarithmic grid needs both ends of " + variable + " on one side of zero.",
                      "start it at a small positive number");
    }
    if (grid.count && grid.step) return refuse("A grid has a count or a step, not both.", "remove one of the two");
    if (grid.count) {
        const double n = *grid.count;
        if (!(n >= 1) || n != std::floor(n))
            return refuse("The count of " + variable + " is " + shortestNumber(n) +
                          "; it must be a whole number of at least 1.");
        if (n > mostGridPoints)
            return refuse("A count of " + shortestNumber(n) +
                              " is more than the 10 million points that one variable may have.",
                          "choose a smaller count");
        return counted(interval, n, grid.logarithmic, variable);
    }
    if (grid.step) {
        if (grid.logarithmic)
            return refuse("A logarithmic grid of " + variable + " has no constant step.",
                          "write count instead of step");
        if (!(*grid.step > 0))
            return refuse("The step of " + variable + " is " + shortestNumber(*grid.step) + "; it must be positive.");
        return stepped(interval, *grid.step, variable);
    }
    if (grid.places) {
        std::vector<double> inside;
        for (const double place : *grid.places) {
            const bool isIn = (interval.lowClosed ? place >= interval.low : place > interval.low) &&
                              (interval.highClosed ? place <= interval.high : place < interval.high);
            if (isIn) inside.push_back(place);
        }
        if (inside.empty())
            return refuse("No place of the measured field lies in the interval of " + variable + ": it runs from " +
                              roundedNumber(grid.places->front(), 6) + " to " + roundedNumber(grid.places->back(), 6) +
                              ".",
                          "give " + variable + " an interval there");
        return {std::move(inside), {}};
    }
    return {};
}

} // namespace coulter
