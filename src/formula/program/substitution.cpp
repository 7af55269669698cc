#include "formula/program/substitution.h"

#include "formula/program/program_edit.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

bool isKernel(const Program::Instruction& step) { return !step.special && step.table < 0 && step.field < 0; }

/// A register that is a power of the first input, or its negative.
struct Monomial {
    double power = 1;
    bool isNegative = false;
};

/// Follows which registers are such.
class MonomialReader {
public:
    explicit MonomialReader(const Program& f) : f_(f), monomials_(f.registerCount()) { monomials_[0] = Monomial{}; }

    /// What a step results in; to be asked of each step in turn.
    std::optional<Monomial> operator()(const Program::Instruction& step) {
        const auto monomial = monomialOf(step);
        monomials_[step.result] = monomial;
        return monomial;
    }

private:
    std::optional<Monomial> monomialOf(const Program::Instruction& step) const {
        const auto& a = monomials_[step.operands[0]];
        if (!isKernel(step) || !a) return std::nullopt;
        const std::uint32_t second = step.operands[step.operandCount > 1 ? 1 : 0];
        const bool isConstant = second >= f_.inputCount && second < f_.inputCount + f_.constants.size();
        switch (step.kernel) {
        case Kernel::Negate: return Monomial{a->power, !a->isNegative};
        case Kernel::Sqrt: return raised(*a, 0.5);
        case Kernel::Multiply: return monomials_[second] ? product(*a, *monomials_[second]) : std::nullopt;
        case Kernel::Power: return isConstant ? raised(*a, f_.constants[second - f_.inputCount]) : std::nullopt;
        default: return std::nullopt;
        }
    }

    static std::optional<Monomial> product(const Monomial& a, const Monomial& b) {
        const double power = a.power + b.power;
        const bool isExact = power - a.power == b.power && power - b.power == a.power;
        return isExact ? std::optional(Monomial{power, a.isNegative != b.isNegative}) : std::nullopt;
    }

    static std::optional<Monomial> raised(const Monomial& a, double exponent) {
        const double power = a.power * exponent;
        const bool isWhole = exponent == std::floor(exponent);
        if (std::fma(a.power, exponent, -power) != 0 || (a.isNegative && !isWhole)) return std::nullopt;
        return Monomial{power, a.isNegative && std::fmod(exponent, 2) != 0};
    }

    const Program& f_;
    std::vector<std::optional<Monomial>> monomials_;
};

/// The powers that angles of sines and cosines are made of.
std::vector<double> powersInWaves(const Program& f) {
    MonomialReader monomialOf(f);
    std::vector<std::vector<double>> within(f.registerCount()); // of each register
    std::vector<double> found;
    for (const Program::Instruction& step : f.instructions) {
        std::vector<double> all;
        for (const std::uint32_t operand : f.operandsOf(step))
            all.insert(all.end(), within[operand].begin(), within[operand].end());
        const auto monomial = monomialOf(step);
        if (monomial) all = {monomial->power};
        std::ranges::sort(all);
        all.erase(std::unique(all.begin(), all.end()), all.end());
        if (isKernel(step) && (step.kernel == Kernel::Sin || step.kernel == Kernel::Cos))
            found.insert(found.end(), all.begin(), all.end());
        within[step.result] = std::move(all);
    }
    std::ranges::sort(found);
    found.erase(std::unique(found.begin(), found.end()), found.end());
    std::erase_if(found, [](double power) { return !(power > 0) || power == 1 || !std::isfinite(1 / power); });
    return found;
}

Substitution substituted(const Program& f, double power) {
    using Place = ProgramEdit::Place;
    const double inverse = 1 / power;
    const bool isExact = std::fma(inverse, power, -1) == 0;
    ProgramEdit edit(f.inputCount + 1);
    const Place u = edit.input(0), exponent = isExact ? edit.constant(inverse) : edit.input(f.inputCount),
                x = edit.apply(Kernel::Power, u, exponent);
    std::vector<Place> places(f.registerCount());
    places[0] = x;
    for (std::size_t i = 1; i < f.inputCount; ++i) places[i] = edit.input(i);
    for (std::size_t i = 0; i < f.constants.size(); ++i) places[f.inputCount + i] = edit.constant(f.constants[i]);
    MonomialReader monomialOf(f);
    for (const Program::Instruction& step : f.instructions) {
        std::vector<Place> operands;
        for (const std::uint32_t operand : f.operandsOf(step)) operands.push_back(places[operand]);
        const auto monomial = monomialOf(step);
        if (monomial && monomial->power == power)
            places[step.result] = monomial->isNegative ? edit.apply(Kernel::Negate, u) : u;
        else
            places[step.result] = edit.copy(f, step, operands);
    }
    // dx = x/(p u) du
    const Place slope = edit.apply(Kernel::Multiply, exponent, edit.apply(Kernel::Divide, x, u));
    Substitution result;
    result.program = edit.finish(edit.apply(Kernel::Multiply, places[f.outputs[0]], slope));
    result.power = power;
    result.inverse = isExact ? exactly(inverse) : outwards(inverse, inverse);
    return result;
}

} // namespace

std::vector<Substitution> substitutionsOf(const Program& f) {
    std::vector<Substitution> all;
    if (!f.integrals.empty()) return all;
    for (const double power : powersInWaves(f)) all.push_back(substituted(f, power));
    return all;
}

} // namespace coulter
