#pragma once
#include "composition/labels.h"
#include "drawing/ticks.h"

#include <array>
#include <optional>

namespace coulter {

/// How the scales of a panel are shown, by the settings of each; indexed as in item paths.
struct ScaleRules {
    struct Scale {
        TickRules ticks;
        std::string unit;               ///< that is shown; empty: none
        std::string pageUnit;           ///< of its limits
        std::optional<Problem> problem; ///< what of the settings cannot be followed
    };
    std::array<Scale, 4> scales;
    std::array<Scale, 4>::const_reference operator[](std::size_t which) const { return scales[which]; }
};
ScaleRules scaleRules(const Page& page, const Panel& panel, const PanelReading& reading);

/// The settings of a scale, by its place in item paths.
const Axis& axisOf(const Panel& panel, std::size_t which);

} // namespace coulter
