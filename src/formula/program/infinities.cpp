#include "formula/program/infinities.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// One instruction over these values.
double resultOf(const Program& program, const Program::Instruction& instruction, std::span<const double> operands) {
    Program alone;
    alone.tables = program.tables;
    alone.fields = program.fields;
    alone.inputCount = operands.size();
    alone.temporaryCount = 1;
    alone.instructions = {instruction};
    for (std::uint32_t k = 0; k < operands.size(); ++k) alone.instructions[0].operands[k] = k;
    alone.instructions[0].result = static_cast<std::uint32_t>(operands.size());
    alone.outputs = {alone.instructions[0].result};
    std::vector<const double*> inputs;
    for (const double& each : operands) inputs.push_back(&each);
    double result = 0;
    double* const out = &result;
    Evaluator evaluator(alone);
    evaluator(inputs, std::span<double* const>(&out, 1), 1);
    return result;
}

} // namespace

std::vector<bool> wentThroughInfinity(const Program& program) {
    std::vector<bool> answers(program.outputs.size(), false);
    if (!program.integrals.empty() || program.inputCount > 0) return answers;
    std::vector<double> values(program.registerCount(), 0);
    std::vector<char> tainted(program.registerCount(), 0);
    std::ranges::copy(program.constants, values.begin());
    for (const Program::Instruction& instruction : program.instructions) {
        const auto operands = program.operandsOf(instruction);
        std::vector<double> of;
        bool any = false;
        for (const std::uint32_t operand : operands) {
            of.push_back(values[operand]);
            any = any || tainted[operand];
        }
        const double result = resultOf(program, instruction, of);
        // Of a choice only what is chosen counts.
        if (instruction.kernel == Kernel::When) any = !std::isnan(result) && tainted[operands[1]];
        if (instruction.kernel == Kernel::OrElse || instruction.kernel == Kernel::IfDefined)
            any = tainted[operands[std::isnan(of[0]) ? 1 : 0]];
        values[instruction.result] = result;
        tainted[instruction.result] = any || std::isinf(result);
    }
    for (std::size_t k = 0; k < answers.size(); ++k)
        answers[k] = tainted[program.outputs[k]] && std::isfinite(values[program.outputs[k]]);
    return answers;
}

} // namespace coulter
