#include "formula/program/switches.h"

#include "special/operations.h"

#include <cmath>
#include <cstdint>

namespace coulter {
namespace {

bool isSwitch(const Program::Instruction& step) {
    return step.table >= 0 ||
           (step.special == nullptr && step.integral < 0 && step.field < 0 && operationOf(step.kernel).changesPiece);
}

/// Leaves out what no output depends on.
void leaveOutUnused(Program& program) {
    std::vector<bool> needed(program.registerCount(), false);
    for (const std::uint32_t output : program.outputs) needed[output] = true;
    std::vector<Program::Instruction> kept;
    for (auto step = program.instructions.rbegin(); step != program.instructions.rend(); ++step) {
        if (!needed[step->result]) continue;
        for (const std::uint32_t operand : program.operandsOf(*step)) needed[operand] = true;
        kept.push_back(*step);
    }
    program.instructions.assign(kept.rbegin(), kept.rend());
}

} // namespace

Switches switchesOf(const Program& f, bool withResults) {
    Switches found;
    Program& all = found.program;
    all.inputCount = f.inputCount;
    all.constants = f.constants;
    all.integrals = f.integrals;
    all.tables = f.tables;
    all.fields = f.fields;
    std::vector<std::uint32_t> now(f.registerCount());
    for (std::uint32_t i = 0; i < now.size(); ++i) now[i] = i;
    const std::size_t results = withResults ? f.outputs.size() : 0;
    all.outputs.resize(results);
    const auto firstTemporary = static_cast<std::uint32_t>(f.inputCount + f.constants.size());
    for (Program::Instruction step : f.instructions) {
        if (step.integral >= 0) {
            for (std::uint32_t& operand : all.integrals[static_cast<std::size_t>(step.integral)].operands)
                operand = now[operand];
        }
        for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = now[step.operands[k]];
        const std::size_t at = all.outputs.size();
        if (isSwitch(step)) {
            Switches::Each each{step.kernel, at, at + (step.operandCount > 1 ? 1 : 0)};
            if (step.table >= 0) each.table = f.tables[static_cast<std::size_t>(step.table)];
            const Shape shape = operationOf(step.kernel).shape;
            each.isJump = step.table < 0 && shape != Shape::Bent;
            found.each.push_back(std::move(each));
            for (std::uint32_t k = 0; k < step.operandCount; ++k) all.outputs.push_back(step.operands[k]);
        }
        for (std::uint32_t k = 0; step.field >= 0 && k < step.operandCount; ++k) {
            found.each.push_back({step.kernel, at + k, at + k, {}, f.fields[static_cast<std::size_t>(step.field)], k});
            all.outputs.push_back(step.operands[k]);
        }
        const auto fresh = firstTemporary + static_cast<std::uint32_t>(all.instructions.size());
        now[step.result] = fresh;
        step.result = fresh;
        all.instructions.push_back(step);
    }
    for (std::size_t k = 0; k < results; ++k) all.outputs[k] = now[f.outputs[k]];
    all.temporaryCount = all.instructions.size();
    leaveOutUnused(all);
    return found;
}

double pieceOf(const Switches::Each& each, double a, double b) {
    if (each.field) return each.field->pieceOf(each.variable, a);
    if (each.table) return static_cast<double>(each.table->stretchOf(a));
    switch (each.kernel) {
    case Kernel::Floor: return std::floor(a);
    case Kernel::Ceil: return std::ceil(a);
    case Kernel::Mod: return std::floor(a / b);
    case Kernel::Less:
    case Kernel::Min:
    case Kernel::Max: return a < b ? 1 : 0;
    case Kernel::LessEqual: return a <= b ? 1 : 0;
    default: return a < 0 ? 1 : 0;
    }
}

} // namespace coulter
