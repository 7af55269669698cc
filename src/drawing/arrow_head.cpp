#include "drawing/arrow_head.h"

#include <cmath>

namespace coulter {

std::vector<Point> arrowHead(Point tip, Point from, double length) {
    const double dx = tip.x - from.x, dy = tip.y - from.y, far = std::hypot(dx, dy);
    if (!(far > 0) || !(length > 0)) return {};
    const double ux = dx / far, uy = dy / far, half = 0.32 * length, notch = 0.78 * length;
    return {tip,
            {tip.x - ux * length - uy * half, tip.y - uy * length + ux * half},
            {tip.x - ux * notch, tip.y - uy * notch},
            {tip.x - ux * length + uy * half, tip.y - uy * length - ux * half}};
}

} // namespace coulter
