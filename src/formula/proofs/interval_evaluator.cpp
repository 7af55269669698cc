#include "formula/proofs/interval_evaluator.h"

#include "formula/bounds/interval_rules.h"
#include "formula/measured/measured_enclosures.h"
#include "formula/proofs/proven_integral.h"
#include "formula/proofs/proven_limits.h"
#include "formula/proofs/proven_principal.h"
#include "formula/proofs/proven_series.h"
#include "special/bounds.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Pieces over which an integral's integrand is enclosed.
constexpr int integralPieces = 32;

} // namespace

IntervalEvaluator::IntervalEvaluator(const Program& program) : program_(program), registers_(program.registerCount()) {
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        Enclosure& constant = registers_[program.inputCount + i];
        constant = Enclosure::point(program.constants[i]);
        if (std::isnan(program.constants[i])) constant = Enclosure{HUGE_VAL, -HUGE_VAL, true, false};
    }
    for (const Program::Integral& integral : program.integrals)
        inner_.push_back(std::make_unique<IntervalEvaluator>(*integral.integrand));
    proven_.resize(program.integrals.size());
}

std::span<const Enclosure> IntervalEvaluator::operator()(std::span<const Enclosure> inputs) {
    std::copy(inputs.begin(), inputs.end(), registers_.begin());
    for (const Program::Instruction& instruction : program_.instructions) {
        Enclosure result;
        if (instruction.special) {
            std::array<Enclosure, 4> operands;
            for (std::size_t k = 0; k < instruction.operandCount; ++k)
                operands[k] = registers_[instruction.operands[k]];
            result = encloseSpecial(instruction.special, {operands.data(), instruction.operandCount});
        } else if (instruction.table >= 0)
            result = enclose(*program_.tables[static_cast<std::size_t>(instruction.table)],
                             registers_[instruction.operands[0]]);
        else if (instruction.field >= 0) {
            std::array<Enclosure, 3> place;
            for (std::size_t k = 0; k < instruction.operandCount; ++k) place[k] = registers_[instruction.operands[k]];
            result = enclose(*program_.fields[static_cast<std::size_t>(instruction.field)],
                             {place.data(), instruction.operandCount});
        } else if (instruction.integral >= 0)
            result = integral(program_.integrals[static_cast<std::size_t>(instruction.integral)]);
        else
            result = enclose(instruction.kernel, registers_[instruction.operands[0]],
                             registers_[instruction.operands[1]], instruction.operands[0] == instruction.operands[1]);
        registers_[instruction.result] = result;
    }
    outputs_.clear();
    for (const std::uint32_t output : program_.outputs) {
        Enclosure& last = outputs_.emplace_back(registers_[output]);
        if (last.mayBeUnset) last.defined = false;
    }
    return outputs_;
}

namespace {

/// Steps that the inner integrals of an integral take at each place.
std::size_t innerSteps(const Program::Integral& integral) {
    std::size_t steps = 0;
    for (const Program::Integral& inner : integral.integrand->integrals) steps += inner.integrand->instructions.size();
    return steps;
}

/// An integral between finite limits whose integrand has others in it, that have none themselves.
bool isDouble(const Program::Integral& integral) {
    const auto& inner = integral.integrand->integrals;
    return !inner.empty() && integral.over == Program::Over::Interval &&
           std::ranges::all_of(inner, [](const Program::Integral& each) { return each.integrand->integrals.empty(); });
}

} // namespace

/// Bounds that are proven, where the integrand has them; else unknown.
Enclosure IntervalEvaluator::provenBounds(const Program::Integral& integral) {
    // Of a long sum of integrals an estimate has to do: proofs of each would take seconds.
    constexpr std::size_t mostProven = 8;
    if (program_.integrals.size() > mostProven || !(integral.integrand->integrals.empty() || isDouble(integral)))
        return Enclosure::unknown();
    std::vector<Bounds> operands;
    for (std::size_t k = 0; k < integral.operands.size(); ++k) {
        const Enclosure& e = registers_[integral.operands[k]];
        const bool isEndless = k < 2 && e.known && e.isPoint() && std::isinf(e.low);
        if (!e.isProof() && !isEndless) return Enclosure::unknown();
        operands.push_back({e.low, e.high});
    }
    const auto known = [](const std::optional<Bounds>& bounds) {
        return bounds ? Enclosure{bounds->low, bounds->high} : Enclosure::unknown();
    };
    const std::span others = std::span(operands).subspan(2);
    if (integral.over == Program::Over::Sum) return known(provenSum(*integral.integrand, operands[0].low, others));
    if (integral.over == Program::Over::Product)
        return known(provenProduct(*integral.integrand, operands[0].low, others));
    auto& proven = proven_[static_cast<std::size_t>(&integral - program_.integrals.data())];
    if (!proven) proven = std::make_shared<ProvenIntegral>(*integral.integrand);
    if (integral.over == Program::Over::PrincipalValue)
        return known(provenPrincipal(*integral.integrand, *proven, operands[0], operands[1], others));
    // Each step is taken for series in two variables: the longer the formula, the fewer parts.
    constexpr std::size_t mostSteps = 240, fewestParts = 4, mostParts = 48;
    const std::size_t parts = mostSteps / std::max<std::size_t>(1, innerSteps(integral));
    if (isDouble(integral) && parts < fewestParts) return Enclosure::unknown();
    const BoundsEffort ofDouble{1e-14, static_cast<int>(std::min(parts, mostParts))};
    if (isDouble(integral)) return known((*proven)(operands[0], operands[1], others, ofDouble));
    return known(provenOver(*integral.integrand, *proven, operands[0], operands[1], others));
}

/// The value with its estimated error, and twice the difference that the operands' widths make.
Enclosure IntervalEvaluator::thinIntegral(const Program::Integral& integral) {
    // A proof that leaves few digits says less than an estimate does.
    constexpr double sharp = 1e-10;
    const Enclosure proven = provenBounds(integral);
    if (proven.known && proven.width() <= sharp * std::max(std::abs(proven.low), 1e-3)) return proven;
    const Program alone = integralAlone(integral);
    std::vector<std::array<double, 2>> ends;
    std::vector<const double*> inputs;
    bool points = true;
    for (const std::uint32_t operand : integral.operands) {
        ends.push_back({registers_[operand].low, registers_[operand].high});
        points = points && registers_[operand].isPoint();
    }
    for (const auto& each : ends) inputs.push_back(each.data());
    Evaluator evaluator(alone);
    evaluator.limit({}, 6'000'000);
    std::array<double, 2> values{};
    double* out = values.data();
    evaluator(inputs, std::span<double* const>(&out, 1), points ? 1 : 2);
    const auto errors = evaluator.integralErrors(0);
    if (points) values[1] = values[0];
    const double error = errors[0] + (points ? 0 : errors[1]) + 2 * std::abs(values[1] - values[0]);
    if (!std::isfinite(values[0]) || !std::isfinite(error)) return Enclosure::unknown();
    Enclosure result{std::min(values[0], values[1]) - error, std::max(values[0], values[1]) + error};
    result.estimated = true;
    return result;
}

Enclosure IntervalEvaluator::integral(const Program::Integral& integral) {
    std::vector<Enclosure> inputs;
    for (const std::uint32_t operand : integral.operands) inputs.push_back(registers_[operand]);
    const Enclosure low = inputs[0], high = inputs[1];
    inputs.erase(inputs.begin());
    bool thin = true;
    for (const std::uint32_t operand : integral.operands) {
        const Enclosure& e = registers_[operand];
        thin = thin && e.known && (e.isPoint() || e.width() <= 1e-9 * std::abs(e.low));
    }
    if (thin) return thinIntegral(integral);
    if (integral.over != Program::Over::Interval) return Enclosure::unknown();
    if (!low.known || !high.known || !std::isfinite(low.low) || !std::isfinite(high.high) || !std::isfinite(low.high) ||
        !std::isfinite(high.low))
        return Enclosure::unknown();
    IntervalEvaluator& integrand = *inner_[static_cast<std::size_t>(&integral - program_.integrals.data())];
    // From the middle of one limit to the middle of the other, piece by piece; then what the limits' widths add.
    const double a = low.low + low.width() / 2, b = high.low + high.width() / 2;
    Enclosure sum = Enclosure::point(0);
    const auto add = [&](double from, double to, Enclosure length) {
        inputs[0] = Enclosure{std::min(from, to), std::max(from, to)};
        const Enclosure value = integrand(inputs)[0];
        sum = enclose(Kernel::Add, sum, enclose(Kernel::Multiply, value, length, false), false);
    };
    double from = a;
    for (int i = 1; i <= integralPieces; ++i) {
        const double to = i == integralPieces ? b : a + (b - a) * i / integralPieces;
        add(from, to, enclose(Kernel::Subtract, Enclosure::point(to), Enclosure::point(from), false));
        from = to;
    }
    if (!high.isPoint()) add(high.low, high.high, {moved(high.low - b, -1), moved(high.high - b, 1)});
    if (!low.isPoint()) add(low.low, low.high, {moved(a - low.high, -1), moved(a - low.low, 1)});
    if (!sum.defined) return Enclosure::unknown();
    inherit(sum, low);
    inherit(sum, high);
    sum.continuous = low.continuous && high.continuous; // an integral has no jumps where its integrand is bounded
    return sum;
}

} // namespace coulter
