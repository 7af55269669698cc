#include "sampling/curve_sampler.h"

#include <cmath>

namespace coulter {
namespace {

/// A point strictly between two doubles, or either of them if there is none.
double between(double a, double b) {
    const double middle = a / 2 + b / 2;
    // Across zero, and far apart in magnitude, halving the exponent ends sooner than halving the distance.
    if (a != 0 && b != 0 && (a < 0) == (b < 0)) {
        const double ratio = std::abs(a / b);
        if (ratio > 1e3 || ratio < 1e-3) return std::copysign(std::sqrt(std::abs(a)) * std::sqrt(std::abs(b)), a);
    } else if (a == 0 || b == 0) {
        const double other = a == 0 ? b : a;
        if (std::abs(other) < 1e-150) return other / 1024 != 0 ? other / 1024 : other / 2;
    }
    return middle;
}

/// Whether the function comes to rest towards a knot from one side: without that a step there is no jump but part of
/// an oscillation that cannot be resolved. Poles do not come to rest, but they grow steadily.
bool settles(CurveProbe& probe, const Knot& knot, double direction, double rise) {
    double x = knot.x;
    double before = knot.v;
    int turns = 0;
    double lastMove = 0;
    for (int step = 0; step < 12; ++step) {
        const double distance = std::max(std::abs(knot.x), 1e-300) * std::ldexp(1.0, -50 + 2 * step);
        x = knot.x + direction * distance;
        const Knot next = probe.at(x);
        if (!std::isfinite(next.y)) break;
        const double move = next.v - before;
        if (std::abs(move) > 0.25 * rise && lastMove * move < 0) ++turns;
        if (std::abs(move) > 0.25 * rise) lastMove = move;
        before = next.v;
    }
    return turns < 2;
}

} // namespace

Boundary findBoundary(CurveProbe& probe, Knot defined, Knot undefined) {
    for (int step = 0; step < 1200; ++step) {
        const double x = between(defined.x, undefined.x);
        if (x == defined.x || x == undefined.x) break;
        Knot middle = probe.at(x);
        (std::isfinite(middle.y) ? defined : undefined) = middle;
    }
    return {defined, undefined};
}

SteepPlace findSteepPlace(CurveProbe& probe, const Knot& left, const Knot& right, double tolerance) {
    Knot a = left, b = right;
    const double startRise = std::abs(b.v - a.v);
    for (int step = 0; step < 1200; ++step) {
        const double x = between(a.x, b.x);
        if (x == a.x || x == b.x) break;
        const Knot middle = probe.at(x);
        if (!std::isfinite(middle.y)) { // the function is undefined in between: a pole if it grows towards it
            const Boundary lower = findBoundary(probe, a, middle), upper = findBoundary(probe, b, middle);
            const double size = std::max(std::abs(lower.defined.v), std::abs(upper.defined.v));
            const bool grows = size > 1e6 * (startRise + probe.map().y.length);
            return {lower.defined, upper.defined, grows ? GapKind::Pole : GapKind::Jump, false};
        }
        (std::abs(middle.v - a.v) >= std::abs(b.v - middle.v) ? b : a) = middle;
        if (std::abs(b.v - a.v) < tolerance / 2) return {a, b, std::nullopt, false};
    }
    const double rise = std::abs(b.v - a.v);
    if (!settles(probe, a, -1, rise) || !settles(probe, b, 1, rise)) return {a, b, std::nullopt, true};
    // Each halving of the distance doubles the rise at a simple pole and leaves it as it is at a jump.
    const bool grows = rise > 1e3 * startRise && rise > 1e3 * probe.map().y.length;
    return {a, b, grows ? GapKind::Pole : GapKind::Jump, false};
}

} // namespace coulter
