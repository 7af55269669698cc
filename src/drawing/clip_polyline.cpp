#include "drawing/clip_polyline.h"

namespace coulter {
namespace {

/// Part [from, to] of the segment a–b inside the rectangle; false if there is none.
bool inside(Point a, Point b, const Rect& r, double& from, double& to) {
    const double dx = b.x - a.x, dy = b.y - a.y;
    const double p[4] = {-dx, dx, -dy, dy};
    const double q[4] = {a.x - r.x, r.right() - a.x, a.y - r.y, r.bottom() - a.y};
    from = 0;
    to = 1;
    for (int k = 0; k < 4; ++k) {
        if (p[k] == 0) {
            if (q[k] < 0) return false;
            continue;
        }
        const double t = q[k] / p[k];
        if (p[k] < 0)
            from = t > from ? t : from;
        else
            to = t < to ? t : to;
    }
    return from <= to;
}

} // namespace

std::vector<std::vector<Point>> clipPolyline(const std::vector<Point>& line, const Rect& rect) {
    std::vector<std::vector<Point>> pieces;
    bool open = false;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Point a = line[i], b = line[i + 1];
        double from = 0, to = 1;
        if (!inside(a, b, rect, from, to)) {
            open = false;
            continue;
        }
        if (!open || from > 0)
            pieces.push_back({from > 0 ? Point{a.x + from * (b.x - a.x), a.y + from * (b.y - a.y)} : a});
        pieces.back().push_back(to < 1 ? Point{a.x + to * (b.x - a.x), a.y + to * (b.y - a.y)} : b);
        open = to >= 1;
    }
    if (line.size() == 1 && rect.contains(line[0])) pieces.push_back(line);
    return pieces;
}

} // namespace coulter
