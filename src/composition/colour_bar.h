#pragma once
#include "composition/figure.h"
#include "composition/layout_parts.h"

namespace coulter {

// The scale of colours: what it ranges over, and the bar that says so.

/// Decides the range, the colours and what the bar says, and how much room it needs on its side.
/// @param along  mm that the bar is long
void layoutColours(PanelLayout& layout, const Given& given, double along);
/// Room that the bar takes on a side of the panel; 0 on all others.
double barRoom(const PanelLayout& layout, BarSide side);
/// Puts the bar beside the panel, whose frame is known.
/// @param beyond  mm between the panel and the bar's side that scales and labels take
void placeColourBar(PanelLayout& layout, double beyond);

void drawColourBar(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout,
                   double dotsPerMm);

/// Where a value is on the bar: mm on the sheet along it, downwards or to the right; and the value at such a place,
/// beyond its ends too.
double placeOnBar(const PanelLayout& layout, double value);
double valueOnBar(const PanelLayout& layout, double place);

/// The colours of a panel's fields on a scale.
ColourRun colourRun(const Panel& panel, const PanelReading& reading, const AxisMap& scale);
/// What colours range over, with a middle if one was set.
Limits colourLimits(const PanelReading& reading, const Limits& found, ScaleKind scale);

} // namespace coulter
