#pragma once
#include "plots/drawn.h"

#include <vector>

namespace coulter {

/// What a field is worth along a straight line on the sheet, evenly spaced from its first end to its last. Of a vector
/// its length; NaN where it is undefined, and outside the intervals of its variables.
struct Profile {
    std::vector<double> values;     ///< empty: there is no field, or a line has no end
    std::vector<double> across, up; ///< where, in the field's variables
};

/// @param map     of the panel's plane
/// @param from,to  mm from the panel's lower left corner, to the right and upwards, as the map has it
/// @param places  how many at most; fewer where they take too long to be computed while one looks on
Profile profileAlong(const Drawn& drawn, const PanelMap& map, std::array<double, 2> from, std::array<double, 2> to,
                     std::size_t places = 401);

} // namespace coulter
