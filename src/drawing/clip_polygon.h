#pragma once
#include "drawing/scene.h"

namespace coulter {

/// The part of a polygon inside a rectangle. Where it is in several pieces they are joined along the rectangle's edges,
/// which fills nothing. Method: I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping" (1974).
std::vector<Point> clipPolygon(std::vector<Point> polygon, const Rect& rect);

} // namespace coulter
