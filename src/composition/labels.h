#pragma once
#include "plots/plot_kind.h"
#include "typeset/box.h"

#include <string>

namespace coulter {

/// Labels of a panel's scales as text with $…$: those set by hand, or derived from what the plots call them: label
/// clause, name and unit ("Day of the year $t$ / d"); empty if what is drawn shares neither name nor unit.
struct PanelLabels {
    std::string across, up, upright, colour;
};
PanelLabels labelsOf(const Panel& panel, const PanelReading& reading);

/// What a label would be if none were set by hand.
PanelLabels derivedLabels(const PanelReading& reading);

/// Text with the values of quantities put in for {name}: "well at {r_0}" → "well at 0.5 m". Names that are no quantity
/// stay as they are.
std::string withValues(const Page& page, const std::string& text);

/// Unit for a label, spelled in print characters: "kg m-3" → "kg m⁻³".
std::string printedUnit(const std::string& unit);

} // namespace coulter
