#include "sampling/curve_sampler.h"

#include <cmath>
#include <optional>

namespace coulter {
namespace {

/// Whether the curve comes to rest towards a knot from one side: without that a step there is no jump but part of an
/// oscillation that cannot be resolved. Poles do not come to rest, but they grow steadily.
/// @param along  the coordinate on the sheet that steps, by `rise`
bool settles(CurveProbe& probe, const Knot& knot, double direction, double Knot::*along, double rise) {
    std::vector<double> places;
    for (int step = 0; step < 12; ++step)
        places.push_back(knot.t + direction * std::max(std::abs(knot.t), 1e-300) * std::ldexp(1.0, -50 + 2 * step));
    double before = knot.*along;
    int turns = 0;
    double lastMove = 0;
    for (const Knot& next : probe.ahead(places)) {
        probe.looked(1);
        if (!next.usable()) break;
        const double move = next.*along - before;
        if (std::abs(move) > 0.25 * rise && lastMove * move < 0) ++turns;
        if (std::abs(move) > 0.25 * rise) lastMove = move;
        before = next.*along;
    }
    return turns < 2;
}

/// Halves an interval again and again. Where the evaluator takes several places for the price of one, all that three
/// halvings may lead to are evaluated together.
class Halving {
public:
    explicit Halving(CurveProbe& probe) : probe_(probe) {}

    /// The curve between two places; none where no double lies between them.
    std::optional<Knot> between(double a, double b) {
        const double t = coulter::between(a, b);
        if (t == a || t == b) return std::nullopt;
        probe_.looked(1);
        for (const Knot& knot : known_) {
            if (knot.t == t) return knot;
        }
        std::vector<double> places;
        addMiddles(a, b, probe_.takesSeveralAtOnce() ? 3 : 1, places);
        known_ = probe_.ahead(places);
        return known_[0];
    }

private:
    static void addMiddles(double a, double b, int levels, std::vector<double>& places) {
        const double t = coulter::between(a, b);
        if (levels == 0 || t == a || t == b) return;
        places.push_back(t);
        addMiddles(a, t, levels - 1, places);
        addMiddles(t, b, levels - 1, places);
    }

    CurveProbe& probe_;
    std::vector<Knot> known_;
};

double farthestOut(const Knot& knot) { return std::max(std::abs(knot.u), std::abs(knot.v)); }

} // namespace

Boundary findBoundary(CurveProbe& probe, Knot defined, Knot undefined) {
    Halving halving(probe);
    for (int step = 0; step < 1200; ++step) {
        const auto middle = halving.between(defined.t, undefined.t);
        if (!middle) break;
        (middle->usable() ? defined : undefined) = *middle;
    }
    return {defined, undefined};
}

SteepPlace findSteepPlace(CurveProbe& probe, const Knot& left, const Knot& right, double tolerance) {
    Knot a = left, b = right;
    const PanelMap& map = probe.map();
    const double startRise = apart(a, b);
    Halving halving(probe);
    for (int step = 0; step < 1200; ++step) {
        const auto found = halving.between(a.t, b.t);
        if (!found) break;
        const Knot& middle = *found;
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
