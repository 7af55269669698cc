#pragma once
#include "drawing/surface_pieces.h"

#include <optional>

namespace coulter {

/// The pieces of surfaces, the farthest first: of two that overlap on the sheet by more than a millionth of a mm the
/// nearer one comes later, wherever they do. Pieces that cross are cut where they do, and so is one of each ring whose
/// members hide each other in turn; the order names all that are to be painted.
/// Method: all pairs that overlap, found on a grid, say which of them is painted first; the order of all by A. B. Kahn,
/// "Topological sorting of large networks" (1962).
/// @return none if more than four million pairs overlap, or it was stopped
std::optional<std::vector<std::uint32_t>> paintingOrder(Pieces& made, const Rect& room, const std::stop_token& stop);

} // namespace coulter
