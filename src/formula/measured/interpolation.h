#pragma once
#include "special/bounds.h"

#include <cstddef>
#include <vector>

namespace coulter {

/// A function that is linear between points and undefined beyond them.
struct Interpolation {
    std::vector<double> x, y; ///< ascending places, at least two, and the values there

    /// The number of the stretch that a place lies in, from 0; the last place belongs to the last.
    std::size_t stretchOf(double at) const;
    double operator()(double at) const;
    /// Bounds of its values while its argument runs over an interval within the points.
    Bounds over(double low, double high) const;
    /// Bounds of its slopes there; `isStraight` if there is no corner inside.
    Bounds slopesOver(double low, double high, bool& isStraight) const;
    bool holds(double low, double high) const { return low >= x.front() && high <= x.back(); }
};

} // namespace coulter
