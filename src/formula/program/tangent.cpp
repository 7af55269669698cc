#include "formula/program/tangent.h"

#include "formula/program/program_edit.h"

#include <vector>

namespace coulter {
namespace {

using Place = ProgramEdit::Place;
using Moved = std::optional<Place>; ///< a derivative; none: 0

/// A power, with what is known of its operands.
struct Power {
    Place base, exponent;
    Moved ofBase, ofExponent;
    std::optional<double> number; ///< the exponent, if it is a constant
};

/// Writes what an operation's derivative is.
class TangentRules {
public:
    explicit TangentRules(ProgramEdit& edit) : edit_(edit) {}

    /// @param r  the operation's result
    /// @return none where there is no rule
    std::optional<Place> ofOne(Kernel kernel, Place a, Place da, Place r) {
        switch (kernel) {
        case Kernel::Negate: return minus(da);
        case Kernel::Sqrt: return over(da, times(number(2), r));
        case Kernel::Cbrt: return over(da, times(number(3), square(r)));
        case Kernel::Exp: return times(r, da);
        case Kernel::Ln: return over(da, a);
        case Kernel::Lg: return over(da, times(a, of(Kernel::Ln, number(10))));
        case Kernel::Lb: return over(da, times(a, of(Kernel::Ln, number(2))));
        case Kernel::Sin: return times(of(Kernel::Cos, a), da);
        case Kernel::Cos: return minus(times(of(Kernel::Sin, a), da));
        case Kernel::Tan: return times(plus(number(1), square(r)), da);
        case Kernel::Cot: return minus(times(plus(number(1), square(r)), da));
        case Kernel::Sec: return times(times(r, of(Kernel::Tan, a)), da);
        case Kernel::Csc: return minus(times(times(r, of(Kernel::Cot, a)), da));
        case Kernel::Arctan: return over(da, plus(number(1), square(a)));
        case Kernel::Arccot: return minus(over(da, plus(number(1), square(a))));
        case Kernel::Arcsin: return over(da, of(Kernel::Sqrt, less(number(1), square(a))));
        case Kernel::Arccos: return minus(over(da, of(Kernel::Sqrt, less(number(1), square(a)))));
        case Kernel::Sinh: return times(of(Kernel::Cosh, a), da);
        case Kernel::Cosh: return times(of(Kernel::Sinh, a), da);
        case Kernel::Tanh:
        case Kernel::Coth: return times(less(number(1), square(r)), da);
        case Kernel::Sech: return minus(times(times(r, of(Kernel::Tanh, a)), da));
        case Kernel::Csch: return minus(times(times(r, of(Kernel::Coth, a)), da));
        case Kernel::Arsinh: return over(da, of(Kernel::Sqrt, plus(square(a), number(1))));
        case Kernel::Arcosh: return over(da, of(Kernel::Sqrt, less(square(a), number(1))));
        case Kernel::Artanh: return over(da, less(number(1), square(a)));
        case Kernel::Erf: return times(bell(a), da);
        case Kernel::Erfc: return minus(times(bell(a), da));
        default: return std::nullopt;
        }
    }

    /// @param exponent  where the second operand is a constant
    std::optional<Place> ofTwo(Kernel kernel, Place a, Place b, Moved da, Moved db, Place r,
                               const std::optional<double>& exponent) {
        switch (kernel) {
        case Kernel::Add: return da && db ? plus(*da, *db) : da ? *da : *db;
        case Kernel::Subtract: return da && db ? less(*da, *db) : da ? *da : minus(*db);
        case Kernel::Multiply: {
            const Moved first = da ? Moved(times(*da, b)) : std::nullopt,
                        second = db ? Moved(times(a, *db)) : std::nullopt;
            return first && second ? plus(*first, *second) : first ? *first : *second;
        }
        case Kernel::Divide: {
            const Moved minused = db ? Moved(times(r, *db)) : std::nullopt;
            return over(da && minused ? less(*da, *minused) : da ? *da : minus(*minused), b);
        }
        case Kernel::Power: {
            const bool isExact = exponent && *exponent - (*exponent - 1) == 1;
            if (da && !db && isExact && *exponent == 1) return da;
            if (da && !db && isExact && *exponent == 2) return times(times(b, a), *da);
            if (da && !db && isExact) return times(times(b, edit_.apply(Kernel::Power, a, number(*exponent - 1))), *da);
            const Moved byBase = da && !db ? Moved(times(ofStillPower(a, b), *da))
                                 : da      ? Moved(times(r, over(times(b, *da), a)))
                                           : std::nullopt,
                        byExponent = db ? Moved(times(r, times(of(Kernel::Ln, a), *db))) : std::nullopt;
            return byBase && byExponent ? plus(*byBase, *byExponent) : byBase ? *byBase : *byExponent;
        }
        case Kernel::When: return da ? std::nullopt : Moved(edit_.apply(kernel, a, *db));
        default: return std::nullopt;
        }
    }

    /// a/bᵉ as a b⁻ᵉ: nothing of the powers has to cancel later.
    std::optional<Place> overPower(Place a, Moved da, const Power& below) {
        const Place exponent = below.number ? number(-*below.number) : minus(below.exponent),
                    power = edit_.apply(Kernel::Power, below.base, exponent);
        const Moved first = da ? Moved(times(*da, power)) : std::nullopt;
        if (!below.ofBase && !below.ofExponent) return first;
        const auto slope = ofTwo(Kernel::Power, below.base, exponent, below.ofBase,
                                 below.ofExponent ? Moved(minus(*below.ofExponent)) : std::nullopt, power,
                                 below.number ? std::optional(-*below.number) : std::nullopt);
        if (!slope) return std::nullopt;
        const Place second = times(a, *slope);
        return first ? plus(*first, second) : second;
    }

    /// The pieces of a step whose derivative is 0 wherever one of them is.
    Place still(Place condition) { return edit_.apply(Kernel::When, condition, number(0)); }
    Place orElse(Moved first, Moved second) {
        return edit_.apply(Kernel::OrElse, first ? *first : number(0), second ? *second : number(0));
    }

private:
    /// b a^(b − 1), which is 0 where b is, though a may be 0 there, too.
    Place ofStillPower(Place a, Place b) {
        const Place otherwise = times(b, edit_.apply(Kernel::Power, a, less(b, number(1))));
        return orElse(still(edit_.apply(Kernel::Equal, b, number(0))), otherwise);
    }
    Place number(double value) { return edit_.constant(value); }
    Place of(Kernel kernel, Place a) { return edit_.apply(kernel, a); }
    Place minus(Place a) { return edit_.apply(Kernel::Negate, a); }
    Place plus(Place a, Place b) { return edit_.apply(Kernel::Add, a, b); }
    Place less(Place a, Place b) { return edit_.apply(Kernel::Subtract, a, b); }
    Place times(Place a, Place b) { return edit_.apply(Kernel::Multiply, a, b); }
    Place over(Place a, Place b) { return edit_.apply(Kernel::Divide, a, b); }
    Place square(Place a) { return times(a, a); }
    /// 2/√π exp(−a²)
    Place bell(Place a) {
        const Place root = of(Kernel::Sqrt, of(Kernel::Arccos, number(-1)));
        return over(times(number(2), of(Kernel::Exp, minus(square(a)))), root);
    }

    ProgramEdit& edit_;
};

} // namespace

std::optional<Program> tangentOf(const Program& f, std::span<const std::size_t> moving) {
    if (!f.integrals.empty()) return std::nullopt;
    ProgramEdit edit(f.inputCount + moving.size());
    TangentRules rules(edit);
    std::vector<Place> places(f.registerCount());
    std::vector<Moved> speeds(places.size());
    std::vector<Moved> stills(places.size()); // of pieces: 0, where any of them is
    std::vector<std::optional<Power>> powers(places.size());
    for (std::size_t i = 0; i < f.inputCount; ++i) places[i] = edit.input(i);
    for (std::size_t i = 0; i < moving.size(); ++i) speeds[moving[i]] = edit.input(f.inputCount + i);
    for (std::size_t i = 0; i < f.constants.size(); ++i) places[f.inputCount + i] = edit.constant(f.constants[i]);
    for (const Program::Instruction& step : f.instructions) {
        std::vector<Place> operands;
        bool moves = false;
        for (const std::uint32_t operand : f.operandsOf(step)) {
            operands.push_back(places[operand]);
            moves = moves || speeds[operand];
        }
        const Place result = edit.copy(f, step, operands);
        const std::uint32_t first = step.operands[0], second = step.operands[step.operandCount > 1 ? 1 : 0];
        const bool isPlain = !step.special && step.table < 0 && step.field < 0;
        const bool isConstant = second >= f.inputCount && second < f.inputCount + f.constants.size();
        const auto exponent = isConstant ? std::optional(f.constants[second - f.inputCount]) : std::nullopt;
        Moved still, speed;
        std::optional<Power> power;
        if (isPlain && step.kernel == Kernel::Power)
            power = Power{operands[0], operands[1], speeds[first], speeds[second], exponent};
        if (isPlain && step.kernel == Kernel::When) still = rules.still(operands[0]);
        if (isPlain && step.kernel == Kernel::OrElse) {
            still = rules.orElse(stills[first], stills[second]);
            if (moves)
                speed = rules.orElse(speeds[first] ? speeds[first] : stills[first],
                                     speeds[second] ? speeds[second] : stills[second]);
        } else if (moves && !isPlain) {
            return std::nullopt;
        } else if (moves && step.operandCount == 1) {
            speed = rules.ofOne(step.kernel, operands[0], *speeds[first], result);
        } else if (moves && step.kernel == Kernel::Divide && powers[second]) {
            speed = rules.overPower(operands[0], speeds[first], *powers[second]);
        } else if (moves) {
            speed = rules.ofTwo(step.kernel, operands[0], operands[1], speeds[first], speeds[second], result, exponent);
        }
        if (moves && !speed) return std::nullopt;
        places[step.result] = result;
        speeds[step.result] = speed;
        stills[step.result] = still;
        powers[step.result] = power;
    }
    const Moved& speed = speeds[f.outputs[0]];
    return edit.finish(speed ? *speed : edit.constant(0));
}

} // namespace coulter
