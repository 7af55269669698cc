#include "formula/zeros.h"

#include "formula/bounds_arithmetic.h"
#include "formula/jet.h"
#include "formula/text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <deque>
#include <optional>

namespace coulter {
namespace {

/// Parts are halved down to this share of the interval; what is narrower is looked at as one place.
constexpr double narrowest = 0x1p-42;
/// Operations that looking at a part takes besides evaluating the function.
constexpr double costOfStep = 20;
/// By how many units in the last place a closed end may be off.
constexpr int roundingOfEnds = 4;

bool hasZero(const Bounds& b) { return b.low <= 0 && b.high >= 0; }
Bounds around(double x, double reach) { return {x - reach, x + reach}; }

std::vector<Bounds> joined(std::vector<Bounds> parts) {
    std::ranges::sort(parts, {}, &Bounds::low);
    std::vector<Bounds> all;
    for (const Bounds& each : parts) {
        if (!all.empty() && each.low <= all.back().high)
            all.back().high = std::max(all.back().high, each.high);
        else
            all.push_back(each);
    }
    return all;
}

class Search {
public:
    Search(const Program& f, const Program* slope, const Program* numerator, const Interval& interval, double work)
        : jets_(f), cost_(costOf(f)), interval_(interval), work_(work) {
        if (slope) {
            slopeJets_.emplace(*slope);
            slopeCost_ = costOf(*slope);
        }
        if (numerator) {
            numeratorJets_.emplace(*numerator);
            numeratorCost_ = costOf(*numerator);
        }
        least_ = narrowest * (interval.high - interval.low);
    }

    Zeros run() {
        std::deque<Bounds> parts{withRounding()};
        std::vector<Bounds> rest;
        while (!parts.empty()) {
            const Bounds part = parts.front();
            if (work_ < 0) break;
            parts.pop_front();
            if (isSettled(part)) continue;
            const double at = part.low + 0.4873 * width(part); // round numbers should not be borders
            if (width(part) <= least_ || !(at > part.low && at < part.high)) {
                rest.push_back(part);
                continue;
            }
            parts.push_back({part.low, at});
            parts.push_back({at, part.high});
        }
        for (const Bounds& each : joined(std::move(rest))) settleNarrow(each);
        if (!parts.empty()) {
            out_.outOfWork = true;
            out_.unsettled.insert(out_.unsettled.end(), parts.begin(), parts.end());
            out_.unsettled = joined(std::move(out_.unsettled));
        }
        finish();
        return std::move(out_);
    }

private:
    /// The value and slope over a part.
    const Jet<1>& over(const Bounds& part) {
        work_ -= costOfStep + cost_;
        return jets_({part})[0];
    }

    struct Seen {
        Bounds value, slope, second;
        Bounds centre; ///< the value at the middle
        bool bounded, smooth, estimated;
    };
    Seen see(const Bounds& part) { return seen(over(part), part, true); }
    Seen seeNumerator(const Bounds& part) {
        work_ -= costOfStep + numeratorCost_;
        return seen((*numeratorJets_)({part})[0], part, false);
    }
    Seen seen(const Jet<1>& jet, const Bounds& part, bool isFunction) {
        const bool known = jet.value.known;
        const Bounds value = known ? Bounds{jet.value.low, jet.value.high} : everything();
        const Bounds centre = jet.centre.known ? Bounds{jet.centre.low, jet.centre.high} : everything();
        out_.isEstimated = out_.isEstimated || jet.value.estimated;
        Seen all{value, jet.first[0], jet.second[0], centre, known, jet.value.isProof(), jet.value.estimated};
        if (all.smooth && !isBounded(all.slope) && isFunction && slopeJets_) {
            work_ -= costOfStep + slopeCost_;
            const Jet<1>& slope = (*slopeJets_)({part})[0];
            if (slope.value.isProof()) all.slope = {slope.value.low, slope.value.high};
            if (slope.value.isProof()) all.second = slope.first[0];
        }
        all.smooth = all.smooth && isBounded(all.slope);
        return all;
    }

    /// A closed end may be a rounded number; what lies a few units beyond it counts, if the function is defined there.
    Bounds withRounding() {
        Bounds all{interval_.low, interval_.high};
        const double below = moved(all.low, -roundingOfEnds), above = moved(all.high, roundingOfEnds);
        const auto isDefined = [&](double from, double to) { return over({from, to}).value.isProof(); };
        if (interval_.lowClosed && isDefined(below, all.low)) all.low = below;
        if (interval_.highClosed && isDefined(all.high, above)) all.high = above;
        return all;
    }

    /// Whether it is known what lies in a part; a zero is noted.
    bool isSettled(const Bounds& part) {
        const Seen seen = see(part);
        if (seen.bounded && !hasZero(seen.value)) return true;
        if (seen.bounded && isZero(seen.value) && seen.smooth && part.low < part.high) {
            note({part, part.low, 0, !seen.estimated, false, false, true});
            return true;
        }
        if (!seen.smooth) return numeratorExcludes(part);
        if (hasZero(seen.slope)) return false;
        return isMonotoneSettled(part, seen);
    }

    static bool haveOneSign(const Bounds& a, const Bounds& b) {
        return isBounded(a) && isBounded(b) && ((a.low >= 0 && b.low >= 0) || (a.high <= 0 && b.high <= 0));
    }

    bool numeratorExcludes(const Bounds& part) {
        if (!numeratorJets_) return false;
        const Seen above = seeNumerator(part);
        return above.bounded && !hasZero(above.value);
    }

    /// Newton's step from the middle of a part: where a zero of it must be; empty (low > high) if there is none.
    static Bounds step(const Bounds& part, const Seen& seen, const Bounds& slope) {
        return exactly(middleAndRadius(part).middle) - seen.centre / slope;
    }

    /// A part in which the function only rises or only falls: it has one zero at most.
    bool isMonotoneSettled(Bounds part, Seen seen) {
        Bounds slope = seen.slope;
        bool isInside = false;
        for (int i = 0; i < 60; ++i) {
            const Bounds to = step(part, seen, slope);
            if (!isBounded(to)) return false;
            const bool inside = to.low > part.low && to.high < part.high;
            isInside = isInside || inside;
            const Bounds next{std::max(part.low, to.low), std::min(part.high, to.high)};
            if (next.low > next.high) return true; // no zero
            const bool done = width(next) > 0.9 * width(part);
            part = next;
            if (done) break;
            seen = see(part);
            if (seen.smooth && !hasZero(seen.slope)) slope = seen.slope;
        }
        const int sign = slope.low > 0 ? 1 : -1;
        if (isInside) {
            note({part, 0, sign, !seen.estimated});
            return true;
        }
        // Near the border of the part: a slightly larger one decides.
        const double reach = std::max(4 * width(part), 64 * std::abs(moved(part.high, 1) - part.high));
        if (const auto found = unique(around(middleAndRadius(part).middle, reach), seen.estimated)) {
            note(*found);
            return true;
        }
        return false;
    }

    /// The only zero of a small part, if there is just one for certain.
    std::optional<Zero> unique(Bounds part, bool estimated, bool ofNumerator = false) {
        const auto look = [&](const Bounds& at) { return ofNumerator ? seeNumerator(at) : see(at); };
        const Seen seen = look(part);
        if (!seen.smooth || hasZero(seen.slope)) return std::nullopt;
        const int sign = seen.slope.low > 0 ? 1 : -1;
        Bounds inner = part;
        bool isInside = false;
        for (int i = 0; i < 40; ++i) {
            const Bounds to = step(inner, i == 0 ? seen : look(inner), seen.slope);
            if (!isBounded(to)) return std::nullopt;
            isInside = isInside || (to.low > inner.low && to.high < inner.high);
            const Bounds next{std::max(inner.low, to.low), std::min(inner.high, to.high)};
            if (next.low > next.high) return std::nullopt;
            const bool done = width(next) > 0.9 * width(inner);
            inner = next;
            if (done) break;
        }
        if (!isInside) return std::nullopt;
        return Zero{inner, 0, sign, !estimated && !seen.estimated};
    }

    /// A narrow part that bisection could not settle: a zero of several, at a border, or something that cannot be told.
    void settleNarrow(const Bounds& part) {
        const double reach = std::max(width(part), least_);
        const Bounds larger{std::max(interval_.low, part.low - reach), std::min(interval_.high, part.high + reach)};
        if (const auto found = unique(around(middleAndRadius(part).middle, 2 * reach), false)) return note(*found);
        const Seen seen = see(larger);
        for (const double at : {shortestWithin(larger), middleAndRadius(part).middle}) {
            const Seen place = see({at, at});
            if (!isZero(place.value)) continue;
            // Where the curve bends one way only and is level at a zero, it touches there; where it goes one way only,
            // it has no second one. Both are seen best from the place itself.
            const Seen before = see({larger.low, at}), after = see({at, larger.high});
            const bool smooth = before.smooth && after.smooth;
            const bool touches = haveOneSign(before.second, after.second) && isZero(place.slope);
            if (smooth && (touches || haveOneSign(before.slope, after.slope)))
                return note({{at, at}, at, 0, !seen.estimated, true});
        }
        // Where the function is defined it is zero exactly where its numerator is.
        if (numeratorJets_ && over(larger).value.isProof()) {
            const double at = shortestWithin(larger);
            const Seen above = seeNumerator(larger), place = seeNumerator({at, at});
            const bool oneAtMost = above.smooth && !hasZero(above.slope);
            if (oneAtMost && isZero(place.value)) return note({{at, at}, at, 0, !seen.estimated});
            if (const auto found = unique(around(middleAndRadius(part).middle, 2 * reach), seen.estimated, true)) {
                if (found->within.high < larger.low || found->within.low > larger.high) return;
                const bool within = found->within.low >= larger.low && found->within.high <= larger.high;
                if (within) return note({found->within, 0, 0, found->isProven});
            }
        }
        out_.unsettled.push_back(part);
    }

    void note(const Zero& zero) { out_.found.push_back(zero); }

    /// Zeros that were found from two sides are one; those at the ends are named so, or left out of an open end.
    void finish() {
        std::ranges::sort(out_.found, {}, [](const Zero& zero) { return zero.within.low; });
        std::vector<Zero> found;
        for (Zero zero : out_.found) {
            const bool touches = !found.empty() && zero.within.low <= found.back().within.high;
            const bool same = touches && zero.isAllAlong == found.back().isAllAlong;
            if (same) {
                Bounds& known = found.back().within;
                if (zero.isAllAlong)
                    known.high = std::max(known.high, zero.within.high);
                else
                    known = {std::max(known.low, zero.within.low), std::min(known.high, zero.within.high)};
                continue;
            }
            if (zero.isAllAlong)
                zero.within = {std::max(zero.within.low, interval_.low), std::min(zero.within.high, interval_.high)};
            if (zero.within.high < moved(interval_.low, -roundingOfEnds) ||
                zero.within.low > moved(interval_.high, roundingOfEnds))
                continue;
            const bool low = isNear(zero.within, interval_.low), high = isNear(zero.within, interval_.high);
            if (!zero.isAllAlong && ((low && !interval_.lowClosed) || (high && !interval_.highClosed))) continue;
            zero.isAtEdge = !zero.isAllAlong && (low || high);
            zero.at = low ? interval_.low : high ? interval_.high : nearest(zero);
            if (touches && found.back().isAllAlong) continue; // the end of a stretch
            if (touches && zero.isAllAlong) found.pop_back();
            found.push_back(zero);
        }
        out_.found = std::move(found);
        // A zero that was proven about a place settles what bisection left there.
        std::erase_if(out_.unsettled, [&](const Bounds& part) {
            return std::ranges::any_of(out_.found, [&](const Zero& zero) {
                return zero.isAllAlong && zero.within.low <= part.low && part.high <= zero.within.high;
            });
        });
        for (Bounds& part : out_.unsettled)
            part = {std::max(part.low, interval_.low), std::min(part.high, interval_.high)};
    }

    /// Of the doubles within, the shortest if there is a short one, else that at which the function is smallest.
    double nearest(const Zero& zero) {
        const double middle = shortestWithin(zero.within);
        if (middle != middleAndRadius(zero.within).middle) return middle;
        double best = middle, least = HUGE_VAL;
        for (const double x : {middle, zero.within.low, zero.within.high}) {
            const double size = magnitude(see({x, x}).value);
            if (size < least) best = x;
            least = std::min(least, size);
        }
        return best;
    }

    static bool isNear(const Bounds& zero, double end) {
        return moved(zero.low, -roundingOfEnds) <= end && end <= moved(zero.high, roundingOfEnds);
    }

    JetEvaluator<1> jets_;
    std::optional<JetEvaluator<1>> slopeJets_, numeratorJets_;
    double cost_, slopeCost_ = 0, numeratorCost_ = 0;
    Interval interval_;
    double work_;
    double least_;
    Zeros out_;
};

} // namespace

double shortestWithin(const Bounds& bounds) {
    const double middle = middleAndRadius(bounds).middle;
    if (bounds.low <= 0 && bounds.high >= 0) return 0;
    for (int digits = 1; digits <= 8; ++digits) {
        double value = 0;
        const std::string text = roundedNumber(middle, digits);
        std::from_chars(text.data(), text.data() + text.size(), value);
        if (value >= bounds.low && value <= bounds.high) return value;
    }
    return middle;
}

std::vector<Bounds> breaksOf(const Program& f, const Interval& interval, double work) {
    JetEvaluator<1> jets(f);
    const double least = narrowest * (interval.high - interval.low), cost = costOf(f);
    std::deque<Bounds> parts{{interval.low, interval.high}};
    std::vector<Bounds> rest;
    while (!parts.empty()) {
        const Bounds part = parts.front();
        parts.pop_front();
        work -= cost;
        if (jets({part})[0].value.isProof()) continue;
        const double middle = middleAndRadius(part).middle;
        if (work < 0 || width(part) <= least || !(middle > part.low && middle < part.high)) {
            rest.push_back(part);
            continue;
        }
        parts.push_back({part.low, middle});
        parts.push_back({middle, part.high});
    }
    return joined(std::move(rest));
}

Zeros zerosOf(const Program& f, const Program* slope, const Program* numerator, const Interval& interval, double work) {
    return Search(f, slope, numerator, interval, work).run();
}

} // namespace coulter
