#pragma once
#include "plots/plot_kind.h"
#include "plots/sampling.h"

#include <stop_token>

namespace coulter {

/// A first, coarse look at everything that a panel draws; made once, before anything is arranged.
struct PanelLook {
    std::vector<CoarseLook> coarse; ///< of each drawn thing
    Extents extents;
    std::optional<Limits> colours; ///< what colours range over; none without a field
    std::optional<std::array<Limits, 3>> space;
};
/// @param operations  of arithmetic that it may take (see Effort)
PanelLook lookAtPanel(const Panel& panel, const PanelReading& reading, double operations = usualOperations,
                      const std::stop_token& stop = {});

/// Limits of a panel: those set, or those that show everything well.
struct PanelLimits {
    Limits x, y;
    ScaleKind xScale = ScaleKind::Linear, yScale = ScaleKind::Linear;
    /// The panel's scales over so many mm.
    PanelMap map(double width, double height) const {
        return {{xScale, x.low, x.high, width}, {yScale, y.low, y.high, height}};
    }
};
PanelLimits panelLimits(const Panel& panel, const Extents& extents, double yTickCount);

/// The same limits widened so that a millimetre means the same both ways, unless they are set.
PanelLimits withEqualScales(PanelLimits limits, const Panel& panel, double width, double height);

inline ScaleKind colourScaleOf(const Panel& panel) { return panel.colour.scale.value_or(ScaleKind::Linear); }

} // namespace coulter
