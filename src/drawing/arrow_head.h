#pragma once
#include "drawing/scene.h"

#include <vector>

namespace coulter {

/// A head of an arrow that ends at a tip and comes from a direction (of any length); a filled polygon.
std::vector<Point> arrowHead(Point tip, Point from, double length);

} // namespace coulter
