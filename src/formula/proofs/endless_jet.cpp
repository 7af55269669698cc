#include "formula/proofs/endless_jet.h"

#include "formula/bounds/jet_rules.h"
#include "formula/program/program_edit.h"
#include "formula/program/tangent.h"
#include "formula/proofs/proven_limits.h"
#include "formula/proofs/proven_series.h"

#include <numeric>
#include <vector>

namespace coulter {
namespace {

/// How sharp the value at the middle has to be: much finer than a sheet shows; and its slopes over the box.
constexpr BoundsEffort ofValue{1e-9, 60}, ofSlopes{1e-3, 16};

/// The numbers from `first` on.
std::vector<std::size_t> counted(std::size_t first, std::size_t count) {
    std::vector<std::size_t> numbers(count);
    std::iota(numbers.begin(), numbers.end(), first);
    return numbers;
}

/// The first derivative under the sign, by what comes from outside.
std::optional<Program> firstUnder(const Program& integrand) {
    return tangentOf(integrand, counted(1, integrand.inputCount - 1));
}

Jet<1> constantJet(double value) { return JetRules<1>::constant(Enclosure::point(value)); }

} // namespace

bool EndlessJet::fits(const Program::Integral& integral) {
    return integral.over != Program::Over::PrincipalValue && integral.integrand->integrals.empty() &&
           firstUnder(*integral.integrand);
}

EndlessJet::EndlessJet(const Program::Integral& integral) : integral_(integral) {
    const Program& integrand = *integral.integrand;
    const bool isProduct = integral.over == Program::Over::Product;
    value_ = std::make_unique<Part>(isProduct ? logarithmOfOneAnd(integrand) : integrand);
    if (isProduct) factors_ = std::make_unique<JetEvaluator<1>>(integrand);
    if (IntegralJet::fits(integral)) moving_ = std::make_unique<IntegralJet>(integral);
    if (auto first = firstUnder(value_->program)) first_ = std::make_unique<Part>(std::move(*first));
    const std::size_t others = integrand.inputCount - 1;
    auto second = first_ ? tangentOf(first_->program, counted(1, 2 * others)) : std::nullopt;
    if (second) second_ = std::make_unique<Part>(std::move(*second));
}

std::optional<Bounds> EndlessJet::boundsOf(Part& part, const Bounds& low, const Bounds& high,
                                           std::span<const Bounds> others, const BoundsEffort& effort) const {
    if (integral_.over == Program::Over::Interval)
        return provenOver(part.program, part.between, low, high, others, effort);
    return provenSum(part.program, low.low, others, effort);
}

/// Of limits that stay where they are.
std::optional<Jet<1>> EndlessJet::betweenStill(const Bounds& low, const Bounds& high, Others others, double radius) {
    std::vector<Bounds> middles, middleSlopes, all, slopes, bends;
    bool varies = false;
    for (const Jet<1>& other : others) {
        middles.push_back({other.centre.low, other.centre.high});
        middleSlopes.push_back(other.centreFirst[0]);
        all.push_back({other.value.low, other.value.high});
        slopes.push_back(other.first[0]);
        bends.push_back(other.second[0]);
        varies = varies || !isZero(other.first[0]);
    }
    const auto centre = boundsOf(*value_, low, high, middles, ofValue);
    if (!centre) return std::nullopt;
    Jet<1> result = JetRules<1>::constant({centre->low, centre->high});
    if (!varies) return result;
    if (!first_) return std::nullopt;
    const auto joined = [](std::vector<Bounds> to, std::initializer_list<const std::vector<Bounds>*> more) {
        for (const auto* each : more) to.insert(to.end(), each->begin(), each->end());
        return to;
    };
    const auto first = boundsOf(*first_, low, high, joined(all, {&slopes}), ofSlopes);
    if (!first || !isBounded(*first)) return std::nullopt;
    const auto centreFirst = boundsOf(*first_, low, high, joined(middles, {&middleSlopes}), ofSlopes);
    const auto second = second_ ? boundsOf(*second_, low, high, joined(all, {&slopes, &slopes, &bends}), ofSlopes)
                                : std::optional<Bounds>();
    result.first[0] = *first;
    result.centreFirst[0] = centreFirst.value_or(everything());
    result.second[0] = second.value_or(everything());
    // The value follows from that at the middle and the slopes.
    const Bounds value = *centre + *first * Bounds{-radius, radius};
    result.value = {value.low, value.high};
    JetRules<1>({radius}).settle(result);
    return result;
}

/// The first factors, as far as any of them is small or negative, and e to the sum of the others' logarithms.
std::optional<Jet<1>> EndlessJet::product(double low, Others others, double radius) {
    const JetRules<1> rules({radius});
    constexpr double least = 4, most = 1024;
    std::vector<Jet<1>> inputs(1);
    inputs.insert(inputs.end(), others.begin(), others.end());
    Jet<1> product = constantJet(1);
    const auto factorAt = [&](double n) {
        inputs[0] = constantJet(n);
        return rules.apply(Kernel::Add, constantJet(1), (*factors_)(inputs, {radius})[0], false);
    };
    for (double n = low; n < std::max(low, 0.0) + most; ++n) {
        const Jet<1> factor = factorAt(n);
        if (!holds(factor.value)) return std::nullopt;
        product = rules.apply(Kernel::Multiply, product, factor, false);
        constexpr double positive = 0.5;
        if (n + 1 < low + least || !(factor.value.low > positive)) continue;
        const auto rest = betweenStill(exactly(n + 1), exactly(HUGE_VAL), others, radius);
        if (!rest) return std::nullopt;
        const Jet<1> all = rules.apply(Kernel::Multiply, product, rules.apply(Kernel::Exp, *rest, {}, false), false);
        return holds(all.value) ? std::optional(all) : std::nullopt;
    }
    return std::nullopt;
}

std::optional<Jet<1>> EndlessJet::operator()(std::span<const Jet<1>> operands, double radius) {
    for (const Jet<1>& each : operands) {
        if (!holds(each.value) || !holds(each.centre)) return std::nullopt;
    }
    const Jet<1>&low = operands[0], &high = operands[1];
    const Others others = operands.subspan(2);
    const auto stays = [](const Jet<1>& limit) { return limit.value.isPoint() && isZero(limit.first[0]); };
    const auto pointOf = [](const Jet<1>& limit) { return exactly(limit.value.low); };
    if (integral_.over != Program::Over::Interval) {
        if (!stays(low)) return std::nullopt;
        return integral_.over == Program::Over::Product ? product(low.value.low, others, radius)
                                                        : betweenStill(pointOf(low), pointOf(high), others, radius);
    }
    if (stays(low) && stays(high)) return betweenStill(pointOf(low), pointOf(high), others, radius);
    if ((!stays(low) && !stays(high)) || !moving_) return std::nullopt;
    // Where the limit that moves comes nearest to the other one, the integral is divided.
    const bool lowMoves = !stays(low);
    const double still = lowMoves ? low.value.high : high.value.low;
    if (!std::isfinite(still) || !(lowMoves ? still < high.value.low : still > low.value.high)) return std::nullopt;
    const auto beyond = betweenStill(lowMoves ? exactly(still) : pointOf(low),
                                     lowMoves ? pointOf(high) : exactly(still), others, radius);
    if (!beyond) return std::nullopt;
    std::vector<Jet<1>> parts(operands.begin(), operands.end());
    parts[lowMoves ? 1 : 0] = constantJet(still);
    const Jet<1> upTo = (*moving_)(parts, radius);
    if (!holds(upTo.value)) return std::nullopt;
    return JetRules<1>({radius}).apply(Kernel::Add, *beyond, upTo, false);
}

} // namespace coulter
