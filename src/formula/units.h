#pragma once
#include <string>

namespace coulter {

/// Whether UDUNITS-2 can read the text as a unit ("m", "kg m-3", "°C", "1").
bool isUnit(const std::string& text);

} // namespace coulter
