#pragma once
#include "drawing/scene.h"

namespace coulter {

/// The pieces of a polyline inside a rectangle, cut exactly at its edges (parametric
/// clipping of each segment against the four edges).
std::vector<std::vector<Point>> clipPolyline(const std::vector<Point>& line, const Rect& rect);

} // namespace coulter
