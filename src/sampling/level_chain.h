#pragma once
#include "sampling/isolines.h"
#include "sampling/level_cells.h"

#include <vector>

namespace coulter {

/// A place in the user's coordinates, and in mm from the panel's lower left corner.
struct SheetSpot {
    double x = 0, y = 0, u = 0, v = 0;
};

/// A level line while it is being made: between two edges of cells, or round.
struct LevelChain {
    bool closed = false;
    CellEdge first = 0, last = 0;
    std::vector<SheetSpot> spots;
};

Path pathOf(const std::vector<SheetSpot>& spots);

/// Leaves out what is no farther than so many mm from the pieces that stay.
/// Method: D. H. Douglas, T. K. Peucker, "Algorithms for the reduction of the number of points required to represent a
/// digitized line" (1973).
void straighten(LevelChain& chain, double mm);

} // namespace coulter
