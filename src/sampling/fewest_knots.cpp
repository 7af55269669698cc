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

double distanceFromChord(const Knot& knot, const Knot& a, const Knot& b) {
    const double du = b.u - a.u, dv = b.v - a.v, square = du * du + dv * dv;
    const double t = square > 0 ? std::clamp(((knot.u - a.u) * du + (knot.v - a.v) * dv) / square, 0.0, 1.0) : 0;
    return std::hypot(a.u + t * du - knot.u, a.v + t * dv - knot.v);
}

std::vector<std::size_t> fewestKnots(std::span<const Knot> knots, double tolerance, double longest) {
    std::vector<std::size_t> kept;
    if (knots.empty()) return kept;
    kept.push_back(0);
    std::size_t start = 0;
    while (start + 1 < knots.size()) {
        // Directions from `start` that pass every point seen so far within the tolerance, relative to `axis`.
        double axis = 0, low = -10, high = 10, farthest = 0;
        bool haveCone = false;
        std::size_t reached = start + 1;
        for (std::size_t j = start + 1; j < knots.size(); ++j) {
            const double du = knots[j].u - knots[start].u, dv = knots[j].v - knots[start].v;
            const double distance = std::hypot(du, dv);
            if (distance > longest && j > start + 1) break;
            if (haveCone) {
                const double direction = wrapped(std::atan2(dv, du) - axis);
                // A chord that ends nearer than a point before it would cut off the tip of a needle.
                if (direction >= low && direction <= high && distance >= farthest) reached = j;
                if (low > high) break;
            }
            farthest = std::max(farthest, distance);
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
