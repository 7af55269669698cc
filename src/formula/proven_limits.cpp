#include "formula/proven_limits.h"

#include "formula/enclosure.h"
#include "formula/growth.h"

#include <array>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

constexpr int mostDoublings = 60;
constexpr double wanted = 1e-15; ///< of the sum

/// The program with its first input turned round.
Program reflected(const Program& f) {
    Program turned = f;
    turned.instructions.clear();
    // One register more, behind all others, holds −x.
    const auto minus = static_cast<std::uint32_t>(f.registerCount());
    turned.temporaryCount += 1;
    const auto moved = [&](std::uint32_t index) { return index == 0 ? minus : index; };
    Program::Instruction negate;
    negate.kernel = Kernel::Negate;
    negate.operandCount = 1;
    negate.operands[0] = 0;
    negate.result = minus;
    turned.instructions.push_back(negate);
    for (Program::Instruction step : f.instructions) {
        for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = moved(step.operands[k]);
        turned.instructions.push_back(step);
    }
    for (Program::Integral& integral : turned.integrals) {
        for (std::uint32_t& operand : integral.operands) operand = moved(operand);
    }
    for (std::uint32_t& output : turned.outputs) output = moved(output);
    return turned;
}

/// Whether so much is open already that no digits would be left that anybody wants proven: an integrand that swings
/// ever faster, say, on which all further work would be lost.
bool isLost(const Bounds& sum) { return width(sum) > 1e-9 * std::max(magnitude(sum), 1e-3); }

bool isSharp(const Bounds& rest, const Bounds& sum) { return width(rest) <= wanted * magnitude(sum) / 4; }

} // namespace

namespace {

/// From `low` on without an end, upwards or downwards.
std::optional<Bounds> provenToInfinity(const Program& integrand, ProvenIntegral& between, double low, bool upwards,
                                       std::span<const Bounds> others) {
    const Program outward = upwards ? integrand : reflected(integrand);
    const double from = upwards ? low : -low;
    double reached = from;
    Bounds sum{0, 0};
    std::optional<Bounds> best;
    double next = std::max(1.0, std::abs(from) + 1);
    for (int i = 0; i < mostDoublings; ++i, next *= 2) {
        const auto part = upwards ? between(exactly(reached), exactly(next), others)
                                  : between(exactly(-next), exactly(-reached), others);
        if (!part) break;
        sum = sum + *part;
        if (isLost(sum)) break;
        reached = next;
        const auto growth = growthOf(outward, reached, others);
        const auto rest = growth ? integralBeyond(*growth, reached) : std::nullopt;
        if (!rest || !isBounded(*rest)) continue;
        const Bounds all = sum + *rest;
        if (!best || width(all) < width(*best)) best = all;
        // Once the rest counts for nothing, or what is added costs more than it saves, there is no going on.
        if (isSharp(*rest, all) || (i > 8 && width(all) > 2 * width(*best))) break;
    }
    return best;
}

/// From the middle to one end, at which the integrand may be infinite.
std::optional<Bounds> provenToEnd(const Program& integrand, ProvenIntegral& between, double middle, double end,
                                  std::span<const Bounds> others) {
    if (const auto plain = between(exactly(std::min(middle, end)), exactly(std::max(middle, end)), others))
        return plain;
    const int side = middle > end ? 1 : -1;
    std::optional<Bounds> best;
    Bounds sum{0, 0};
    double reached = middle;
    for (int i = 1; i < mostDoublings; ++i) {
        // A power of two, so that 1/t is exact.
        const double away = std::ldexp(1.0, std::ilogb(std::abs(middle - end)) - i), next = end + side * away;
        if (away > 1 || next == end || (next - end) * side != away) continue;
        const auto part = between(exactly(std::min(reached, next)), exactly(std::max(reached, next)), others);
        if (!part) break;
        sum = sum + *part;
        if (isLost(sum)) break;
        reached = next;
        auto growth = growthBeside(integrand, end, side, 1 / away, others);
        if (!growth) continue;
        growth->power -= 2; // dx = dt/t²
        const auto rest = integralBeyond(*growth, 1 / away);
        if (!rest || !isBounded(*rest)) continue;
        const Bounds all = sum + *rest;
        if (!best || width(all) < width(*best)) best = all;
        if (isSharp(*rest, all) || (i > 8 && width(all) > 2 * width(*best))) break;
    }
    return best;
}

/// Between two finite limits at which the integrand may be infinite.
std::optional<Bounds> provenBetween(const Program& integrand, ProvenIntegral& between, double low, double high,
                                    std::span<const Bounds> others) {
    if (low == high) return Bounds{0, 0};
    const double middle = low + (high - low) / 2;
    const auto first = provenToEnd(integrand, between, middle, low, others);
    const auto second = first ? provenToEnd(integrand, between, middle, high, others) : std::nullopt;
    if (!second) return std::nullopt;
    const Bounds sum = *first + *second;
    return low < high ? sum : -sum;
}

/// To infinity from a finite limit at which the integrand may be infinite, too.
std::optional<Bounds> provenOutwards(const Program& integrand, ProvenIntegral& between, double finite, bool upwards,
                                     std::span<const Bounds> others) {
    if (const auto whole = provenToInfinity(integrand, between, finite, upwards, others)) return whole;
    const double next = finite + (upwards ? 1 : -1);
    const auto first = provenBetween(integrand, between, std::min(finite, next), std::max(finite, next), others);
    const auto rest = first ? provenToInfinity(integrand, between, next, upwards, others) : std::nullopt;
    return rest ? std::optional(*first + *rest) : std::nullopt;
}

} // namespace

std::optional<Bounds> provenOver(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                 const Bounds& high, std::span<const Bounds> others) {
    const bool atPoints = low.low == low.high && high.low == high.high;
    if (std::isfinite(low.low) && std::isfinite(high.low)) {
        const auto plain = between(low, high, others);
        return plain || !atPoints ? plain : provenBetween(integrand, between, low.low, high.low, others);
    }
    if (!atPoints || low.low > high.low) return std::nullopt;
    const bool fromBelow = std::isinf(low.low), toAbove = std::isinf(high.low);
    // From one infinity to the other by way of 0.
    const double middle = !fromBelow ? low.low : !toAbove ? high.low : 0;
    const auto below = fromBelow ? provenOutwards(integrand, between, middle, false, others) : Bounds{0, 0};
    const auto above =
        toAbove && below ? provenOutwards(integrand, between, middle, true, others) : std::optional(Bounds{0, 0});
    return below && above ? std::optional(*below + *above) : std::nullopt;
}

namespace {

/// Adds up terms one by one.
class Terms {
public:
    Terms(const Program& term, double low, std::span<const Bounds> others) : values_(term), next_(low) {
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
    double size() const { return size_; }

private:
    IntervalEvaluator values_;
    std::vector<Enclosure> inputs_;
    double next_;
    Bounds sum_{0, 0};
    double size_ = 0;
};

/// Σ from N to M by the formula of Euler and Maclaurin, up to the coefficient of the highest order that is bounded.
std::optional<Bounds> bySmoothness(const Program& term, double first, double last, std::span<const Bounds> others) {
    static_assert(taylorOrder == 12);
    // B_{2k}/(2k), so that B_{2k}/(2k)! f^(2k−1) = B_{2k}/(2k) c_(2k−1); last 2 |B_12|, of which the remainder is made.
    const std::array<Bounds, 5> factors{exactly(1) / exactly(12), exactly(-1) / exactly(120), exactly(1) / exactly(252),
                                        exactly(-1) / exactly(240), exactly(1) / exactly(132)};
    const Bounds ofRemainder = exactly(691) / exactly(2730);
    TaylorEvaluator series(term);
    ProvenIntegral between(term);
    const auto left = series(exactly(first), others), right = series(exactly(last), others);
    if (!left || !right) return std::nullopt;
    Bounds sum = ((*left)[0] + (*right)[0]) / exactly(2), remainder{0, 0};
    for (std::size_t k = 0; k < factors.size(); ++k)
        sum = sum + factors[k] * ((*right)[2 * k + 1] - (*left)[2 * k + 1]);
    for (double from = first; from < last;) {
        const double to = std::min(last, 2 * from);
        const auto part = between(exactly(from), exactly(to), others);
        if (!part) return std::nullopt;
        sum = sum + *part;
        // The last coefficient over parts short enough that its bounds are of its size.
        constexpr int parts = 8;
        for (int i = 0; i < parts; ++i) {
            const double a = from + (to - from) * i / parts, b = from + (to - from) * (i + 1) / parts;
            const auto along = series({a, b}, others);
            if (!along) return std::nullopt;
            remainder = remainder + exactly(magnitude((*along)[taylorOrder])) * outwards(b - a, b - a);
        }
        from = to;
    }
    // |B_12 − B_12(x − ⌊x⌋)| ≤ 2 |B_12|, as the term with B_12 itself is left to the remainder.
    const double most = magnitude(ofRemainder * remainder);
    return sum + Bounds{-most, most};
}

} // namespace

std::optional<Bounds> provenSum(const Program& term, double low, std::span<const Bounds> others) {
    if (low != std::floor(low) || std::abs(low) > 1e6) return std::nullopt;
    Terms terms(term, low, others);
    constexpr double least = 16, most = 4096;
    double from = std::max(low + least, least);
    bool isGeometric = true;
    std::optional<Bounds> best;
    for (double n = from; n <= most && isGeometric; n *= 2) {
        if (!terms.upTo(n)) return std::nullopt;
        const auto growth = growthOf(term, n, others);
        if (!growth) continue;
        isGeometric = !growth->isPower();
        if (!isGeometric) break;
        const auto rest = sumBeyond(*growth, n);
        if (!rest) continue;
        const Bounds all = terms.sum() + *rest;
        if (!best || width(all) < width(*best)) best = all;
        if (width(*rest) <= wanted * terms.size() / 4) return best;
    }
    if (isGeometric) return best;
    // As far out as a unit is still told apart.
    constexpr double farthest = 0x1p44, start = 64;
    from = std::max(from, start);
    if (!terms.upTo(from)) return std::nullopt;
    const auto growth = growthOf(term, farthest, others);
    const auto rest = growth ? sumBeyond(*growth, farthest + 1) : std::nullopt;
    const auto middle = rest ? bySmoothness(term, from, farthest, others) : std::nullopt;
    if (!middle) return std::nullopt;
    const Bounds all = terms.sum() + *middle + *rest;
    return isBounded(all) ? std::optional(all) : std::nullopt;
}

} // namespace coulter
