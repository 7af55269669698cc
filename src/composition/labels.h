#pragma once
#include "plots/plot_kind.h"
#include "typeset/box.h"
#include "typeset/words.h"

#include <array>
#include <string>

namespace coulter {

/// A unit of each scale, indexed as in item paths: across, up, of colours, upright.
using PanelUnits = std::array<std::string, 4>;

/// Labels of a panel's scales as text with $…$: those set by hand, or derived from what the plots call them: label
/// clause, name and unit ("Day of the year $t$ / d"); empty if what is drawn shares neither name nor unit.
struct PanelLabels {
    std::string across, up, upright, colour;
};
/// @param shown  units that the scales are shown in
PanelLabels labelsOf(const Panel& panel, const PanelReading& reading, const PanelUnits& shown);

/// What a label would be if none were set by hand.
PanelLabels derivedLabels(const PanelReading& reading, const PanelUnits& shown);

/// The page's units of the scales; empty where what is drawn shares none.
PanelUnits unitsOf(const PanelReading& reading);

} // namespace coulter
