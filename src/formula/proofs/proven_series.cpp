#include "formula/proofs/proven_series.h"

#include "formula/bounds/interval_rules.h"
#include "formula/program/program_edit.h"
#include "formula/proofs/growth.h"
#include "formula/proofs/swings.h"
#include "formula/proofs/taylor_evaluator.h"

#include <array>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

/// Adds up terms one by one.
class TermBounds {
public:
    TermBounds(const Program& term, double low, std::span<const Bounds> others) : values_(term), next_(low) {
        inputs_.resize(1);
        for (const Bounds& other : others) inputs_.push_back({other.low, other.high});
    }

    /// The bounds of the term at n.
    std::optional<Bounds> at(double n) {
        inputs_[0] = Enclosure::point(n);
        const Enclosure value = values_(inputs_)[0];
        if (!value.known || !value.defined || value.estimated || !std::isfinite(value.low) ||
            !std::isfinite(value.high))
            return std::nullopt;
        return Bounds{value.low, value.high};
    }
    /// The sum of all terms before n; whether they all have bounds.
    bool upTo(double n) {
        for (; next_ < n; ++next_) {
            const auto term = at(next_);
            if (!term) return false;
            sum_ = sum_ + *term;
            size_ += magnitude(*term);
        }
        return true;
    }
    const Bounds& sum() const { return sum_; }
    double reached() const { return next_; }
    double size() const { return size_; }

private:
    IntervalEvaluator values_;
    std::vector<Enclosure> inputs_;
    double next_;
    Bounds sum_{0, 0};
    double size_ = 0;
};

/// Σ from N to M by the formula of Euler and Maclaurin, up to the coefficient of the highest order that is bounded.
/// @param widest  wider than that nobody needs it
std::optional<Bounds> bySmoothness(const Program& term, double first, double last, std::span<const Bounds> others,
                                   const BoundsEffort& effort, double widest) {
    static_assert(taylorOrder == 12);
    // B_{2k}/(2k), so that B_{2k}/(2k)! f^(2k−1) = B_{2k}/(2k) c_(2k−1); last 2 |B_12|, of which the remainder is made.
    const std::array<Bounds, 5> factors{exactly(1) / exactly(12), exactly(-1) / exactly(120), exactly(1) / exactly(252),
                                        exactly(-1) / exactly(240), exactly(1) / exactly(132)};
    const Bounds ofRemainder = exactly(691) / exactly(2730);
    TaylorEvaluator series(term);
    ProvenIntegral between(term);
    constexpr int partsOfSlopes = 4;
    constexpr double ofSlopes = 1e-6;
    const BoundsEffort ofPart = effort.wanted > ofSlopes ? BoundsEffort{effort.wanted, partsOfSlopes} : effort;
    const auto left = series(exactly(first), others), right = series(exactly(last), others);
    const auto highest = left && right ? highestCoefficientOver(term, first, last, others) : std::nullopt;
    if (!highest) return std::nullopt;
    Bounds sum = ((*left)[0] + (*right)[0]) / exactly(2);
    for (std::size_t k = 0; k < factors.size(); ++k)
        sum = sum + factors[k] * ((*right)[2 * k + 1] - (*left)[2 * k + 1]);
    for (double from = first; from < last; from *= 2) {
        const auto part = between(exactly(from), exactly(std::min(last, 2 * from)), others, ofPart);
        if (!part) return std::nullopt;
        sum = sum + *part;
        if (width(sum) > widest) return std::nullopt; // it swings too fast
    }
    // |B_12 − B_12(x − ⌊x⌋)| ≤ 2 |B_12|, as the term with B_12 itself is left to the remainder.
    const double most = magnitude(ofRemainder * exactly(*highest));
    return sum + Bounds{-most, most};
}

} // namespace

std::optional<Bounds> provenSum(const Program& given, double low, std::span<const Bounds> others,
                                const BoundsEffort& effort) {
    if (low != std::floor(low) || std::abs(low) > 1e6) return std::nullopt;
    Program term = withExactLogarithms(given); // which are small after a million terms
    // What falls off as a power does, and no faster, is left to its smoothness; all else is added up one by one.
    constexpr double farOut = 0x1p20, flattest = -8;
    auto farGrowth = growthOf(term, farOut, others);
    if (!farGrowth) { // others grow
        term = given;
        farGrowth = growthOf(term, farOut, others);
    }
    if (!farGrowth) return std::nullopt;
    const bool isPower = farGrowth->isPower() && farGrowth->power > flattest;
    // What turns so little from one term to the next that thousands pass before it turns is left to its growth.
    constexpr double leastAway = 0.05;
    const auto composed = swingsOf(term, others);
    // Of a rate with bounds little is known of the angle there, and the terms had better be small.
    double away = composed ? HUGE_VAL : 0;
    bool isSharp = composed.has_value();
    for (std::size_t i = 0; composed && i < composed->parts.size(); ++i) {
        const Bounds& rate = composed->parts[i].rate;
        away = std::min(away, awayFromTurns(rate));
        isSharp = isSharp && width(rate) < 1e-9;
    }
    const double radians = effort.isCoarse() && isSharp ? 50 : 200;
    const bool swings = away > leastAway;
    // Where bounds need not be sharp, work is not worth it.
    constexpr double least = 16, some = 512, most = 4096;
    double mostOneByOne = isPower ? 0 : effort.isCoarse() || swings ? some : most;
    // What falls exponentially, but slowly, until e^−40 of it is left.
    constexpr double mostSlow = 0x1p18, exponents = 40;
    if (const double rate = farGrowth->exponential.high;
        mostOneByOne == most && rate < 0 && exponents < -rate * mostSlow)
        mostOneByOne = std::max(most, 2 * exponents / -rate);
    TermBounds terms(term, low, others);
    std::optional<Bounds> best;
    for (double n = std::max(low + least, least); n <= mostOneByOne; n *= 2) {
        if (!terms.upTo(n)) return std::nullopt;
        const auto growth = growthOf(term, n, others);
        const auto rest = growth ? sumBeyond(*growth, n) : std::nullopt;
        if (!rest) continue;
        const Bounds all = terms.sum() + *rest;
        if (!best || width(all) < width(*best)) best = all;
        if (width(*rest) <= effort.wanted * terms.size() / 4 || isSharpBeside(*rest, all, effort)) return best;
    }
    double from = std::max({terms.reached(), low + 2, least});
    if (swings) {
        from = std::max(from, std::ceil(radians / away));
        auto rest = terms.upTo(from) ? std::optional(Bounds{0, 0}) : std::nullopt;
        for (const Swing& swing : composed->parts) {
            const auto part =
                rest ? swingingSumFrom(swing, from, others, effort.wanted * terms.size() / 8) : std::nullopt;
            rest = part ? std::optional(*rest + *part) : std::nullopt;
        }
        if (rest && composed->plain) {
            const auto part = provenSum(*composed->plain, from, others, effort);
            rest = part ? std::optional(*rest + *part) : std::nullopt;
        }
        if (!rest) return best;
        const Bounds all = terms.sum() + *rest;
        return best && width(*best) <= width(all) ? best : std::optional(all);
    }
    if (!isPower) return best;
    // The fewer there are one by one, the less their widths add up; sharp bounds need more of them.
    from = std::max(from, effort.isCoarse() ? 16.0 : 64.0);
    if (!terms.upTo(from)) return best;
    // As far out as the rest counts for something; a unit is still told apart at the farthest.
    for (const double last : {0x1p12, 0x1p22, 0x1p33, 0x1p44}) {
        if (!(last > from)) continue;
        const auto growth = growthOf(term, last, others);
        const auto rest = growth ? sumBeyond(*growth, last + 1) : std::nullopt;
        const bool isFarthest = last == 0x1p44;
        if (!isFarthest && !(rest && width(*rest) <= effort.wanted * terms.size() / 4)) continue;
        if (effort.isCoarse() && rest && width(*rest) > terms.size()) return best; // nothing would be known
        const double widest = best ? width(*best) : HUGE_VAL;
        const auto middle = rest ? bySmoothness(term, from, last, others, effort, widest) : std::nullopt;
        if (!middle) return best;
        const Bounds all = terms.sum() + *middle + *rest;
        return isBounded(all) && width(all) < widest ? std::optional(all) : best;
    }
    return best;
}

std::optional<Bounds> provenProduct(const Program& more, double low, std::span<const Bounds> others,
                                    const BoundsEffort& effort) {
    if (low != std::floor(low) || std::abs(low) > 1e6) return std::nullopt;
    // The first factors as they are, whatever their signs; of the rest the sum of the logarithms.
    constexpr double first = 4, mostFirst = 1024;
    for (double from = low + first; from <= std::max(low, 0.0) + mostFirst; from *= 2) {
        TermBounds terms(more, low, others);
        Bounds product{1, 1};
        for (double n = low; n < from; ++n) {
            const auto term = terms.at(n);
            if (!term) return std::nullopt;
            product = product * (exactly(1) + *term);
        }
        if (isZero(product)) return product;
        const auto next = terms.at(from);
        if (!next || !(next->low > -0.5)) {
            from = std::max(from, 1.0);
            continue;
        }
        const auto sum = provenSum(logarithmOfOneAnd(more), from, others, effort);
        if (!sum) return std::nullopt;
        const Enclosure rest = enclose(Kernel::Exp, {sum->low, sum->high}, {}, false);
        return rest.isProof() ? std::optional(product * Bounds{rest.low, rest.high}) : std::nullopt;
    }
    return std::nullopt;
}

} // namespace coulter
