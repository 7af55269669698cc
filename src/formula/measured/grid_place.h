#pragma once
#include <vector>

namespace coulter {

/// How a line lays a file's grid on its variables. A picture may lie in its file in eight ways: its rows from top to
/// bottom or the other way round, and all of it turned.
struct GridPlace {
    std::vector<double> pitch;  ///< width of each number: one, or along each of the first two variables; empty: as the
                                ///< file says
    std::vector<double> origin; ///< where the outer edges of the first numbers lie; empty: as the file says, or at 0
    bool rowsUpwards = false;   ///< the file's first row lies lowest
    int quarters = 0;           ///< of a full turn, counter-clockwise, 0 to 3; after that

    bool isTurned() const { return rowsUpwards || quarters != 0; }
    bool isStated() const { return isTurned() || !pitch.empty() || !origin.empty(); }
};

} // namespace coulter
