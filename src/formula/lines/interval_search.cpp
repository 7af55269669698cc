#include "formula/lines/interval_search.h"

#include "formula/algebra/derivative.h"
#include "formula/algebra/exact_form.h"
#include "formula/algebra/exact_pieces.h"
#include "formula/algebra/factors.h"
#include "formula/algebra/simplify.h"
#include "formula/base/text.h"
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/compile/compile.h"
#include "formula/lines/search_parts.h"
#include "formula/notation/expr_build.h"
#include "formula/program/piece_borders.h"
#include "formula/proofs/interval_evaluator.h"
#include "formula/proofs/jet_evaluator.h"
#include "formula/zeros/agreement.h"
#include "formula/zeros/corners.h"
#include "formula/zeros/sign_changes.h"
#include "formula/zeros/zeros.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace coulter {
namespace {

class IntervalSearcher {
public:
    IntervalSearcher(const Page& page, const Line& line, double work)
        : page_(page), line_(line), variable_(line.parameters[0]), work_(work) {
        asked_ = line.equations.empty() ? line.body : line.equations[0]->operands[0];
    }

    SearchAnswer run() {
        interval_ = intervalOf(page_, line_, 0);
        value_ = compiled(asked_);
        const bool isEquation = !line_.equations.empty();
        const ExprPtr function = isEquation && !isNumber(*line_.equations[0]->operands[1], 0)
                                     ? withBrackets(nodeExpr(ExprKind::Subtract, line_.equations[0]->operands))
                                     : asked_;
        switch (line_.sought) {
        case Sought::Everywhere: judge(function); return {std::move(places_), line_.sought, {}};
        case Sought::Zeros: read(zerosIn(function), isEquation); break;
        case Sought::Inflections: read(zerosIn(slope(function, 2)), true); break;
        default: read(zerosIn(slope(function, 1)), true); break;
        }
        if (line_.sought == Sought::Maximum) keepLargest(1);
        if (line_.sought == Sought::Minimum) keepLargest(-1);
        return {std::move(places_), line_.sought, {}};
    }

private:
    /// Whether both sides of an equation are the same function along the interval.
    void judge(const ExprPtr& difference) {
        const auto number = [](double x) { return roundedNumber(x, 3); };
        const auto program = compiled(difference);
        const std::vector<Bounds> undefined = breaksOf(*program, interval_, work_);
        if (isNumber(*simplified(difference), 0) && undefined.empty()) {
            places_.verdict = "yes: the formulas are the same";
            return;
        }
        const double size = sizeOfSides(), rounding = 0x1p-52 * size;
        Agreement found = agreementOf(*program, interval_, work_, rounding);
        const ExprPtr simple = simplified(difference);
        if (!found.isDifferent &&
            !isRounding(*simple, *difference)) { // what rounding hides may show in a simpler spelling
            const Agreement simpler = agreementOf(*compiled(simple), interval_, work_, rounding);
            if (simpler.isDifferent || simpler.bound < found.bound) found = simpler;
        }
        const std::string place = variable_ + " = " + roundedNumber(found.at, 6);
        const bool isBounded = std::isfinite(found.bound);
        if (!isBounded) places_.unsettled.push_back({interval_.low, interval_.high});
        if (!isBounded) places_.why = "no bound is known";
        if (found.isDifferent) {
            places_.verdict = "no: they differ by " + number(found.largest) + " at " + place +
                              (isBounded ? ", and nowhere by more than " + number(found.bound) + ", proven" : "");
        } else if (isBounded && found.bound <= 1e-6 * size) {
            places_.verdict = "yes, to within " + number(found.bound) + ", proven";
        } else if (isBounded) {
            places_.verdict = "they differ by " + number(found.largest) +
                              " at most where it was looked, and nowhere by " + "more than " + number(found.bound) +
                              ", proven";
        } else {
            places_.verdict = "they differ by " + number(found.largest) + " at most where it was looked, not proven";
        }
    }

    static void eachNumber(const Expr& e, const std::function<void(double)>& told) {
        if (e.kind == ExprKind::Number) told(std::abs(e.number));
        for (const ExprPtr& each : e.operands) eachNumber(*each, told);
    }
    /// Whether all that a simpler spelling has left is the rounding of its numbers: 5.6e-17 x of 0.1 x + 0.2 x − 0.3 x.
    static bool isRounding(const Expr& simple, const Expr& difference) {
        double least = 1, greatest = 0;
        eachNumber(difference, [&](double number) { least = number > 0 ? std::min(least, number) : least; });
        eachNumber(simple, [&](double number) { greatest = std::max(greatest, number); });
        return greatest > 0 && greatest < 1e-12 * least;
    }

    /// The largest magnitude that either side of the equation has where it is looked.
    double sizeOfSides() {
        double size = 0;
        for (const ExprPtr& side : line_.equations[0]->operands) {
            const auto program = compiled(side);
            Evaluator evaluator(*program);
            for (const double share : unevenShares(64)) {
                const double value = evaluator(interval_.low + (interval_.high - interval_.low) * share);
                if (std::isfinite(value)) size = std::max(size, std::abs(value));
            }
        }
        return size;
    }

    std::shared_ptr<const Program> compiled(const ExprPtr& e) {
        const Compiled compiled = compile(page_, e, std::span(&variable_, 1));
        if (!compiled.program) throw SearchRefusal{compiled.problems.front()};
        if (compiled.program->outputs.size() != 1)
            refuseSearch(asked_->span, "A vector has no zeros or extrema of its own.", "write one of its components");
        return compiled.program;
    }

    ExprPtr slope(const ExprPtr& e, int order) {
        const Derived found = derivative(page_, e, variable_, order);
        if (!found.expression) throw SearchRefusal{found.problems.front()};
        return found.expression;
    }

    Zeros zerosOfOne(const ExprPtr& function, const Program& program, double work) {
        std::shared_ptr<const Program> itsSlope;
        if (const Derived found = derivative(page_, function, variable_); found.expression)
            itsSlope = compile(page_, found.expression, std::span(&variable_, 1)).program;
        return zerosOf(program, itsSlope.get(), interval_, work);
    }

    Zeros zerosIn(const ExprPtr& function) {
        Zeros zeros = zerosByFactors(function);
        // Of what has no bounds over whole stretches, such as a series, at least what its values show.
        for (const Bounds& part : zeros.unsettled) {
            if (part.high - part.low < 1e-6 * (interval_.high - interval_.low)) continue;
            for (const Zero& each : signChanges(*compiled(function), part)) zeros.found.push_back(each);
        }
        std::ranges::sort(zeros.found, {}, &Zero::at);
        return zeros;
    }

    /// From those of its factors where it has some, which tell multiple zeros and poles.
    Zeros zerosByFactors(const ExprPtr& function) {
        const auto program = compiled(function);
        std::vector<Factor> factors = factorsOf(page_, function);
        std::vector<ZerosOfFactor> parts;
        std::vector<ExprPtr> bases;
        for (const Factor& factor : factors) {
            auto base = compile(page_, factor.base, std::span(&variable_, 1)).program;
            if (!base || base->outputs.size() != 1) return zerosOfOne(function, *program, work_);
            if (!mentions(*factor.base, variable_)) { // one that is not zero changes nothing
                const Enclosure constant =
                    IntervalEvaluator(*base)(std::vector<Enclosure>{{interval_.low, interval_.high}})[0];
                if (!constant.isProof() || (constant.low <= 0 && constant.high >= 0))
                    return zerosOfOne(function, *program, work_);
                continue;
            }
            bases.push_back(factor.base);
            parts.push_back({std::move(base), {}, factor.isRepeated});
        }
        if (parts.empty() && !factors.empty()) return {}; // a number that is not zero, above whatever
        if (parts.empty() || (parts.size() == 1 && !parts[0].isRepeated && factors.size() == 1 &&
                              spelled(*bases[0]) == spelled(*withBrackets(function))))
            return zerosOfOne(function, *program, work_);
        for (std::size_t k = 0; k < parts.size(); ++k)
            parts[k].zeros = zerosOfOne(bases[k], *parts[k].base, work_ / static_cast<double>(parts.size()));
        return zerosOfProduct(*program, parts, interval_);
    }

    double valueAt(double x) const {
        double value = 0;
        double* const out = &value;
        const double* const in = &x;
        Evaluator evaluator(*value_);
        evaluator(std::span(&in, 1), std::span<double* const>(&out, 1), 1);
        return value;
    }

    void read(const Zeros& zeros, bool withValues) {
        for (const Zero& zero : zeros.found) {
            FoundPlace place;
            place.at = zero.at;
            place.within = zero.within;
            place.value = withValues ? valueAt(place.at) : 0;
            place.isProven = zero.isProven;
            const bool ofSlope = line_.sought != Sought::Zeros;
            // A slope that touches zero, or is zero all along, has no extremum there.
            if (ofSlope && zero.isAllAlong) level_.push_back(zero.within);
            if (ofSlope && !zero.isAllAlong && !zero.isChangeKnown) places_.unsettled.push_back(zero.within);
            if (ofSlope && (zero.isAllAlong || zero.change == 0)) continue;
            if (line_.sought == Sought::Extrema || line_.sought == Sought::Maximum || line_.sought == Sought::Minimum)
                place.word = zero.change < 0 ? "maximum" : "minimum";
            if (zero.isMultiple && line_.sought == Sought::Zeros) place.word = "multiple";
            if (zero.isAllAlong) place.word = "all along";
            place.isAtEdge = zero.isAtEdge && line_.sought == Sought::Zeros;
            if (place.isAtEdge) place.word = "at the edge";
            places_.found.push_back(place);
        }
        places_.unsettled.insert(places_.unsettled.end(), zeros.unsettled.begin(), zeros.unsettled.end());
        places_.isEstimated = zeros.isEstimated;
        if (line_.sought != Sought::Zeros) lookAtBreaks();
        if (zeros.outOfWork)
            places_.why = "it takes too long";
        else if (!places_.unsettled.empty())
            places_.why = "rounding, a corner, a pole or a jump leaves it open";
    }

    /// What the zeros of slopes do not tell: where the function has a jump or a pole, and where it has a corner.
    void lookAtBreaks() {
        const std::vector<Bounds> breaks = breaksOf(*value_, interval_, work_);
        const auto meets = [](const Bounds& a, const Bounds& b) { return a.low <= b.high && b.low <= a.high; };
        const auto isAmong = [&](const std::vector<Bounds>& parts, const Bounds& part) {
            return std::ranges::any_of(parts, [&](const Bounds& each) { return meets(each, part); });
        };
        for (const Bounds& part : breaks) {
            if (line_.sought != Sought::Inflections && isJoined(part) && decideCorner(part)) continue;
            if (!isAmong(places_.unsettled, part)) places_.unsettled.push_back(part);
        }
        if (line_.sought != Sought::Inflections) {
            for (const Bounds& part : breaksOf(*compiled(slope(asked_, 1)), interval_, work_)) {
                const bool atEnd = part.low <= interval_.low || part.high >= interval_.high;
                if (!atEnd && !isAmong(breaks, part)) lookAtCorner(part);
            }
        }
        std::ranges::sort(places_.unsettled, {}, &Bounds::low);
        std::ranges::sort(places_.found, {}, &FoundPlace::at);
    }

    /// A part in which the function is continuous and its slope is not: there may be an extremum. Where that cannot be
    /// decided, what values show is not proven to be the only one so near.
    void lookAtCorner(const Bounds& part) {
        const auto isWithin = [&](const FoundPlace& each) { return each.at >= part.low && each.at <= part.high; };
        if (std::ranges::any_of(places_.found, isWithin)) return;
        if (decideCorner(part)) return;
        const double reach = std::max(part.high - part.low, 1e-9 * (interval_.high - interval_.low));
        FoundPlace corner;
        corner.at = shortestWithin(part);
        corner.within = part;
        corner.value = valueAt(corner.at);
        corner.isProven = false;
        const double before = valueAt(part.low - reach), after = valueAt(part.high + reach);
        if (before < corner.value && after < corner.value) corner.word = "maximum";
        if (before > corner.value && after > corner.value) corner.word = "minimum";
        const auto meets = [&](const Bounds& each) { return each.low <= part.high && part.low <= each.high; };
        if (std::ranges::none_of(places_.unsettled, meets)) places_.unsettled.push_back(part);
        if (!corner.word.empty()) places_.found.push_back(corner);
    }

    /// Whether pieces that meet within a part have one value there, by exact arithmetic: bounds cannot tell.
    bool isJoined(const Bounds& part) {
        if (!pieces_) {
            const auto low = line_.low ? exactForm(page_, line_.low) : std::nullopt,
                       high = line_.high ? exactForm(page_, line_.high) : std::nullopt;
            auto found = low && high ? exactPieces(page_, asked_, variable_, *low, *high) : std::nullopt;
            pieces_ = found ? std::move(*found) : std::vector<ExactPiece>{};
        }
        for (std::size_t i = 1; i < pieces_->size(); ++i) {
            const ExactPiece &left = (*pieces_)[i - 1], &right = (*pieces_)[i];
            const double at = right.begin.number();
            if (at < part.low || at > part.high) continue;
            const auto before = coulter::valueAt(left.function, left.end),
                       after = coulter::valueAt(right.function, right.begin);
            return before && after && *before == *after;
        }
        return false;
    }

    /// Whether it is certain what a corner is; then nothing of it is unsettled.
    bool decideCorner(const Bounds& part) {
        // Together with what the search for level places left open beside it.
        Bounds all = part;
        const auto meets = [&](const Bounds& each) { return each.low <= part.high && part.low <= each.high; };
        for (const Bounds& each : places_.unsettled) {
            if (meets(each)) all = hullOf(all, each);
        }
        const Corner decided = cornerWithin(*value_, all);
        if (decided == Corner::Unknown) return false;
        std::erase_if(places_.unsettled, meets);
        if (decided == Corner::None) return true;
        FoundPlace place;
        place.at = shortestWithin(all);
        const std::array<double, 3> looks{all.low, place.at, all.high};
        for (const PieceBorder& border : PieceFinder (*value_)(looks, {}, {}))
            place.at = simpler(border.before, border.after);
        place.within = all;
        place.value = valueAt(place.at);
        place.word = decided == Corner::Maximum ? "maximum" : "minimum";
        places_.found.push_back(place);
        return true;
    }

    /// Of the extrema and both ends those where the function is largest (or smallest, for −1), and whether it is
    /// proven that it is not larger elsewhere.
    void keepLargest(double sign) {
        std::vector<FoundPlace> candidates = places_.found;
        const auto add = [&](double x, const char* word, bool isProven) {
            FoundPlace place;
            place.at = x;
            place.within = {x, x};
            place.value = valueAt(x);
            place.word = word;
            place.isAtEdge = !place.word.empty();
            place.isProven = isProven;
            candidates.push_back(place);
        };
        const auto addEnd = [&](double end, bool belongs) {
            const auto isThere = [&](const FoundPlace& each) {
                return each.within.low <= end && end <= each.within.high;
            };
            if (std::ranges::none_of(places_.found, isThere))
                add(end, belongs ? "at the edge" : "towards the edge, not reached", true);
        };
        addEnd(interval_.low, interval_.lowClosed);
        addEnd(interval_.high, interval_.highClosed);
        for (const Bounds& part : places_.unsettled) {
            const auto isWithin = [&](const FoundPlace& each) { return each.at >= part.low && each.at <= part.high; };
            if (std::ranges::none_of(places_.found, isWithin)) add(shortestWithin(part), "", false);
        }
        for (const Bounds& part : level_) add(shortestWithin(part), "", true);
        std::erase_if(candidates, [](const FoundPlace& each) { return std::isnan(each.value); });
        places_.found.clear();
        if (candidates.empty()) return;
        double best = -HUGE_VAL;
        for (const FoundPlace& each : candidates) best = std::max(best, sign * each.value);
        IntervalEvaluator bounds(*value_);
        const auto highest = [&](const Bounds& part) {
            const Enclosure over = bounds(std::vector<Enclosure>{{part.low, part.high}})[0];
            return over.known ? (sign > 0 ? over.high : -over.low) : HUGE_VAL;
        };
        // What rounding could make of the best value counts as equal to it.
        const double same = 1e-13 * std::abs(best);
        for (const FoundPlace& each : candidates) {
            if (sign * each.value >= best - same) places_.found.push_back(each);
        }
        std::ranges::sort(places_.found, {}, &FoundPlace::at);
        std::erase_if(places_.unsettled, [&](const Bounds& part) { return highest(part) < best - same; });
        if (places_.unsettled.empty()) places_.why.clear();
    }

    const Page& page_;
    const Line& line_;
    std::string variable_;
    double work_;
    Interval interval_;
    ExprPtr asked_;
    std::shared_ptr<const Program> value_;
    Places places_;
    std::vector<Bounds> level_;                     ///< where the function does not change
    std::optional<std::vector<ExactPiece>> pieces_; ///< of the function, if it was asked for; empty: none are known
};

} // namespace

SearchAnswer searchInterval(const Page& page, const Line& line, double work) {
    return IntervalSearcher(page, line, work).run();
}

} // namespace coulter
