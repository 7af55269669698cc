#include "formula/program/program_edit.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

/// Where constants and temporaries stand until it is known how many there are.
constexpr ProgramEdit::Place firstConstant = 1U << 30, firstTemporary = 1U << 31;

} // namespace

ProgramEdit::Place ProgramEdit::constant(double value) {
    made_.constants.push_back(value);
    return firstConstant + static_cast<Place>(made_.constants.size() - 1);
}

ProgramEdit::Place ProgramEdit::apply(Kernel kernel, Place a, Place b) {
    Program::Instruction step;
    step.kernel = kernel;
    step.operandCount = static_cast<std::uint32_t>(operandCount(kernel));
    step.operands[0] = a;
    step.operands[1] = step.operandCount > 1 ? b : a;
    step.result = firstTemporary + static_cast<Place>(made_.temporaryCount++);
    made_.instructions.push_back(step);
    return step.result;
}

ProgramEdit::Place ProgramEdit::copy(const Program& of, const Program::Instruction& step,
                                     std::span<const Place> operands) {
    Program::Instruction copied = step;
    for (std::size_t k = 0; k < step.operandCount; ++k) copied.operands[k] = operands[k];
    for (std::size_t k = step.operandCount; k < copied.operands.size(); ++k) copied.operands[k] = operands[0];
    if (step.table >= 0) {
        copied.table = static_cast<std::int32_t>(made_.tables.size());
        made_.tables.push_back(of.tables[static_cast<std::size_t>(step.table)]);
    }
    if (step.field >= 0) {
        copied.field = static_cast<std::int32_t>(made_.fields.size());
        made_.fields.push_back(of.fields[static_cast<std::size_t>(step.field)]);
    }
    copied.result = firstTemporary + static_cast<Place>(made_.temporaryCount++);
    made_.instructions.push_back(copied);
    return copied.result;
}

ProgramEdit::Place ProgramEdit::copy(const Program& of, std::span<const Place> inputs, std::ptrdiff_t without,
                                     Place instead) {
    std::vector<Place> places(of.registerCount());
    for (std::size_t i = 0; i < of.inputCount; ++i) places[i] = inputs[i];
    for (std::size_t i = 0; i < of.constants.size(); ++i) places[of.inputCount + i] = constant(of.constants[i]);
    for (std::size_t i = 0; i < of.instructions.size(); ++i) {
        const Program::Instruction& step = of.instructions[i];
        std::vector<Place> operands;
        for (std::size_t k = 0; k < step.operandCount; ++k) operands.push_back(places[step.operands[k]]);
        places[step.result] = static_cast<std::ptrdiff_t>(i) == without ? instead : copy(of, step, operands);
    }
    return places[of.outputs[0]];
}

Program ProgramEdit::finish(Place output) {
    const auto inputs = static_cast<Place>(made_.inputCount), constants = static_cast<Place>(made_.constants.size());
    const auto settled = [&](Place place) {
        if (place >= firstTemporary) return place - firstTemporary + inputs + constants;
        return place >= firstConstant ? place - firstConstant + inputs : place;
    };
    for (Program::Instruction& step : made_.instructions) {
        for (std::uint32_t& operand : step.operands) operand = settled(operand);
        step.result = settled(step.result);
    }
    made_.outputs = {settled(output)};
    // What the output does not need is left out; there is one step to each register.
    std::vector<char> needed(made_.registerCount());
    needed[made_.outputs[0]] = 1;
    for (auto step = made_.instructions.rbegin(); step != made_.instructions.rend(); ++step) {
        if (!needed[step->result]) continue;
        for (const std::uint32_t operand : made_.operandsOf(*step)) needed[operand] = 1;
    }
    std::erase_if(made_.instructions, [&](const Program::Instruction& step) { return !needed[step.result]; });
    return std::move(made_);
}

namespace {

std::vector<ProgramEdit::Place> inputsOf(const Program& f) {
    std::vector<ProgramEdit::Place> inputs;
    for (std::size_t i = 0; i < f.inputCount; ++i) inputs.push_back(static_cast<ProgramEdit::Place>(i));
    return inputs;
}

} // namespace

Program reflected(const Program& f) {
    ProgramEdit edit(f.inputCount);
    auto inputs = inputsOf(f);
    inputs[0] = edit.apply(Kernel::Negate, inputs[0]);
    return edit.finish(edit.copy(f, inputs));
}

namespace {

/// What a register is, as a quotient; without a denominator where it is none.
struct Quotient {
    ProgramEdit::Place over;
    std::optional<ProgramEdit::Place> under = std::nullopt;
};

/// Writes operations on quotients.
class QuotientRules {
public:
    using Place = ProgramEdit::Place;
    explicit QuotientRules(ProgramEdit& edit) : edit_(edit) {}

    Place product(Place a, const std::optional<Place>& b) { return b ? edit_.apply(Kernel::Multiply, a, *b) : a; }
    Place plain(const Quotient& q) { return q.under ? edit_.apply(Kernel::Divide, q.over, *q.under) : q.over; }
    std::optional<Place> product(const std::optional<Place>& a, const std::optional<Place>& b) {
        return a ? product(*a, b) : b;
    }

    Quotient sum(Kernel kernel, const Quotient& a, const Quotient& b) {
        return {edit_.apply(kernel, product(a.over, b.under), product(b.over, a.under)), product(a.under, b.under)};
    }
    Quotient product(const Quotient& a, const Quotient& b) {
        return {product(a.over, b.over), product(a.under, b.under)};
    }
    Quotient quotient(const Quotient& a, const Quotient& b) {
        return {product(a.over, b.under), product(a.under, b.over)};
    }
    Quotient power(const Quotient& a, double n) {
        const auto raised = [&](Place base) {
            return std::abs(n) == 1 ? base : edit_.apply(Kernel::Power, base, edit_.constant(std::abs(n)));
        };
        const Place over = raised(a.over);
        const auto under = a.under ? std::optional(raised(*a.under)) : std::nullopt;
        if (n > 0) return {over, under};
        return {under ? *under : edit_.constant(1), over};
    }
    /// tan, cot, sec or csc.
    Quotient ofAngle(Kernel kernel, Place angle) {
        const auto over = [&](Kernel above, Kernel below) {
            return Quotient{edit_.apply(above, angle), edit_.apply(below, angle)};
        };
        if (kernel == Kernel::Tan) return over(Kernel::Sin, Kernel::Cos);
        if (kernel == Kernel::Cot) return over(Kernel::Cos, Kernel::Sin);
        if (kernel == Kernel::Sec) return {edit_.constant(1), edit_.apply(Kernel::Cos, angle)};
        return {edit_.constant(1), edit_.apply(Kernel::Sin, angle)};
    }

private:
    ProgramEdit& edit_;
};

} // namespace

Program reciprocalOf(const Program& f) {
    ProgramEdit edit(f.inputCount);
    QuotientRules rules(edit);
    std::vector<Quotient> places(f.registerCount());
    const auto inputs = inputsOf(f);
    for (std::size_t i = 0; i < inputs.size(); ++i) places[i] = {inputs[i]};
    for (std::size_t i = 0; i < f.constants.size(); ++i) places[f.inputCount + i] = {edit.constant(f.constants[i])};
    const auto constantAt = [&](std::uint32_t index) -> std::optional<double> {
        if (index < f.inputCount || index >= f.inputCount + f.constants.size()) return std::nullopt;
        return f.constants[index - f.inputCount];
    };
    const auto ofStep = [&](const Program::Instruction& step) -> std::optional<Quotient> {
        if (step.special || step.table >= 0 || step.field >= 0) return std::nullopt;
        const Quotient &a = places[step.operands[0]], &b = places[step.operands[1]];
        switch (step.kernel) {
        case Kernel::Add:
        case Kernel::Subtract: return rules.sum(step.kernel, a, b);
        case Kernel::Multiply: return rules.product(a, b);
        case Kernel::Divide: return rules.quotient(a, b);
        case Kernel::Negate: return Quotient{edit.apply(Kernel::Negate, a.over), a.under};
        case Kernel::Power: {
            const auto n = constantAt(step.operands[1]);
            return n && *n != 0 && *n == std::floor(*n) ? std::optional(rules.power(a, *n)) : std::nullopt;
        }
        case Kernel::Tan:
        case Kernel::Cot:
        case Kernel::Sec:
        case Kernel::Csc: return rules.ofAngle(step.kernel, rules.plain(a));
        default: return std::nullopt;
        }
    };
    for (const Program::Instruction& step : f.instructions) {
        std::optional<Quotient> found = ofStep(step);
        if (!found) {
            std::vector<ProgramEdit::Place> operands;
            for (const std::uint32_t operand : f.operandsOf(step)) operands.push_back(rules.plain(places[operand]));
            found = Quotient{edit.copy(f, step, operands)};
        }
        places[step.result] = *found;
    }
    const Quotient& all = places[f.outputs[0]];
    return edit.finish(rules.plain({all.under ? *all.under : edit.constant(1), all.over}));
}

namespace {

/// ln(1 + a) = 2 artanh(a/(2 + a))
ProgramEdit::Place logarithmOfOneAnd(ProgramEdit& edit, ProgramEdit::Place a) {
    const auto two = edit.constant(2);
    const auto part = edit.apply(Kernel::Divide, a, edit.apply(Kernel::Add, two, a));
    return edit.apply(Kernel::Multiply, two, edit.apply(Kernel::Artanh, part));
}

} // namespace

Program logarithmOfOneAnd(const Program& f) {
    ProgramEdit edit(f.inputCount);
    return edit.finish(logarithmOfOneAnd(edit, edit.copy(f, inputsOf(f))));
}

Program withExactLogarithms(const Program& f) {
    ProgramEdit edit(f.inputCount);
    const auto inputs = inputsOf(f);
    std::vector<ProgramEdit::Place> places(f.registerCount());
    std::vector<std::optional<ProgramEdit::Place>> beyondOne(places.size()); // what a register is more than 1
    std::ranges::copy(inputs, places.begin());
    for (std::size_t i = 0; i < f.constants.size(); ++i) places[f.inputCount + i] = edit.constant(f.constants[i]);
    const auto isOne = [&](std::uint32_t index) {
        return index >= f.inputCount && index < f.inputCount + f.constants.size() &&
               f.constants[index - f.inputCount] == 1;
    };
    for (const Program::Instruction& step : f.instructions) {
        const std::uint32_t first = step.operands[0], second = step.operands[1];
        const bool isPlain = !step.special && step.table < 0 && step.field < 0;
        std::optional<ProgramEdit::Place> more;
        if (isPlain && step.kernel == Kernel::Add && isOne(first)) more = places[second];
        if (isPlain && step.kernel == Kernel::Add && isOne(second)) more = places[first];
        if (isPlain && step.kernel == Kernel::Subtract && isOne(first))
            more = edit.apply(Kernel::Negate, places[second]);
        std::vector<ProgramEdit::Place> operands;
        for (const std::uint32_t operand : f.operandsOf(step)) operands.push_back(places[operand]);
        places[step.result] = isPlain && step.kernel == Kernel::Ln && beyondOne[first]
                                  ? logarithmOfOneAnd(edit, *beyondOne[first])
                                  : edit.copy(f, step, operands);
        beyondOne[step.result] = more;
    }
    return edit.finish(places[f.outputs[0]]);
}

} // namespace coulter
