#pragma once
#include "figure/document.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

namespace coulter {

/// What a panel should show, before its limits are decided.
struct Extents {
    ScaleKind xScale = ScaleKind::Linear, yScale = ScaleKind::Linear;
    std::optional<Limits> across, up; ///< to be shown whole, as the interval of a variable; decides where there is one
    std::vector<double> xs, ys;       ///< values, of which those worth showing are shown
    std::optional<Limits> allX, allY; ///< of what is shown whole, with room beside it; may widen what was decided

    /// Holds every number of a column that its scale can show.
    void holdAll(bool isAcross, const std::vector<double>& numbers);

    static void hold(std::optional<Limits>& held, const Limits& limits) {
        held = held ? Limits{std::min(held->low, limits.low), std::max(held->high, limits.high)} : limits;
    }
};

} // namespace coulter
