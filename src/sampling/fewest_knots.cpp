#include "sampling/curve_sampler.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

/// Angle brought into (−π, π].
double wrapped(double angle) {
    while (angle > std::numbers::pi) angle -= 2 * std::numbers::pi;
    while (angle <= -std::numbers::pi) angle += 2 * std::numbers::pi;
    return angle;
}

} // namespace

std::vector<std::size_t> fewestKnots(std::span<const Knot> knots, double tolerance) {
    std::vector<std::size_t> kept;
    if (knots.empty()) return kept;
    kept.push_back(0);
    std::size_t start = 0;
    while (start + 1 < knots.size()) {
        // Directions from `start` that pass every point seen so far within the tolerance, relative to `axis`.
        double axis = 0, low = -10, high = 10;
        bool haveCone = false;
        std::size_t reached = start + 1;
        for (std::size_t j = start + 1; j < knots.size(); ++j) {
            const double du = knots[j].u - knots[start].u, dv = knots[j].v - knots[start].v;
            const double distance = std::hypot(du, dv);
            if (haveCone) {
                const double direction = wrapped(std::atan2(dv, du) - axis);
                if (direction >= low && direction <= high) reached = j;
                if (low > high) break;
            }
            if (distance <= tolerance) {
                if (!haveCone) reached = j;
                continue; // whatever the direction, this point is near the start
            }
            const double direction = std::atan2(dv, du);
            const double spread = std::asin(tolerance / distance);
            if (!haveCone) {
                haveCone = true;
                axis = direction;
                low = -spread;
                high = spread;
                reached = j;
            } else {
                const double relative = wrapped(direction - axis);
                low = std::max(low, relative - spread);
                high = std::min(high, relative + spread);
            }
            if (low > high) break;
        }
        kept.push_back(reached);
        start = reached;
    }
    return kept;
}

} // namespace coulter
