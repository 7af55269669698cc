#pragma once
#include "composition/panel_layout.h"

namespace coulter {

/// Builds the legend's entries and decides where it goes: at the curves' ends where they are far enough apart, else
/// inside the panel where it covers least, else outside it.
/// @param limits        of the panel, through which the coarse look is seen
/// @param width,height  of the panel in mm if no room is taken by a legend
LegendLayout decideLegend(const Page& page, const Panel& panel, const PanelReading& reading, const PanelLook& look,
                          const PanelLimits& limits, double width, double height, Em letterSize);

/// The entries alone, one below the other; none where the panel is to have no legend.
LegendLayout legendEntries(const Page& page, const Panel& panel, const PanelReading& reading, Em letterSize);

/// Whether a place is at a side of the panel that gives the legend room of its own: at the left, above or below.
bool isAtSide(LegendPlace place);

/// The legend's rectangle within a panel, from the panel's upper left corner, mm. Empty for AtEnds and None.
Rect legendRectInPanel(const LegendLayout& legend, const Legend& settings, double panelWidth, double panelHeight);

/// Heights (mm from the panel's top) of the labels at the curves' right ends, moved apart where they would touch.
struct EndLabel {
    std::size_t entry = 0;
    double y = 0;   ///< of the label's middle
    double end = 0; ///< of the curve's end
};
std::vector<EndLabel> endLabels(const LegendLayout& legend, const std::vector<double>& ends, double panelHeight);

} // namespace coulter
