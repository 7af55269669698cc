#include "formula/program_builder.h"

#include <bit>
#include <cmath>

namespace coulter {
namespace {

/// Highest whole exponent done by multiplication: up to here the error stays below two units in the last place.
constexpr double highestMultiplied = 4;

double applyOnce(Kernel kernel, double a, double b) {
    alignas(64) double x[8], y[8], result[8];
    std::fill_n(x, 8, a);
    std::fill_n(y, 8, b);
    blockKernel(kernel, InstructionSet::Sse2)(x, y, result, 8);
    return result[0];
}

bool commutes(Kernel kernel) { return kernel == Kernel::Add || kernel == Kernel::Multiply; }

} // namespace

ProgramBuilder::ProgramBuilder(std::size_t inputCount)
    : inputCount_(inputCount), nodes_(inputCount, Node{NodeKind::Input}) {}

ProgramBuilder::Value ProgramBuilder::constant(double value) {
    const auto [at, isNew] =
        constants_.try_emplace(std::bit_cast<std::uint64_t>(value), static_cast<Value>(nodes_.size()));
    if (isNew) nodes_.push_back({NodeKind::Constant, {}, 0, 0, value});
    return at->second;
}

std::optional<double> ProgramBuilder::constantOf(Value value) const {
    return isConstant(value) ? std::optional(nodes_[value].number) : std::nullopt;
}

ProgramBuilder::Value ProgramBuilder::apply(Kernel kernel, Value a, Value b) {
    if (operandCount(kernel) == 1) b = a;
    if (isConstant(a) && isConstant(b)) return constant(applyOnce(kernel, nodes_[a].number, nodes_[b].number));
    if (commutes(kernel) && b < a) std::swap(a, b);
    const auto [at, isNew] = operations_.try_emplace({kernel, a, b}, static_cast<Value>(nodes_.size()));
    if (isNew) nodes_.push_back({NodeKind::Operation, kernel, a, b, 0});
    return at->second;
}

ProgramBuilder::Value ProgramBuilder::power(Value base, Value exponent) {
    if (isConstant(exponent) && !isConstant(base)) {
        const double n = nodes_[exponent].number;
        if (n == 1) return base;
        if (n == 0.5) return apply(Kernel::Sqrt, base);
        if (n == std::floor(n) && std::abs(n) >= 1 && std::abs(n) <= highestMultiplied) {
            const int whole = static_cast<int>(std::abs(n));
            const Value square = whole > 1 ? apply(Kernel::Multiply, base, base) : base;
            const Value result = whole == 1   ? base
                                 : whole == 2 ? square
                                 : whole == 3 ? apply(Kernel::Multiply, square, base)
                                              : apply(Kernel::Multiply, square, square);
            return n > 0 ? result : apply(Kernel::Divide, constant(1), result);
        }
    }
    return apply(Kernel::Power, base, exponent);
}

Program ProgramBuilder::finish(std::span<const Value> outputs) const {
    // Only what the outputs need, in order; a register is free again after its last use.
    std::vector<Value> lastUse(nodes_.size(), 0);
    std::vector<bool> needed(nodes_.size(), false);
    for (const Value output : outputs) {
        needed[output] = true;
        lastUse[output] = static_cast<Value>(nodes_.size());
    }
    for (std::size_t i = nodes_.size(); i-- > 0;) {
        if (!needed[i] || nodes_[i].kind != NodeKind::Operation) continue;
        for (const Value operand : {nodes_[i].a, nodes_[i].b}) {
            needed[operand] = true;
            lastUse[operand] = std::max(lastUse[operand], static_cast<Value>(i));
        }
    }
    Program program;
    program.inputCount = inputCount_;
    std::vector<std::uint32_t> place(nodes_.size(), 0);
    for (std::size_t i = 0; i < nodes_.size(); ++i) {
        if (nodes_[i].kind == NodeKind::Input) place[i] = static_cast<std::uint32_t>(i);
        if (nodes_[i].kind == NodeKind::Constant && needed[i]) {
            place[i] = static_cast<std::uint32_t>(inputCount_ + program.constants.size());
            program.constants.push_back(nodes_[i].number);
        }
    }
    const auto firstTemporary = static_cast<std::uint32_t>(inputCount_ + program.constants.size());
    std::vector<std::uint32_t> freed;
    for (std::size_t i = 0; i < nodes_.size(); ++i) {
        const Node& node = nodes_[i];
        if (node.kind != NodeKind::Operation || !needed[i]) continue;
        for (const Value operand : {node.a, node.b}) {
            if (nodes_[operand].kind == NodeKind::Operation && lastUse[operand] == i) {
                freed.push_back(place[operand]);
                if (node.a == node.b) break;
            }
        }
        if (freed.empty()) {
            place[i] = firstTemporary + static_cast<std::uint32_t>(program.temporaryCount++);
        } else {
            place[i] = freed.back();
            freed.pop_back();
        }
        program.instructions.push_back({node.kernel, place[i], place[node.a], place[node.b]});
    }
    for (const Value output : outputs) program.outputs.push_back(place[output]);
    return program;
}

} // namespace coulter
