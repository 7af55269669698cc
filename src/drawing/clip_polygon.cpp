#include "drawing/clip_polygon.h"

namespace coulter {
namespace {

/// Keeps what is on one side of a line; `beyond` is the distance outwards.
template <typename Beyond> std::vector<Point> cut(const std::vector<Point>& polygon, const Beyond& beyond) {
    std::vector<Point> kept;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
        const double out = beyond(a), next = beyond(b);
        if (out <= 0) kept.push_back(a);
        if ((out <= 0) == (next <= 0)) continue;
        const double part = out / (out - next);
        kept.push_back({a.x + part * (b.x - a.x), a.y + part * (b.y - a.y)});
    }
    return kept;
}

} // namespace

std::vector<Point> clipPolygon(std::vector<Point> polygon, const Rect& rect) {
    polygon = cut(polygon, [&](const Point& p) { return rect.x - p.x; });
    polygon = cut(polygon, [&](const Point& p) { return p.x - rect.right(); });
    polygon = cut(polygon, [&](const Point& p) { return rect.y - p.y; });
    return cut(polygon, [&](const Point& p) { return p.y - rect.bottom(); });
}

} // namespace coulter
