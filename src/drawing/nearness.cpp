#include "drawing/nearness.h"

#include <algorithm>
#include <cmath>

namespace coulter {

double distanceTo(const std::vector<Point>& line, Point p) {
    double least = HUGE_VAL;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const double dx = line[i + 1].x - line[i].x, dy = line[i + 1].y - line[i].y, square = dx * dx + dy * dy;
        const double part =
            square > 0 ? std::clamp(((p.x - line[i].x) * dx + (p.y - line[i].y) * dy) / square, 0.0, 1.0) : 0;
        least = std::min(least, std::hypot(line[i].x + part * dx - p.x, line[i].y + part * dy - p.y));
    }
    return least;
}

bool isInside(const std::vector<std::vector<Point>>& polygons, Point p) {
    bool inside = false;
    for (const auto& polygon : polygons) {
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
            if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * (p.y - a.y) / (b.y - a.y)) inside = !inside;
        }
    }
    return inside;
}

} // namespace coulter
