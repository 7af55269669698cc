#pragma once
#include "formula/page/page.h"

#include <string>

namespace coulter {

/// Text with values of the page put in for what stands in braces: "well at {r_0}" → "well at 0.5 m", and so in
/// formulas: "$r_0 = {r_0}$". Any formula that is worth a number may stand there, and behind a colon how many digits
/// are shown at most: "{f(r_0):3}". What is no number of the page stays as it is.
std::string withValues(const Page& page, const std::string& text);

/// Unit for a label, spelled in print characters: "kg m-3" → "kg m⁻³".
std::string printedUnit(const std::string& unit);

} // namespace coulter
