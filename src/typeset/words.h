#pragma once
#include "formula/page.h"

#include <string>

namespace coulter {

/// Text with the values of quantities put in for {name}: "well at {r_0}" → "well at 0.5 m". Names that are no quantity
/// stay as they are.
std::string withValues(const Page& page, const std::string& text);

/// Unit for a label, spelled in print characters: "kg m-3" → "kg m⁻³".
std::string printedUnit(const std::string& unit);

} // namespace coulter
