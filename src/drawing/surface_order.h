#pragma once
#include "drawing/surface_pieces.h"

namespace coulter {

/// The pieces of surfaces, the farthest first: of two that overlap on the sheet by more than a millionth of a mm the
/// nearer one comes later, wherever they do. Pieces that cross are cut where they do, and so is one of each ring whose
/// members hide each other in turn; the order names all that are to be painted.
/// Method: all pairs that overlap, found on a grid, say which of them is painted first; the order of all by A. B. Kahn,
/// "Topological sorting of large networks" (1962).
std::vector<std::uint32_t> paintingOrder(Pieces& made, const Rect& room);

} // namespace coulter
