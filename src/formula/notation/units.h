#pragma once
#include <optional>
#include <string>

namespace coulter {

/// Whether UDUNITS-2 can read the text as a unit ("m", "kg m-3", "°C", "1").
bool isUnit(const std::string& text);

/// Whether an exponent of a unit has a point, as h-0.5: read as a unit, that is h-0 times 5.
bool hasBrokenExponent(const std::string& unit);

/// How a number of one unit becomes one of another: factor × number + offset.
struct UnitConversion {
    double factor = 1, offset = 0;
    double operator()(double value) const { return factor * value + offset; }
    double back(double shown) const { return (shown - offset) / factor; }
    bool isNone() const { return factor == 1 && offset == 0; }
};
/// None if one of the two is no unit, or they are of different dimension. An empty text is the unit one.
std::optional<UnitConversion> unitConversion(const std::string& from, const std::string& to);

} // namespace coulter
