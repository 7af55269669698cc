#pragma once
#include "figure/document.h"
#include "formula/page.h"
#include "typeset/box.h"

#include <string>

namespace coulter {

/// The label of a panel's horizontal axis as text with $…$: the one set by hand, or derived from the variable:
/// its label clause, its name and its unit ("Day of the year $t$ / d").
std::string horizontalLabel(const Page& page, const Panel& panel, const std::string& variable);

/// The same for the vertical axis, from the functions that are drawn; empty if they share neither name nor unit.
std::string verticalLabel(const Page& page, const Panel& panel);

/// Text with the values of quantities put in for {name}: "well at {r_0}" → "well at 0.5 m". Names that are no quantity
/// stay as they are.
std::string withValues(const Page& page, const std::string& text);

/// Unit for a label, spelled in print characters: "kg m-3" → "kg m⁻³".
std::string printedUnit(const std::string& unit);

} // namespace coulter
