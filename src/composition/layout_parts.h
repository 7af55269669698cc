#pragma once
#include "composition/panel_layout.h"

namespace coulter {

// What the layouts of the shapes of a panel share. Inner to them.

/// What the layout of a panel starts from, and never changes.
struct Given {
    const Page& page;
    const Panel& panel;
    const PanelReading& reading;
    const PanelLook& look;
    const PanelLabels& labels;
    const ScaleRules& rules;
    Rect room;
    const std::vector<OnScale>& scales;
    const PanelWishes& wishes;

    Box box(const std::string& text, Em size) const;
};

double widestLabel(const Ticks& ticks, Em size);

/// As many numbers as stand clear of each other along so many mm, beside each other.
Ticks clearTicks(const TickRules& rules, const AxisMap& map, Em size);
/// The same upwards, where numbers are as high as their letters.
Ticks clearTicksUp(const TickRules& rules, const AxisMap& map, Em size, double wanted);

/// Puts the legend's rectangle where it goes, once the panel's is known.
void placeLegend(PanelLayout& layout, const Given& given);

/// A radius over an angle before its place is known: scales and directions, with a radius of 1 mm.
PolarFrame polarFrame(const Panel& panel, const PanelLook& look);

/// Of what is drawn in space, and of a radius over an angle, within the room between `top` and `top` + `height` mm.
PanelLayout layoutSpace(PanelLayout layout, const Given& given, double top, double height);
PanelLayout layoutPolar(PanelLayout layout, const Given& given, double top, double height);

} // namespace coulter
