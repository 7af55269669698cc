#include "formula/zeros/zeros.h"

#include "formula/base/text.h"
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/proofs/interval_evaluator.h"
#include "formula/proofs/jet_evaluator.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <deque>
#include <optional>

namespace coulter {
namespace {

/// Parts are halved down to this share of the interval; what is narrower is looked at as one place.
constexpr double narrowest = 0x1p-42;
/// Parts that are unsettled and nearer to each other than this share of the interval are one.
constexpr double hardlyApart = 1e-9;
/// Operations that looking at a part takes besides evaluating the function.
constexpr double costOfStep = 20;
/// So many parts in which a function may break are a stretch that tells nothing, and would tell nothing in smaller
/// ones.
constexpr std::size_t mostBreaks = 4096;
/// By how many units in the last place a closed end may be off.
constexpr int roundingOfEnds = 4;

Bounds around(double x, double reach) { return {x - reach, x + reach}; }

/// Parts that touch, or are hardly apart, as one.
std::vector<Bounds> joined(std::vector<Bounds> parts, double apart = 0) {
    std::ranges::sort(parts, {}, &Bounds::low);
    std::vector<Bounds> all;
    for (const Bounds& each : parts) {
        if (!all.empty() && each.low <= all.back().high + apart)
            all.back().high = std::max(all.back().high, each.high);
        else
            all.push_back(each);
    }
    return all;
}

class Search {
public:
    Search(const Program& f, const Program* slope, const Interval& interval, double work)
        : jets_(f), cost_(costOf(f)), interval_(interval), work_(work) {
        if (slope) {
            slopeJets_.emplace(*slope);
            slopeCost_ = costOf(*slope);
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
        for (const Bounds& each : joined(std::move(rest)))
            work_ < 0 ? out_.unsettled.push_back(each) : settleNarrow(each);
        out_.outOfWork = !parts.empty();
        out_.unsettled.insert(out_.unsettled.end(), parts.begin(), parts.end());
        out_.unsettled = joined(std::move(out_.unsettled), hardlyApart * (interval_.high - interval_.low));
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
    Seen see(const Bounds& part) { return seen(over(part), part); }
    Seen seen(const Jet<1>& jet, const Bounds& part) {
        const bool known = jet.value.known;
        const Bounds value = known ? Bounds{jet.value.low, jet.value.high} : everything();
        const Bounds centre = jet.centre.known ? Bounds{jet.centre.low, jet.centre.high} : everything();
        out_.isEstimated = out_.isEstimated || jet.value.estimated;
        Seen all{value, jet.first[0], jet.second[0], centre, known, jet.value.isProof(), jet.value.estimated};
        if (all.smooth && !isBounded(all.slope) && slopeJets_) {
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
            note({part, part.low, 0, true, !seen.estimated, false, false, true});
            return true;
        }
        if (!seen.smooth || hasZero(seen.slope)) return false;
        return isMonotoneSettled(part, seen);
    }

    static bool haveOneSign(const Bounds& a, const Bounds& b) {
        return isBounded(a) && isBounded(b) && ((a.low >= 0 && b.low >= 0) || (a.high <= 0 && b.high <= 0));
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
            note({part, 0, sign, true, !seen.estimated});
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
    std::optional<Zero> unique(Bounds part, bool estimated) {
        const Seen seen = see(part);
        if (!seen.smooth || hasZero(seen.slope)) return std::nullopt;
        const int sign = seen.slope.low > 0 ? 1 : -1;
        Bounds inner = part;
        bool isInside = false;
        for (int i = 0; i < 40; ++i) {
            const Bounds to = step(inner, i == 0 ? seen : see(inner), seen.slope);
            if (!isBounded(to)) return std::nullopt;
            isInside = isInside || (to.low > inner.low && to.high < inner.high);
            const Bounds next{std::max(inner.low, to.low), std::min(inner.high, to.high)};
            if (next.low > next.high) return std::nullopt;
            const bool done = width(next) > 0.9 * width(inner);
            inner = next;
            if (done) break;
        }
        if (!isInside) return std::nullopt;
        return Zero{inner, 0, sign, true, !estimated && !seen.estimated};
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
            if (smooth && haveOneSign(before.slope, after.slope)) {
                const int change = before.slope.high > 0 || after.slope.high > 0 ? 1 : -1;
                return note({{at, at}, at, change, true, !seen.estimated, true});
            }
            if (smooth && haveOneSign(before.second, after.second) && isZero(place.slope))
                return note({{at, at}, at, 0, true, !seen.estimated, true});
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
    std::optional<JetEvaluator<1>> slopeJets_;
    double cost_, slopeCost_ = 0;
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
    bool isEnough = false;
    while (!parts.empty()) {
        isEnough = isEnough || parts.size() > mostBreaks || work < 0;
        const Bounds part = parts.front();
        parts.pop_front();
        work -= cost;
        const Enclosure value = jets({part})[0].value;
        const bool isNowhere = value.known && value.low > value.high;
        if (value.isProof() || isNowhere) continue;
        const double middle = middleAndRadius(part).middle;
        if (isEnough || width(part) <= least || !(middle > part.low && middle < part.high)) {
            rest.push_back(part);
            continue;
        }
        parts.push_back({part.low, middle});
        parts.push_back({middle, part.high});
    }
    return joined(std::move(rest));
}

Zeros zerosOf(const Program& f, const Program* slope, const Interval& interval, double work) {
    return Search(f, slope, interval, work).run();
}

namespace {

/// Puts the zeros of factors together.
class Product {
public:
    Product(const Program& f, const Interval& interval) : f_(f), bounds_(f), interval_(interval) {}

    Zeros run(std::span<const ZerosOfFactor> factors) {
        for (const ZerosOfFactor& factor : factors) {
            for (const Zero& zero : factor.zeros.found) take(factor, zero);
            for (const Bounds& part : factor.zeros.unsettled) leave(part);
            out_.outOfWork = out_.outOfWork || factor.zeros.outOfWork;
            out_.isEstimated = out_.isEstimated || factor.zeros.isEstimated;
        }
        join();
        out_.unsettled = joined(std::move(out_.unsettled));
        for (std::size_t i = 0; i < out_.found.size(); ++i) findChange(i);
        return std::move(out_);
    }

private:
    static bool isNowhere(const Enclosure& e) { return e.known && e.low > e.high; }

    Enclosure over(double low, double high) { return bounds_(std::vector<Enclosure>{{low, high}})[0]; }

    /// A zero of a factor is one of the function if that is defined there.
    void take(const ZerosOfFactor& factor, Zero zero) {
        zero.isMultiple = zero.isMultiple || factor.isRepeated;
        zero.change = 0;
        zero.isChangeKnown = false;
        const Enclosure around = over(zero.within.low, zero.within.high);
        if (around.isProof()) return out_.found.push_back(zero);
        if (isNowhere(around)) return;
        // At a place where the factor is zero exactly, the function itself says whether it is defined.
        IntervalEvaluator base(*factor.base);
        const Enclosure factorThere = base(std::vector<Enclosure>{Enclosure::point(zero.at)})[0];
        const bool isExact =
            factorThere.known && std::abs(factorThere.low) < smallest && std::abs(factorThere.high) < smallest;
        if (isExact && std::isnan(valueAt(zero.at))) return;
        if (isExact && over(zero.at, zero.at).isProof()) {
            zero.within = exactly(zero.at);
            return out_.found.push_back(zero);
        }
        out_.unsettled.push_back(zero.within);
    }

    void leave(const Bounds& part) {
        const Enclosure there = over(part.low, part.high);
        const bool excludes = there.known && (there.low > 0 || there.high < 0);
        if (!excludes) out_.unsettled.push_back(part);
    }

    double valueAt(double x) const {
        double value = 0;
        double* const out = &value;
        const double* const in = &x;
        Evaluator evaluator(f_);
        evaluator(std::span(&in, 1), std::span<double* const>(&out, 1), 1);
        return value;
    }

    /// Zeros of two factors at one place are one if both are there exactly; else it cannot be told.
    void join() {
        std::ranges::sort(out_.found, {}, [](const Zero& zero) { return zero.within.low; });
        std::vector<Zero> found;
        for (const Zero& zero : out_.found) {
            if (found.empty() || zero.within.low > found.back().within.high) {
                found.push_back(zero);
                continue;
            }
            Zero& last = found.back();
            if (zero.isAllAlong || last.isAllAlong) {
                last.isAllAlong = true;
                last.within.high = std::max(last.within.high, zero.within.high);
            } else if (zero.at == last.at) {
                last.isMultiple = true;
                last.within = {std::max(last.within.low, zero.within.low),
                               std::min(last.within.high, zero.within.high)};
            } else {
                out_.unsettled.push_back(hullOf(last.within, zero.within));
                found.pop_back();
            }
        }
        out_.found = std::move(found);
    }

    /// The signs of the function on both sides of a zero, near enough that nothing else lies between.
    void findChange(std::size_t index) {
        Zero& zero = out_.found[index];
        if (zero.isAllAlong) return;
        double reach = 1e-6 * (interval_.high - interval_.low);
        const auto keepOff = [&](const Bounds& other) {
            if (other.low > zero.within.high) reach = std::min(reach, (other.low - zero.within.high) / 2);
            if (other.high < zero.within.low) reach = std::min(reach, (zero.within.low - other.high) / 2);
        };
        for (std::size_t i = 0; i < out_.found.size(); ++i) {
            if (i != index) keepOff(out_.found[i].within);
        }
        for (const Bounds& part : out_.unsettled) keepOff(part);
        const double before = zero.within.low - reach, after = zero.within.high + reach;
        if (!over(before, after).isProof()) return; // a pole between would turn the sign
        const auto sign = [&](double x) {
            const Enclosure there = over(x, x);
            return !there.known ? 0 : there.low > 0 ? 1 : there.high < 0 ? -1 : 0;
        };
        const int left = sign(before), right = sign(after);
        zero.isChangeKnown = left != 0 && right != 0;
        zero.change = left == right ? 0 : right;
    }

    const Program& f_;
    IntervalEvaluator bounds_;
    Interval interval_;
    Zeros out_;
};

} // namespace

Zeros zerosOfProduct(const Program& f, std::span<const ZerosOfFactor> factors, const Interval& interval) {
    return Product(f, interval).run(factors);
}

} // namespace coulter
