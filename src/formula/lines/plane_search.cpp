#include "formula/lines/plane_search.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "formula/compile/compile.h"
#include "formula/lines/interval_search.h"
#include "formula/notation/expr_build.h"
#include "formula/proofs/interval_evaluator.h"
#include "formula/zeros/plane_zeros.h"
#include "formula/zeros/zeros.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace coulter {
namespace {

constexpr const char* openWhy = "rounding, a corner, a pole or a jump leaves it open";

bool isBefore(const FoundPlace& a, const FoundPlace& b) { return a.at != b.at ? a.at < b.at : a.across < b.across; }

class PlaneSearcher {
public:
    PlaneSearcher(const Page& page, const Line& line, double work)
        : page_(page), line_(line), asked_(line.body), work_(work) {}

    SearchAnswer run() {
        places_.inPlane = true;
        for (std::size_t k = 0; k < 2; ++k) sides_[k] = intervalOf(page_, line_, k);
        rectangle_ = {{sides_[0].low, sides_[0].high}, {sides_[1].low, sides_[1].high}};
        if (line_.sought == Sought::Zeros) {
            findZeros();
        } else {
            value_ = compiled(asked_);
            if (value_->outputs.size() != 1)
                refuseSearch(asked_->span, "A vector has no extrema of its own.", "write one of its components");
            read(planeZerosOf(*value_, rectangle_, work_));
            if (line_.sought != Sought::Extrema) keepLargest(line_.sought == Sought::Maximum ? 1 : -1);
        }
        return {std::move(places_), line_.sought, {}};
    }

private:
    std::shared_ptr<const Program> compiled(const ExprPtr& e) const {
        const Compiled compiled = compile(page_, e, line_.parameters);
        if (!compiled.program) throw SearchRefusal{compiled.problems.front()};
        return compiled.program;
    }

    /// What is zero where an equation holds.
    static ExprPtr differenceOf(const Expr& equation) {
        if (isNumber(*equation.operands[1], 0)) return equation.operands[0];
        return withBrackets(nodeExpr(ExprKind::Subtract, equation.operands));
    }

    void findZeros() {
        const bool areEquations = line_.equations.size() == 2;
        const auto both = compiled(areEquations ? nodeExpr(ExprKind::Vector, {differenceOf(*line_.equations[0]),
                                                                              differenceOf(*line_.equations[1])})
                                                : asked_);
        if (both->outputs.size() != 2)
            refuseSearch(line_.body ? line_.body->span : line_.nameSpan,
                         both->outputs.size() == 1
                             ? "Over two variables two functions are zero at single places, and here is one."
                             : "Over two variables two functions are zero at single places, and here are more.",
                         "write f(x, y) = 0 and g(x, y) = 0 for x in [0, 1], y in [0, 1]");
        read(planeZerosOf(*both, rectangle_, work_));
    }

    double valueAt(double x, double y) const {
        Evaluator evaluator(*value_);
        double value = 0;
        double* const out = &value;
        const std::array<const double*, 2> in{&x, &y};
        evaluator(in, std::span<double* const>(&out, 1), 1);
        return value;
    }

    void read(const PlaneZeros& zeros) {
        std::vector<PlanePart> settled;
        for (const PlaneZero& zero : zeros.found) {
            if (isLeftOut(zero)) continue;
            FoundPlace place;
            place.at = zero.x;
            place.within = zero.within.x;
            place.across = zero.y;
            place.withinAcross = zero.within.y;
            place.isProven = zero.isProven;
            place.isOneOrMore = zero.isOneOrMore;
            if (value_) {
                place.value = valueAt(place.at, place.across);
                place.word = wordOf(zero);
                // What has a greatest or least value inside, though its slopes do not tell, is there.
                if (!zero.isProven && place.word != "level" && !zeros.isEstimated) {
                    place.isProven = place.isOneOrMore = true;
                    settled.push_back(zero.within);
                }
            } else if (!zero.isProven) {
                place.word = "touching";
            }
            place.isAtEdge = zero.isAtEdge;
            if (zero.isAtEdge) place.word += place.word.empty() ? "at the edge" : " at the edge";
            places_.found.push_back(place);
        }
        for (const PlanePart& hull : hullsOf(zeros.unsettled, rectangle_)) {
            const auto isIn = [](const PlanePart& part, const PlanePart& whole) {
                return whole.x.low <= part.x.low && part.x.high <= whole.x.high && whole.y.low <= part.y.low &&
                       part.y.high <= whole.y.high;
            };
            if (std::ranges::any_of(settled, [&](const PlanePart& each) { return isIn(hull, each); })) continue;
            if (value_ && addPeak(hull)) continue;
            std::ranges::copy_if(zeros.unsettled, std::back_inserter(open_),
                                 [&](const PlanePart& part) { return isIn(part, hull); });
        }
        places_.unsettledParts = hullsOf(open_, rectangle_);
        std::ranges::sort(places_.found, isBefore);
        places_.isEstimated = zeros.isEstimated;
        if (!open_.empty() && zeros.isBroken)
            places_.why = "it ends, jumps or has a corner there";
        else if (zeros.mayBeLine)
            places_.why = "they may form a line";
        else if (zeros.outOfWork)
            places_.why = "it takes too long";
        else if (!open_.empty())
            places_.why = openWhy;
        else if (!places_.areAll())
            places_.why = "several may lie so close together";
    }

    /// Whether a place lies at an end that does not belong to its interval.
    bool isLeftOut(const PlaneZero& zero) const {
        const auto isOpen = [](const Interval& side, double at) {
            return (at == side.low && !side.lowClosed) || (at == side.high && !side.highClosed);
        };
        return zero.isAtEdge && (isOpen(sides_[0], zero.x) || isOpen(sides_[1], zero.y));
    }

    /// At a corner there is no slope, and yet values round about it may tell that it is an extremum.
    bool addPeak(const PlanePart& part) {
        const auto reach = [&](const Bounds& side, const Bounds& all) {
            const double by = width(side) + 1e-9 * width(all);
            return Bounds{side.low - by, side.high + by};
        };
        const PlanePart wide{reach(part.x, rectangle_.x), reach(part.y, rectangle_.y)};
        if (width(wide.x) > 1e-5 * width(rectangle_.x) || width(wide.y) > 1e-5 * width(rectangle_.y)) return false;
        const int peak = peakWithin(*value_, wide);
        if (peak == 0) return false;
        FoundPlace place;
        place.at = shortestWithin(part.x);
        place.within = wide.x;
        place.across = shortestWithin(part.y);
        place.withinAcross = wide.y;
        place.value = valueAt(place.at, place.across);
        place.word = peak > 0 ? "maximum" : "minimum";
        place.isOneOrMore = true;
        places_.found.push_back(place);
        return true;
    }

    /// What a level place is: by the determinant of the second derivatives, or by the values round about it.
    std::string wordOf(const PlaneZero& zero) const {
        if (zero.isProven && !zero.isOneOrMore) {
            const auto& s = zero.slopes;
            const Bounds determinant = s[0][0] * s[1][1] - square(s[0][1]);
            if (determinant.high < 0) return "saddle";
            if (determinant.low > 0 && s[0][0].high < 0) return "maximum";
            if (determinant.low > 0 && s[0][0].low > 0) return "minimum";
        }
        const int peak = peakWithin(*value_, zero.within);
        return peak > 0 ? "maximum" : peak < 0 ? "minimum" : zero.turns < 0 ? "saddle" : "level";
    }

    /// Of the level places, the edges and the corners those where the function is largest (or smallest, for −1), and
    /// whether it is proven that it is not larger elsewhere.
    void keepLargest(double sign) {
        std::vector<FoundPlace> candidates = std::exchange(places_.found, {});
        std::erase_if(candidates, [](const FoundPlace& each) {
            return std::isnan(each.value) || each.isAtEdge; // the edges are looked at by themselves
        });
        for (std::size_t edge = 0; edge < 4; ++edge) addEdge(edge, candidates);
        addLook(sign, candidates);
        if (candidates.empty()) return;
        double best = -HUGE_VAL;
        for (const FoundPlace& each : candidates) best = std::max(best, sign * each.value);
        const double same = 1e-13 * std::abs(best); // what rounding could make of the best value counts as equal
        for (const FoundPlace& each : candidates) {
            const auto isThere = [&](const FoundPlace& known) {
                return known.at == each.at && known.across == each.across;
            };
            if (sign * each.value >= best - same && std::ranges::none_of(places_.found, isThere))
                places_.found.push_back(each);
        }
        std::ranges::sort(places_.found, isBefore);
        IntervalEvaluator bounds(*value_);
        std::erase_if(open_, [&](const PlanePart& part) {
            const Enclosure over =
                bounds(std::vector<Enclosure>{{part.x.low, part.x.high}, {part.y.low, part.y.high}})[0];
            return over.known && (sign > 0 ? over.high : -over.low) < best - same;
        });
        places_.unsettledParts = hullsOf(open_, rectangle_);
        if (places_.areAll())
            places_.why.clear();
        else if (places_.why.empty())
            places_.why = openWhy;
    }

    /// The function along an edge, searched as an interval.
    void addEdge(std::size_t edge, std::vector<FoundPlace>& candidates) {
        const std::size_t fixed = edge / 2, free = 1 - fixed;
        const bool isLow = edge % 2 == 0, isClosed = isLow ? sides_[fixed].lowClosed : sides_[fixed].highClosed;
        const double at = isLow ? sides_[fixed].low : sides_[fixed].high;
        Line along = line_;
        along.parameters = {line_.parameters[free]};
        along.arguments.clear();
        along.body = withBrackets(substitute(asked_, line_.parameters[fixed], numberExpr(at)));
        along.low = numberExpr(sides_[free].low);
        along.high = numberExpr(sides_[free].high);
        along.interval = sides_[free];
        const SearchAnswer found = searchInterval(page_, along, work_ / 4);
        const auto partOf = [&](const Bounds& part) {
            return fixed == 0 ? PlanePart{{at, at}, part} : PlanePart{part, {at, at}};
        };
        for (const FoundPlace& each : found.places.found) {
            FoundPlace place = each;
            const PlanePart within = partOf(each.within);
            place.within = within.x;
            place.withinAcross = within.y;
            place.across = fixed == 0 ? each.at : at;
            place.at = fixed == 0 ? at : each.at;
            const bool isLowEnd = each.at == sides_[free].low, isHighEnd = each.at == sides_[free].high;
            const bool isReached =
                isClosed && (!isLowEnd || sides_[free].lowClosed) && (!isHighEnd || sides_[free].highClosed);
            place.word = !isReached              ? "towards the edge, not reached"
                         : isLowEnd || isHighEnd ? "at the corner"
                                                 : "at the edge";
            place.isAtEdge = true;
            candidates.push_back(place);
        }
        for (const Bounds& part : found.places.unsettled) open_.push_back(partOf(part));
        places_.isEstimated = places_.isEstimated || found.places.isEstimated;
    }

    /// The best of what values show in some of the open parts.
    void addLook(double sign, std::vector<FoundPlace>& candidates) const {
        constexpr std::size_t mostLooks = 256;
        FoundPlace best;
        best.value = std::nan("");
        best.isProven = false;
        const std::size_t step = std::max<std::size_t>(1, open_.size() / mostLooks);
        for (std::size_t i = 0; i < open_.size(); i += step) {
            const PlanePart& part = open_[i];
            for (const double x : {part.x.low, shortestWithin(part.x), part.x.high}) {
                for (const double y : {part.y.low, shortestWithin(part.y), part.y.high}) {
                    const double value = valueAt(x, y);
                    if (std::isnan(value) || sign * value <= sign * best.value) continue;
                    best.at = x;
                    best.across = y;
                    best.value = value;
                    best.within = part.x;
                    best.withinAcross = part.y;
                }
            }
        }
        if (!std::isnan(best.value)) candidates.push_back(best);
    }

    const Page& page_;
    const Line& line_;
    ExprPtr asked_;
    double work_;
    std::array<Interval, 2> sides_;
    PlanePart rectangle_;
    std::shared_ptr<const Program> value_; ///< of the function whose extrema are looked for
    Places places_;
    std::vector<PlanePart> open_; ///< of which it is not known what lies there, one by one
};

} // namespace

SearchAnswer searchPlane(const Page& page, const Line& line, double work) {
    return PlaneSearcher(page, line, work).run();
}

} // namespace coulter
