#pragma once
#include "figure/curves.h"
#include "formula/page.h"
#include "typeset/box.h"

#include <string>

namespace coulter {

/// Labels as text with $…$: those set by hand, or derived from the page: label clause, name and unit
/// ("Day of the year $t$ / d"); empty if what is drawn shares neither name nor unit.
/// The horizontal scale's: of the variable, or of the coordinate x of curves in the plane.
std::string horizontalLabel(const Page& page, const Panel& panel, const PanelCurves& curves);
/// The vertical scale's: of the functions that are drawn, of a field's other variable, or of the coordinate y.
std::string verticalLabel(const Page& page, const Panel& panel, const PanelCurves& curves);
/// The colour bar's: of the field.
std::string colourLabel(const Page& page, const Panel& panel, const PanelCurves& curves);
/// The upright scale's in space.
std::string uprightLabel(const Page& page, const Panel& panel, const PanelCurves& curves);

/// Text with the values of quantities put in for {name}: "well at {r_0}" → "well at 0.5 m". Names that are no quantity
/// stay as they are.
std::string withValues(const Page& page, const std::string& text);

/// Unit for a label, spelled in print characters: "kg m-3" → "kg m⁻³".
std::string printedUnit(const std::string& unit);

} // namespace coulter
