#include "formula/proofs/proven_limits.h"

#include "formula/bounds/interval_rules.h"
#include "formula/program/program_edit.h"
#include "formula/program/substitution.h"
#include "formula/proofs/growth.h"
#include "formula/proofs/swings.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

constexpr int mostDoublings = 60;

/// Whether so much is open already that no digits would be left that anybody wants proven: an integrand that swings
/// ever faster, say, on which all further work would be lost.
bool isLost(const Bounds& sum, const BoundsEffort& effort) {
    const double most = std::max(1e-9, 1e6 * effort.wanted);
    return !isBounded(sum) || width(sum) > most * std::max(magnitude(sum), 1e-3);
}

} // namespace

namespace {

std::optional<Bounds> provenToInfinity(const Program& integrand, ProvenIntegral& between, double low, bool upwards,
                                       std::span<const Bounds> others, const BoundsEffort& effort);

/// The same of what swings: up to a place beyond which a hundred radians or so are left of its expansion's error.
std::optional<Bounds> provenSwinging(const Swings& swings, ProvenIntegral& between, double low, bool upwards,
                                     std::span<const Bounds> others, const BoundsEffort& effort) {
    constexpr double radians = 128, farthest = 0x1p20, guard = 1 - 1e-9;
    double next = std::max(1.0, upwards ? low : -low), fastest = 0;
    for (const Swing& swing : swings.parts) {
        const double slowest = std::min(std::abs(swing.rate.low), std::abs(swing.rate.high));
        next = std::max(next, std::exp2(std::ceil(std::log2(std::max(1.0, guard * radians / slowest)))));
        fastest = std::max(fastest, magnitude(swing.rate));
        if (swing.isForWholes || next > farthest) return std::nullopt;
    }
    // Some parts to a turn, each of which is as long as a series of twelve terms reaches.
    constexpr double partsPerRadian = 2, mostParts = 4000;
    BoundsEffort ofTurns = effort;
    if (!effort.isCoarse())
        ofTurns.mostParts =
            std::max(effort.mostParts,
                     static_cast<int>(std::min(mostParts, partsPerRadian * fastest * (next - (upwards ? low : -low)))));
    auto sum = upwards ? between(exactly(low), exactly(next), others, ofTurns)
                       : between(exactly(-next), exactly(low), others, ofTurns);
    for (const Swing& swing : swings.parts) {
        const auto rest =
            sum ? swingingIntegralFrom(swing, next, others, effort.wanted * magnitude(*sum) / 8) : std::nullopt;
        if (!rest) return std::nullopt;
        sum = *sum + *rest;
    }
    if (!swings.plain || !sum) return sum;
    ProvenIntegral ofPlain(*swings.plain);
    const auto rest = provenToInfinity(*swings.plain, ofPlain, next, true, others, effort);
    return rest ? std::optional(*sum + *rest) : std::nullopt;
}

/// The same of what swings ever faster or slower, as sin(x²) does, by the power that it swings evenly with.
std::optional<Bounds> provenBySubstitution(const Program& outward, ProvenIntegral& between, double low, bool upwards,
                                           std::span<const Bounds> others, const BoundsEffort& effort) {
    for (const Substitution& by : substitutionsOf(outward)) {
        std::vector<Bounds> inputs(others.begin(), others.end());
        inputs.push_back(by.inverse);
        if (!swingsOf(by.program, inputs)) continue;
        // From a power of two on.
        const double from = upwards ? low : -low, reached = std::pow(std::max(1.0, from), by.power);
        const double first = reached > 1 ? std::exp2(std::ceil(std::log2(reached * (1 + 1e-9)))) : 1;
        const Enclosure place =
            enclose(Kernel::Power, Enclosure::point(first), {by.inverse.low, by.inverse.high}, false);
        if (!std::isfinite(first) || !place.isProof()) continue;
        const Bounds until{place.low, place.high};
        const auto part =
            upwards ? between(exactly(low), until, others, effort) : between(-until, exactly(low), others, effort);
        if (!part) continue;
        ProvenIntegral further(by.program);
        const auto rest = provenToInfinity(by.program, further, first, true, inputs, effort);
        if (rest) return *part + *rest;
    }
    return std::nullopt;
}

/// From `low` on without an end, upwards or downwards.
std::optional<Bounds> provenToInfinity(const Program& integrand, ProvenIntegral& between, double low, bool upwards,
                                       std::span<const Bounds> others, const BoundsEffort& effort) {
    const Program outward = upwards ? integrand : reflected(integrand);
    const double from = upwards ? low : -low;
    const auto swings = swingsOf(outward, others);
    const bool fallSlowly = swings && std::ranges::any_of(swings->parts, [&](const Swing& swing) {
                                const auto growth = growthOf(swing.rest, std::max(1.0, from), others);
                                return growth && (growth->isPower() || growth->exponential.high > -0.25);
                            });
    if (fallSlowly) {
        if (const auto all = provenSwinging(*swings, between, low, upwards, others, effort)) return all;
    }
    if (!swings) {
        if (const auto all = provenBySubstitution(outward, between, low, upwards, others, effort)) return all;
    }
    double reached = from;
    Bounds sum{0, 0};
    std::optional<Bounds> best;
    double next = std::max(1.0, std::abs(from) + 1);
    for (int i = 0; i < mostDoublings; ++i, next *= 2) {
        const auto part = upwards ? between(exactly(reached), exactly(next), others, effort)
                                  : between(exactly(-next), exactly(-reached), others, effort);
        if (!part) break;
        sum = sum + *part;
        if (isLost(sum, effort)) break;
        reached = next;
        const auto growth = growthOf(outward, reached, others);
        const auto rest = growth ? integralBeyond(*growth, reached) : std::nullopt;
        if (!rest || !isBounded(*rest)) continue;
        const Bounds all = sum + *rest;
        if (!best || width(all) < width(*best)) best = all;
        // Once the rest counts for nothing, or what is added costs more than it saves, there is no going on.
        if (isSharpBeside(*rest, all, effort) || (i > 8 && width(all) > 2 * width(*best))) break;
    }
    return best;
}

/// From the middle to one end, at which the integrand may be infinite, in ascending order.
std::optional<Bounds> provenToEnd(const Program& integrand, ProvenIntegral& between, double middle, const Bounds& limit,
                                  std::span<const Bounds> others, const BoundsEffort& effort) {
    const double end = limit.low;
    const int side = middle > end ? 1 : -1;
    const auto plain =
        side > 0 ? between(limit, exactly(middle), others, effort) : between(exactly(middle), limit, others, effort);
    if (plain || limit.low != limit.high) return plain;
    std::optional<Bounds> best;
    Bounds sum{0, 0};
    double reached = middle;
    for (int i = 1; i < mostDoublings; ++i) {
        // A power of two, so that 1/t is exact.
        const double away = std::ldexp(1.0, std::ilogb(std::abs(middle - end)) - i), next = end + side * away;
        if (away > 1 || next == end || (next - end) * side != away) continue;
        const auto part = between(exactly(std::min(reached, next)), exactly(std::max(reached, next)), others, effort);
        if (!part) break;
        sum = sum + *part;
        if (isLost(sum, effort)) break;
        reached = next;
        const auto growth = growthBeside(integrand, end, side, 1 / away, others);
        const auto rest = growth ? integralBeyond(*growth, 1 / away, -2) : std::nullopt; // dx = dt/t²
        if (!rest || !isBounded(*rest)) continue;
        const Bounds all = sum + *rest;
        if (!best || width(all) < width(*best)) best = all;
        if (isSharpBeside(*rest, all, effort) || (i > 8 && width(all) > 2 * width(*best))) break;
    }
    return best;
}

/// Between two finite limits, of which the first is less, at which the integrand may be infinite.
std::optional<Bounds> provenToBothEnds(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                       const Bounds& high, std::span<const Bounds> others, const BoundsEffort& effort) {
    const double middle = low.high + (high.low - low.high) / 2;
    const auto first = provenToEnd(integrand, between, middle, low, others, effort);
    const auto second = first ? provenToEnd(integrand, between, middle, high, others, effort) : std::nullopt;
    return second ? std::optional(*first + *second) : std::nullopt;
}

/// The same where the integrand may be infinite between them, too, at one of the first places where its piece changes.
std::optional<Bounds> provenBetween(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                    const Bounds& high, std::span<const Bounds> others, const BoundsEffort& effort) {
    if (low.low == high.high) return Bounds{0, 0};
    if (low.low > high.low) {
        const auto turned = provenBetween(integrand, between, high, low, others, effort);
        return turned ? std::optional(-*turned) : std::nullopt;
    }
    if (!(low.high < high.low)) return std::nullopt;
    if (const auto all = provenToBothEnds(integrand, between, low, high, others, effort)) return all;
    constexpr std::size_t most = 4;
    std::vector<double> places = between.bordersWithin(low.high, high.low, others);
    if (places.size() > most) places.resize(most);
    for (const double place : places) {
        const auto first = provenToBothEnds(integrand, between, low, exactly(place), others, effort);
        const auto second =
            first ? provenToBothEnds(integrand, between, exactly(place), high, others, effort) : std::nullopt;
        if (second) return *first + *second;
    }
    return std::nullopt;
}

/// To infinity from a finite limit at which the integrand may be infinite, too.
std::optional<Bounds> provenOutwards(const Program& integrand, ProvenIntegral& between, double finite, bool upwards,
                                     std::span<const Bounds> others, const BoundsEffort& effort) {
    if (const auto whole = provenToInfinity(integrand, between, finite, upwards, others, effort)) return whole;
    const double next = finite + (upwards ? 1 : -1);
    const auto first = provenBetween(integrand, between, exactly(std::min(finite, next)),
                                     exactly(std::max(finite, next)), others, effort);
    const auto rest = first ? provenToInfinity(integrand, between, next, upwards, others, effort) : std::nullopt;
    return rest ? std::optional(*first + *rest) : std::nullopt;
}

} // namespace

std::optional<Bounds> provenOver(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                 const Bounds& high, std::span<const Bounds> others, const BoundsEffort& effort) {
    const bool atPoints = low.low == low.high && high.low == high.high;
    if (std::isfinite(low.low) && std::isfinite(high.low)) {
        const auto plain = between(low, high, others, effort);
        return plain ? plain : provenBetween(integrand, between, low, high, others, effort);
    }
    if (!atPoints || low.low > high.low) return std::nullopt;
    const bool fromBelow = std::isinf(low.low), toAbove = std::isinf(high.low);
    // From one infinity to the other by way of 0.
    const double middle = !fromBelow ? low.low : !toAbove ? high.low : 0;
    const auto below = fromBelow ? provenOutwards(integrand, between, middle, false, others, effort) : Bounds{0, 0};
    const auto above = toAbove && below ? provenOutwards(integrand, between, middle, true, others, effort)
                                        : std::optional(Bounds{0, 0});
    return below && above ? std::optional(*below + *above) : std::nullopt;
}

} // namespace coulter
