#include "sampling/curve_sampler.h"

#include <cmath>

namespace coulter {
namespace {

/// Whether the curve comes to rest towards a knot from one side: without that a step there is no jump but part of an
/// oscillation that cannot be resolved. Poles do not come to rest, but they grow steadily.
/// @param along  the coordinate on the sheet that steps, by `rise`
bool settles(CurveProbe& probe, const Knot& knot, double direction, double Knot::*along, double rise) {
    double before = knot.*along;
    int turns = 0;
    double lastMove = 0;
    for (int step = 0; step < 12; ++step) {
        const double distance = std::max(std::abs(knot.t), 1e-300) * std::ldexp(1.0, -50 + 2 * step);
        const Knot next = probe.at(knot.t + direction * distance);
        if (!next.usable()) break;
        const double move = next.*along - before;
        if (std::abs(move) > 0.25 * rise && lastMove * move < 0) ++turns;
        if (std::abs(move) > 0.25 * rise) lastMove = move;
        before = next.*along;
    }
    return turns < 2;
}

double farthestOut(const Knot& knot) { return std::max(std::abs(knot.u), std::abs(knot.v)); }

} // namespace

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

Boundary findBoundary(CurveProbe& probe, Knot defined, Knot undefined) {
    for (int step = 0; step < 1200; ++step) {
        const double t = between(defined.t, undefined.t);
        if (t == defined.t || t == undefined.t) break;
        const Knot middle = probe.at(t);
        (middle.usable() ? defined : undefined) = middle;
    }
    return {defined, undefined};
}

SteepPlace findSteepPlace(CurveProbe& probe, const Knot& left, const Knot& right, double tolerance) {
    Knot a = left, b = right;
    const PanelMap& map = probe.map();
    const double startRise = apart(a, b);
    for (int step = 0; step < 1200; ++step) {
        const double t = between(a.t, b.t);
        if (t == a.t || t == b.t) break;
        const Knot middle = probe.at(t);
        if (!middle.usable()) { // the function is undefined in between: a pole if it grows towards it
            const Boundary lower = findBoundary(probe, a, middle), upper = findBoundary(probe, b, middle);
            const double size = std::max(farthestOut(lower.defined), farthestOut(upper.defined));
            const bool grows = size > 1e6 * (startRise + map.y.length);
            return {lower.defined, upper.defined, grows ? GapKind::Pole : GapKind::Jump, false};
        }
        (apart(middle, a) >= apart(b, middle) ? b : a) = middle;
        if (apart(a, b) < tolerance / 2) return {a, b, std::nullopt, false};
    }
    const double rise = apart(a, b);
    double Knot::*along = std::abs(b.u - a.u) > std::abs(b.v - a.v) ? &Knot::u : &Knot::v;
    if (!settles(probe, a, -1, along, rise) || !settles(probe, b, 1, along, rise)) return {a, b, std::nullopt, true};
    // Each halving of the distance doubles the rise at a simple pole and leaves it as it is at a jump.
    const bool grows = rise > 1e3 * startRise && rise > 1e3 * map.y.length;
    return {a, b, grows ? GapKind::Pole : GapKind::Jump, false};
}

} // namespace coulter
