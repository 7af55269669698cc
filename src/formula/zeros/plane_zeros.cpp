#include "formula/zeros/plane_zeros.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "formula/proofs/jet_evaluator.h"
#include "formula/zeros/zeros.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <optional>

namespace coulter {
namespace {

using Pair = std::array<Bounds, 2>;

/// Operations of arithmetic that a step costs beside the functions themselves.
constexpr double costOfPart = 60;
/// Sides of the parts that are not divided any more, and of those that count as one place, as shares of the
/// rectangle's.
constexpr double narrowestSide = 0x1p-40, smallSide = 1e-6;
/// Where bounds are not known at all, as near a pole, less narrow ones tell as little.
constexpr double narrowestUnknown = 0x1p-28;
/// So many parts of such sides are no places that stand alone.
constexpr std::size_t mostParts = 4000;
constexpr double sidesOfMany[] = {0x1p-20, 0x1p-8};
/// Units in the last place by which an edge may be off.
constexpr int roundingOfEdges = 16;

bool areApart(const Bounds& a, const Bounds& b) { return a.low > b.high || b.low > a.high; }
bool areApart(const PlanePart& a, const PlanePart& b) { return areApart(a.x, b.x) || areApart(a.y, b.y); }
bool lies(const Bounds& a, const Bounds& within) { return within.low <= a.low && a.high <= within.high; }
bool lies(const PlanePart& a, const PlanePart& within) { return lies(a.x, within.x) && lies(a.y, within.y); }
bool liesInside(const Bounds& a, const Bounds& within) { return within.low < a.low && a.high < within.high; }
Bounds around(const Bounds& a, double by) { return {roundedDown(a.low - by), roundedUp(a.high + by)}; }
/// A part that is larger on all sides by a share of them.
PlanePart grown(const PlanePart& a, double share) {
    return {around(a.x, share * width(a.x)), around(a.y, share * width(a.y))};
}
double middleOf(const Bounds& a) { return a.low + (a.high - a.low) / 2; }

/// What is known of a map over a part.
struct Seen {
    Pair value, centre;
    std::array<Pair, 2> slope;
    bool isNowhere = false; ///< it is defined nowhere in the part
    bool isSmooth = false;  ///< the values follow the slopes, so that Krawczyk's operator may be used
};

class PlaneSearch {
public:
    PlaneSearch(const Program& map, const PlanePart& rectangle, double work)
        : jets_(map), isOfSlopes_(map.outputs.size() == 1), cost_(costOf(map) + costOfPart), all_(rectangle),
          work_(work) {}

    PlaneZeros run() {
        std::deque<PlanePart> parts{withRounding()};
        std::vector<PlanePart> rest;
        while (!parts.empty() && work_ >= 0) {
            PlanePart part = parts.front();
            if (parts.size() > mostParts && isSmall(part, sidesOfMany[1]) && !isSmall(part, sidesOfMany[0])) break;
            parts.pop_front();
            bool isKnown = true;
            if (isSettled(part, isKnown)) continue;
            const double across = width(part.x) / width(all_.x), up = width(part.y) / width(all_.y);
            if (std::max(across, up) <= (isKnown ? narrowestSide : narrowestUnknown)) {
                rest.push_back(part);
                continue;
            }
            const auto halves = divided(part);
            if (halves)
                parts.insert(parts.end(), halves->begin(), halves->end());
            else
                rest.push_back(part);
        }
        out_.outOfWork = !parts.empty();
        rest.insert(rest.end(), parts.begin(), parts.end());
        settleRest(rest);
        finish();
        return std::move(out_);
    }

private:
    /// An edge may be a rounded number; what lies a few units beyond it counts, if the map is known there.
    PlanePart withRounding() {
        PlanePart all = all_;
        for (const bool isX : {true, false}) {
            const auto side = [&](PlanePart& part) -> Bounds& { return isX ? part.x : part.y; };
            const double low = moved(side(all_).low, -roundingOfEdges), high = moved(side(all_).high, roundingOfEdges);
            PlanePart below = all_, above = all_;
            side(below) = {low, side(all_).low};
            side(above) = {side(all_).high, high};
            if (see(below).isSmooth) side(all).low = low;
            if (see(above).isSmooth) side(all).high = high;
        }
        return all;
    }

    /// A part in two, across its longer side; none if there is no double between.
    std::optional<std::array<PlanePart, 2>> divided(const PlanePart& part) const {
        const bool isWide = width(part.x) / width(all_.x) >= width(part.y) / width(all_.y);
        const Bounds side = isWide ? part.x : part.y;
        const double at = side.low + 0.4873 * width(side); // round numbers should not be borders
        if (!(at > side.low && at < side.high)) return std::nullopt;
        std::array<PlanePart, 2> halves{part, part};
        (isWide ? halves[0].x : halves[0].y).high = at;
        (isWide ? halves[1].x : halves[1].y).low = at;
        return halves;
    }

    bool isSmall(const PlanePart& part, double share) const {
        return width(part.x) < share * width(all_.x) && width(part.y) < share * width(all_.y);
    }

    Seen see(const PlanePart& part) {
        work_ -= cost_;
        const std::span<const Jet<2>> jets = jets_({part.x, part.y});
        Seen seen;
        const auto slopeOf = [](const Jet<2>& jet) { return Pair{jet.first[0], jet.first[1]}; };
        const auto boundsOf = [](const Enclosure& e) { return e.known ? Bounds{e.low, e.high} : everything(); };
        for (const Jet<2>& jet : jets) {
            out_.isEstimated = out_.isEstimated || jet.value.estimated;
            seen.isNowhere = seen.isNowhere || (jet.value.known && jet.value.low > jet.value.high);
        }
        if (seen.isNowhere) return seen;
        if (isOfSlopes_) {
            const Jet<2>& jet = jets[0];
            seen.value = slopeOf(jet);
            seen.centre = jet.centreFirst;
            for (std::size_t i = 0; i < 2; ++i)
                seen.slope[i] = {jet.second[Jet<2>::pair(0, i)], jet.second[Jet<2>::pair(i, 1)]};
            seen.isSmooth = jet.value.isProof();
        } else {
            for (std::size_t i = 0; i < 2; ++i) {
                seen.value[i] = boundsOf(jets[i].value);
                seen.centre[i] = boundsOf(jets[i].centre);
                seen.slope[i] = slopeOf(jets[i]);
            }
            seen.isSmooth = jets[0].value.isProof() && jets[1].value.isProof();
        }
        for (std::size_t i = 0; i < 2; ++i)
            seen.isSmooth = seen.isSmooth && isBounded(seen.centre[i]) && isBounded(seen.slope[i][0]) &&
                            isBounded(seen.slope[i][1]);
        if (seen.isSmooth) {
            for (std::size_t i = 0; i < 2; ++i)
                seen.value[i] = common(seen.value[i], seen.centre[i] + seen.slope[i][0] * fromMiddle(part.x) +
                                                          seen.slope[i][1] * fromMiddle(part.y));
        }
        return seen;
    }

    static Bounds fromMiddle(const Bounds& side) {
        const double reach = middleAndRadius(side).radius;
        return {-reach, reach};
    }

    /// Krawczyk's operator over a part: every zero of the part lies in what it returns, and if that lies inside the
    /// part there is exactly one. None where the slopes say too little.
    static std::optional<PlanePart> krawczyk(const PlanePart& part, const Seen& seen) {
        std::array<std::array<double, 2>, 2> m;
        for (std::size_t i = 0; i < 2; ++i)
            for (std::size_t k = 0; k < 2; ++k) m[i][k] = middleOf(seen.slope[i][k]);
        const double determinant = m[0][0] * m[1][1] - m[0][1] * m[1][0];
        const std::array<std::array<double, 2>, 2> y{
            {{m[1][1] / determinant, -m[0][1] / determinant}, {-m[1][0] / determinant, m[0][0] / determinant}}};
        const Pair reach{fromMiddle(part.x), fromMiddle(part.y)};
        const Pair middle{exactly(middleAndRadius(part.x).middle), exactly(middleAndRadius(part.y).middle)};
        Pair to;
        for (std::size_t i = 0; i < 2; ++i) {
            if (!std::isfinite(y[i][0]) || !std::isfinite(y[i][1])) return std::nullopt;
            to[i] = middle[i] - (y[i][0] * seen.centre[0] + y[i][1] * seen.centre[1]);
            for (std::size_t k = 0; k < 2; ++k) {
                const Bounds product = y[i][0] * seen.slope[0][k] + y[i][1] * seen.slope[1][k];
                to[i] = to[i] + (exactly(i == k ? 1 : 0) - product) * reach[k];
            }
            if (!isBounded(to[i])) return std::nullopt;
        }
        return PlanePart{to[0], to[1]};
    }

    static bool mayHaveZero(const Seen& seen) {
        return !seen.isNowhere && hasZero(seen.value[0]) && hasZero(seen.value[1]);
    }

    /// Whether it is known what lies in a part; a zero is noted. Else the part may have become smaller.
    bool isSettled(PlanePart& part, bool& isKnown) {
        const Seen seen = see(part);
        isKnown = isBounded(seen.value[0]) && isBounded(seen.value[1]);
        if (!mayHaveZero(seen)) return true;
        if (!seen.isSmooth) return false;
        const auto first = krawczyk(part, seen);
        if (!first) return false;
        if (areApart(*first, part)) return true;
        // Where it does not even come near the part's own size, a larger part cannot do it.
        if (width(first->x) > 2 * width(part.x) || width(first->y) > 2 * width(part.y)) return false;
        if (isDecided(grown(part, 0.3), part)) return true;
        if (isDecided(part, part)) return true;
        const PlanePart less{common(part.x, first->x), common(part.y, first->y)};
        if (width(less.x) * width(less.y) < 0.5 * width(part.x) * width(part.y)) part = less;
        return false;
    }

    /// Whether a part around another one has exactly one zero, which is noted, or the other one none.
    bool isDecided(const PlanePart& around, const PlanePart& part) {
        const Seen seen = see(around);
        if (!seen.isSmooth) return false;
        const auto to = krawczyk(around, seen);
        if (!to) return false;
        if (areApart(*to, part)) return true;
        if (!liesInside(to->x, around.x) || !liesInside(to->y, around.y)) return false;
        note(around, *to);
        return true;
    }

    /// The only zero of a part, as narrow as rounding lets it be.
    void note(const PlanePart& alone, PlanePart within) {
        if (const auto narrow = aroundPlace(within); narrow && lies(*narrow, alone)) within = *narrow;
        Seen seen = see(within);
        for (int i = 0; i < 40 && seen.isSmooth; ++i) {
            const auto to = krawczyk(within, seen);
            if (!to) break;
            const PlanePart next{common(within.x, to->x), common(within.y, to->y)};
            const bool isDone = width(next.x) > 0.9 * width(within.x) && width(next.y) > 0.9 * width(within.y);
            within = next;
            seen = see(within);
            if (isDone) break;
        }
        PlaneZero zero;
        zero.within = within;
        zero.slopes = seen.slope;
        zeros_.push_back({alone, zero});
    }

    /// A narrow part that has a zero for certain, about the place to which Newton's steps lead from the middle of a
    /// part.
    std::optional<PlanePart> aroundPlace(const PlanePart& part) {
        double x = middleOf(part.x), y = middleOf(part.y);
        for (int i = 0; i < 60; ++i) {
            const Seen seen = see({exactly(x), exactly(y)});
            if (!seen.isSmooth) return std::nullopt;
            const auto at = [](const Bounds& bounds) { return middleOf(bounds); };
            const double f = at(seen.value[0]), g = at(seen.value[1]), fx = at(seen.slope[0][0]),
                         fy = at(seen.slope[0][1]), gx = at(seen.slope[1][0]), gy = at(seen.slope[1][1]),
                         determinant = fx * gy - fy * gx, dx = (f * gy - g * fy) / determinant,
                         dy = (g * fx - f * gx) / determinant;
            if (!std::isfinite(dx) || !std::isfinite(dy)) return std::nullopt;
            x = std::clamp(x - dx, part.x.low, part.x.high);
            y = std::clamp(y - dy, part.y.low, part.y.high);
            if (std::abs(dx) <= 0x1p-50 * std::abs(x) && std::abs(dy) <= 0x1p-50 * std::abs(y)) break;
        }
        for (double share = 0x1p-46; share < 1; share *= 8) {
            const PlanePart near{around(exactly(x), share * width(part.x)), around(exactly(y), share * width(part.y))};
            const Seen seen = see(near);
            const auto to = seen.isSmooth ? krawczyk(near, seen) : std::nullopt;
            if (to && liesInside(to->x, near.x) && liesInside(to->y, near.y)) return to;
        }
        return std::nullopt;
    }

    /// What could not be settled: very small parts are places, of which it may be shown that they exist.
    void settleRest(const std::vector<PlanePart>& rest) {
        constexpr std::size_t manyParts = 60;
        for (const PlanePart& hull : hullsOf(rest, all_)) {
            const bool isPlace = isSmall(hull, smallSide);
            if (isPlace && settleSmall(hull)) continue;
            const std::size_t before = out_.unsettled.size();
            std::ranges::copy_if(rest, std::back_inserter(out_.unsettled),
                                 [&](const PlanePart& part) { return lies(part, hull); });
            out_.mayBeLine = out_.mayBeLine || (!isPlace && out_.unsettled.size() - before >= manyParts);
        }
        // A few of them tell what is in the way.
        const std::size_t step = std::max<std::size_t>(1, out_.unsettled.size() / 32);
        std::size_t looked = 0, unknown = 0;
        for (std::size_t i = 0; i < out_.unsettled.size(); i += step, ++looked) {
            const Seen seen = see(out_.unsettled[i]);
            unknown += isBounded(seen.value[0]) && isBounded(seen.value[1]) ? 0 : 1;
        }
        out_.isBroken = 2 * unknown > looked;
    }

    bool settleSmall(const PlanePart& hull) {
        work_ = std::max(work_, 400 * cost_); // a place that is found deserves to be looked at
        if (std::ranges::any_of(zeros_, [&](const Noted& each) { return lies(hull, each.alone); })) return true;
        const double x = 1e-3 * smallSide * width(all_.x), y = 1e-3 * smallSide * width(all_.y);
        PlanePart wide{around(hull.x, width(hull.x) + x), around(hull.y, width(hull.y) + y)};
        if (isDecided(wide, hull)) return true;
        const Seen seen = see(wide);
        if (!seen.isSmooth) return false;
        PlaneZero zero;
        zero.within = wide;
        const std::optional<int> turns = turnsAlong(wide);
        zero.turns = turns.value_or(0);
        zero.isOneOrMore = zero.turns != 0;
        zero.isProven = zero.isOneOrMore;
        open_.push_back(zero);
        return zero.isOneOrMore;
    }

    /// How often the map turns round along the border of a part; none if bounds cannot tell.
    std::optional<int> turnsAlong(const PlanePart& part) {
        std::vector<int> quarters; // the half planes that values lie in one after the other: 0 is to the right
        const std::array<std::array<double, 2>, 5> corners{{{part.x.low, part.y.low},
                                                            {part.x.high, part.y.low},
                                                            {part.x.high, part.y.high},
                                                            {part.x.low, part.y.high},
                                                            {part.x.low, part.y.low}}};
        for (std::size_t i = 0; i < 4; ++i) {
            if (!follow(corners[i], corners[i + 1], 0, quarters)) return std::nullopt;
        }
        int turned = 0;
        for (std::size_t i = 0; i < quarters.size(); ++i) {
            const int step = (quarters[(i + 1) % quarters.size()] - quarters[i] + 4) % 4;
            if (step == 2) return std::nullopt; // cannot be: half planes of neighbours have a value in common
            turned += step == 3 ? -1 : step;
        }
        return turned / 4;
    }

    bool follow(const std::array<double, 2>& from, const std::array<double, 2>& to, int depth,
                std::vector<int>& quarters) {
        const PlanePart piece{{std::min(from[0], to[0]), std::max(from[0], to[0])},
                              {std::min(from[1], to[1]), std::max(from[1], to[1])}};
        const Seen seen = see(piece);
        if (!seen.isSmooth) return false;
        for (std::size_t i = 0; i < 2; ++i) {
            if (hasZero(seen.value[i])) continue;
            quarters.push_back(static_cast<int>(i) + (seen.value[i].low > 0 ? 0 : 2));
            return true;
        }
        if (depth >= 7) return false;
        const std::array<double, 2> middle{(from[0] + to[0]) / 2, (from[1] + to[1]) / 2};
        return follow(from, middle, depth + 1, quarters) && follow(middle, to, depth + 1, quarters);
    }

    /// Zeros that were found from several parts are one.
    std::vector<PlaneZero> knownZeros() const {
        std::vector<PlaneZero> found;
        std::vector<PlanePart> alone;
        for (const auto& [around, zero] : zeros_) {
            bool isNew = true;
            for (std::size_t i = 0; i < found.size() && isNew; ++i) {
                if (areApart(found[i].within, zero.within)) continue;
                isNew = false;
                if (!lies(zero.within, alone[i]) && !lies(found[i].within, around)) found[i].isOneOrMore = true;
                if (width(zero.within.x) < width(found[i].within.x) && !found[i].isOneOrMore) found[i] = zero;
            }
            if (!isNew) continue;
            found.push_back(zero);
            alone.push_back(around);
        }
        return found;
    }

    static bool isNear(const Bounds& place, double edge) {
        return moved(place.low, -roundingOfEdges) <= edge && edge <= moved(place.high, roundingOfEdges);
    }
    /// Where a place lies along a side: at an edge if rounding lets it, and false if it lies outside.
    static bool placeAlong(const Bounds& place, const Bounds& side, double& at, bool& isAtEdge) {
        const bool low = isNear(place, side.low), high = isNear(place, side.high);
        if (!low && !high && (place.high < side.low || place.low > side.high)) return false;
        isAtEdge = isAtEdge || low || high;
        at = low ? side.low : high ? side.high : shortestWithin(place);
        return true;
    }

    void finish() {
        std::vector<PlaneZero> found = knownZeros();
        found.insert(found.end(), open_.begin(), open_.end());
        for (PlaneZero& zero : found) {
            if (!placeAlong(zero.within.x, all_.x, zero.x, zero.isAtEdge)) continue;
            if (!placeAlong(zero.within.y, all_.y, zero.y, zero.isAtEdge)) continue;
            if (out_.isEstimated) zero.isProven = false;
            out_.found.push_back(zero);
        }
        std::ranges::sort(out_.found,
                          [](const PlaneZero& a, const PlaneZero& b) { return a.x != b.x ? a.x < b.x : a.y < b.y; });
        for (PlanePart& part : out_.unsettled) part = PlanePart{common(part.x, all_.x), common(part.y, all_.y)};
    }

    struct Noted {
        PlanePart alone; ///< the part in which it is the only zero
        PlaneZero zero;
    };

    JetEvaluator<2> jets_;
    bool isOfSlopes_;
    double cost_;
    PlanePart all_;
    double work_;
    std::vector<Noted> zeros_;
    std::vector<PlaneZero> open_; ///< places that stayed open
    PlaneZeros out_;
};

/// Whether all values of a function along a side of a part lie to one side of a number.
bool isBeyond(JetEvaluator<2>& jets, const PlanePart& side, int sign, double than, int depth) {
    const Enclosure over = jets({side.x, side.y})[0].value;
    if (over.isProof() && (sign > 0 ? over.high < than : over.low > than)) return true;
    if (depth >= 7) return false;
    PlanePart one = side, other = side;
    const bool isWide = width(side.x) >= width(side.y);
    const double at = middleOf(isWide ? side.x : side.y);
    (isWide ? one.x : one.y).high = at;
    (isWide ? other.x : other.y).low = at;
    return isBeyond(jets, one, sign, than, depth + 1) && isBeyond(jets, other, sign, than, depth + 1);
}

} // namespace

std::vector<PlanePart> hullsOf(const std::vector<PlanePart>& parts, const PlanePart& rectangle) {
    const double gapX = 0.1 * smallSide * width(rectangle.x), gapY = 0.1 * smallSide * width(rectangle.y);
    std::vector<PlanePart> sorted = parts, open, done;
    std::ranges::sort(sorted, {}, [](const PlanePart& part) { return part.x.low; });
    for (PlanePart joined : sorted) {
        for (std::size_t i = 0; i < open.size();) {
            const PlanePart near{around(open[i].x, gapX), around(open[i].y, gapY)};
            const bool isPassed = near.x.high < joined.x.low;
            if (!isPassed && areApart(near, joined)) {
                ++i;
                continue;
            }
            if (isPassed)
                done.push_back(open[i]);
            else
                joined = {hullOf(joined.x, open[i].x), hullOf(joined.y, open[i].y)};
            open[i] = open.back();
            open.pop_back();
            if (!isPassed) i = 0; // a larger hull may touch others
        }
        open.push_back(joined);
    }
    done.insert(done.end(), open.begin(), open.end());
    return done;
}

int peakWithin(const Program& f, const PlanePart& part) {
    JetEvaluator<2> jets(f);
    if (!jets({part.x, part.y})[0].value.isProof()) return 0;
    const double x = middleOf(part.x), y = middleOf(part.y);
    const Enclosure middle = jets({exactly(x), exactly(y)})[0].value;
    if (!middle.isProof()) return 0;
    const std::array<PlanePart, 4> sides{{{part.x, exactly(part.y.low)},
                                          {part.x, exactly(part.y.high)},
                                          {exactly(part.x.low), part.y},
                                          {exactly(part.x.high), part.y}}};
    for (const int sign : {1, -1}) {
        const double than = sign > 0 ? middle.low : middle.high;
        if (std::ranges::all_of(sides, [&](const PlanePart& side) { return isBeyond(jets, side, sign, than, 0); }))
            return sign;
    }
    return 0;
}

PlaneZeros planeZerosOf(const Program& map, const PlanePart& rectangle, double work) {
    return PlaneSearch(map, rectangle, work).run();
}

} // namespace coulter
