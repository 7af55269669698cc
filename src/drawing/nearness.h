#pragma once
#include "drawing/scene.h"

#include <vector>

namespace coulter {

/// mm from a place to the nearest of a polyline; infinite if it has no two points.
double distanceTo(const std::vector<Point>& line, Point p);

/// Whether a place is inside polygons by the even-odd rule.
bool isInside(const std::vector<std::vector<Point>>& polygons, Point p);

} // namespace coulter
