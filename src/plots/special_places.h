#pragma once
#include "plots/source.h"

#include <optional>
#include <span>
#include <string>

namespace coulter {

/// A place of a curve that the pointer snaps to.
struct SpecialPlace {
    double x = 0, y = 0;
    std::string word; ///< "zero", "maximum", "minimum", "crossing"
};

/// The zero, extremum or crossing of a function's curve that is nearest to a place within an interval; none if the
/// function has none there. It is looked for by signs of the function and of its differences, then halved down to
/// neighbouring doubles, or to where differences are lost in rounding: for reading off, not a proof.
/// @param others  curves on the same scale that it may cross
std::optional<SpecialPlace> specialPlaceNear(const Curve& curve, std::span<const Curve* const> others, double low,
                                             double high, double place);

} // namespace coulter
