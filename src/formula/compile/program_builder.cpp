#include "formula/compile/program_builder.h"

#include "formula/compile/known_integrals.h"
#include "special/operations.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>

namespace coulter {
namespace {

/// Highest whole exponent done by multiplication: up to here the error stays below two units in the last place.
constexpr double highestMultiplied = 4;

/// Most values of integrands spent on one integral of constants while compiling.
constexpr std::int64_t mostFoldedValues = 3'000'000;

double applyOnce(Kernel kernel, double a, double b) {
    alignas(64) double x[8], y[8], result[8];
    std::fill_n(x, 8, a);
    std::fill_n(y, 8, b);
    blockKernel(kernel, InstructionSet::Sse2)(x, y, result, 8);
    return result[0];
}

} // namespace

ProgramBuilder::ProgramBuilder(std::size_t inputCount)
    : inputCount_(inputCount), nodes_(inputCount, Node{NodeKind::Input, {}, {}}) {}

ProgramBuilder::Value ProgramBuilder::constant(double value) {
    const auto [at, isNew] =
        constants_.try_emplace(std::bit_cast<std::uint64_t>(value), static_cast<Value>(nodes_.size()));
    if (isNew) nodes_.push_back({NodeKind::Constant, {}, {}, value});
    return at->second;
}

std::optional<double> ProgramBuilder::constantOf(Value value) const {
    return isConstant(value) ? std::optional(nodes_[value].number) : std::nullopt;
}

ProgramBuilder::Value ProgramBuilder::add(Key key, Node node) {
    const auto [at, isNew] = operations_.try_emplace(std::move(key), static_cast<Value>(nodes_.size()));
    if (isNew) {
        for (const Value operand : node.operands) node.depends |= nodes_[operand].depends;
        nodes_.push_back(std::move(node));
    }
    return at->second;
}

ProgramBuilder::Value ProgramBuilder::folded(double value, std::span<const Value> operands) {
    const auto isFinite = [&](Value operand) { return std::isfinite(nodes_[operand].number); };
    const bool grewInfinite = std::isinf(value) && std::ranges::all_of(operands, isFinite);
    metInfinity = metInfinity || grewInfinite;
    return constant(grewInfinite && !keepsInfinities ? std::nan("") : value);
}

ProgramBuilder::Value ProgramBuilder::apply(Kernel kernel, Value a, Value b) {
    if (operandCount(kernel) == 1) b = a;
    if (folds && isConstant(a) && isConstant(b))
        return folded(applyOnce(kernel, nodes_[a].number, nodes_[b].number), std::array{a, b});
    if (operationOf(kernel).commutes && b < a) std::swap(a, b);
    Node node{NodeKind::Operation, {}, {a, b}};
    node.operation.kernel = kernel;
    node.operation.operandCount = static_cast<std::uint32_t>(operandCount(kernel));
    return add({kernel, nullptr, nullptr, {a, b}}, std::move(node));
}

ProgramBuilder::Value ProgramBuilder::apply(ScalarFunction special, std::span<const Value> operands) {
    if (folds && std::ranges::all_of(operands, [&](Value v) { return isConstant(v); })) {
        double v[4] = {};
        for (std::size_t i = 0; i < operands.size(); ++i) v[i] = nodes_[operands[i]].number;
        return folded(applied(special, v, operands.size()), operands);
    }
    Node node{NodeKind::Operation, {}, {operands.begin(), operands.end()}};
    node.operation.special = special;
    node.operation.operandCount = static_cast<std::uint32_t>(operands.size());
    Key key{Kernel::Count, special, nullptr, node.operands};
    return add(std::move(key), std::move(node));
}

ProgramBuilder::Value ProgramBuilder::interpolate(const std::shared_ptr<const Interpolation>& table, Value at) {
    if (folds && isConstant(at)) return constant((*table)(nodes_[at].number));
    Node node{NodeKind::Operation, {}, {at}};
    node.operation.operandCount = 1;
    node.operation.table = static_cast<std::int32_t>(std::ranges::find(tables_, table) - tables_.begin());
    if (static_cast<std::size_t>(node.operation.table) == tables_.size()) tables_.push_back(table);
    return add({Kernel::Count, nullptr, table.get(), {at}}, std::move(node));
}

ProgramBuilder::Value ProgramBuilder::measured(const std::shared_ptr<const MeasuredField>& field,
                                               std::span<const Value> place) {
    if (folds && std::ranges::all_of(place, [&](Value v) { return isConstant(v); })) {
        std::vector<double> at;
        for (const Value each : place) at.push_back(nodes_[each].number);
        return constant(field->at(at.data()));
    }
    Node node{NodeKind::Operation, {}, {place.begin(), place.end()}};
    node.operation.operandCount = static_cast<std::uint32_t>(place.size());
    node.operation.field = static_cast<std::int32_t>(std::ranges::find(fields_, field) - fields_.begin());
    if (static_cast<std::size_t>(node.operation.field) == fields_.size()) fields_.push_back(field);
    Key key{Kernel::Count, nullptr, field.get(), node.operands};
    return add(std::move(key), std::move(node));
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

ProgramBuilder::Value ProgramBuilder::bound(int nesting) {
    const auto [at, isNew] = bounds_.try_emplace(nesting, static_cast<Value>(nodes_.size()));
    if (isNew) {
        nodes_.push_back({NodeKind::Bound, {}, {}});
        nodes_.back().depends = 1U << nesting;
    }
    return at->second;
}

std::optional<double> ProgramBuilder::valueOfIntegral(const Program::Integral& given,
                                                      std::span<const Value> operands) const {
    if (!folds || !foldsIntegrals || !std::ranges::all_of(operands, [&](Value v) { return isConstant(v); }))
        return std::nullopt;
    std::vector<double> numbers;
    for (const Value operand : operands) numbers.push_back(nodes_[operand].number);
    return knownIntegral(given, numbers, [&]() -> std::optional<double> {
        Program::Integral integral = given;
        for (std::size_t i = 0; i < numbers.size(); ++i) integral.operands.push_back(static_cast<std::uint32_t>(i));
        const Program alone = integralAlone(integral);
        std::vector<const double*> inputs;
        for (const double& number : numbers) inputs.push_back(&number);
        Evaluator evaluator(alone);
        evaluator.limit({}, mostFoldedValues);
        double value = 0;
        double* const out = &value;
        evaluator(inputs, std::span<double* const>(&out, 1), 1);
        return evaluator.exhausted() ? std::nullopt : std::optional(value);
    });
}

ProgramBuilder::Value ProgramBuilder::integral(int nesting, Value low, Value high, Value integrand,
                                               Program::Over over) {
    const std::uint32_t own = 1U << nesting;
    // What the integrand takes from outside: operands that do not depend on the inner variable.
    std::vector<Value> taken;
    std::vector<bool> seen(nodes_.size(), false);
    std::vector<Value> open{integrand};
    while (!open.empty()) {
        const Value value = open.back();
        open.pop_back();
        if (seen[value]) continue;
        seen[value] = true;
        const Node& node = nodes_[value];
        if (node.kind == NodeKind::Constant || node.kind == NodeKind::Bound) {
            if (node.kind == NodeKind::Bound && !(node.depends & own)) taken.push_back(value);
        } else if (!(node.depends & own)) {
            taken.push_back(value);
        } else {
            open.insert(open.end(), node.operands.begin(), node.operands.end());
        }
    }
    std::ranges::sort(taken);
    std::vector<Value> inputs{bound(nesting)};
    inputs.insert(inputs.end(), taken.begin(), taken.end());
    auto& program = integrands_[{integrand, own, over}];
    if (!program) program = std::make_shared<const Program>(extract(std::span(&integrand, 1), inputs));
    Node node{NodeKind::Operation, {}, {low, high}};
    node.operands.insert(node.operands.end(), taken.begin(), taken.end());
    const Program::Integral alone{program, {}, over};
    if (const auto value = valueOfIntegral(alone, node.operands)) return constant(*value);
    node.operation.integral = static_cast<std::int32_t>(integrals_.size());
    Key key{Kernel::Count, nullptr, program.get(), node.operands};
    const std::size_t before = nodes_.size();
    const Value result = add(std::move(key), std::move(node));
    if (nodes_.size() > before) integrals_.push_back(alone);
    return result;
}

Program ProgramBuilder::finish(std::span<const Value> outputs) const {
    std::vector<Value> inputs(inputCount_);
    for (std::size_t i = 0; i < inputCount_; ++i) inputs[i] = static_cast<Value>(i);
    return extract(outputs, inputs);
}

Program ProgramBuilder::extract(std::span<const Value> outputs, std::span<const Value> inputs) const {
    // Only what the outputs need, in order; a register is free again after its last use.
    std::vector<Value> lastUse(nodes_.size(), 0);
    std::vector<bool> needed(nodes_.size(), false), given(nodes_.size(), false);
    Program program;
    program.inputCount = inputs.size();
    std::vector<std::uint32_t> place(nodes_.size(), 0);
    for (std::size_t i = 0; i < inputs.size(); ++i) {
        given[inputs[i]] = true;
        place[inputs[i]] = static_cast<std::uint32_t>(i);
    }
    const auto isComputed = [&](Value v) { return nodes_[v].kind == NodeKind::Operation && !given[v]; };
    for (const Value output : outputs) {
        needed[output] = true;
        lastUse[output] = static_cast<Value>(nodes_.size());
    }
    for (std::size_t i = nodes_.size(); i-- > 0;) {
        if (!needed[i] || !isComputed(static_cast<Value>(i))) continue;
        for (const Value operand : nodes_[i].operands) {
            needed[operand] = true;
            lastUse[operand] = std::max(lastUse[operand], static_cast<Value>(i));
        }
    }
    for (std::size_t i = 0; i < nodes_.size(); ++i) {
        if (nodes_[i].kind != NodeKind::Constant || !needed[i] || given[i]) continue;
        place[i] = static_cast<std::uint32_t>(inputs.size() + program.constants.size());
        program.constants.push_back(nodes_[i].number);
    }
    const auto firstTemporary = static_cast<std::uint32_t>(inputs.size() + program.constants.size());
    std::vector<std::uint32_t> freed;
    for (std::size_t i = 0; i < nodes_.size(); ++i) {
        const Node& node = nodes_[i];
        if (!isComputed(static_cast<Value>(i)) || !needed[i]) continue;
        for (std::size_t k = 0; k < node.operands.size(); ++k) {
            const Value operand = node.operands[k];
            const bool again = std::find(node.operands.begin(), node.operands.begin() + static_cast<std::ptrdiff_t>(k),
                                         operand) != node.operands.begin() + static_cast<std::ptrdiff_t>(k);
            if (isComputed(operand) && lastUse[operand] == i && !again) freed.push_back(place[operand]);
        }
        if (freed.empty()) {
            place[i] = firstTemporary + static_cast<std::uint32_t>(program.temporaryCount++);
        } else {
            place[i] = freed.back();
            freed.pop_back();
        }
        Program::Instruction instruction = node.operation;
        instruction.result = place[i];
        if (instruction.integral >= 0) {
            Program::Integral integral = integrals_[static_cast<std::size_t>(instruction.integral)];
            for (const Value operand : node.operands) integral.operands.push_back(place[operand]);
            instruction.integral = static_cast<std::int32_t>(program.integrals.size());
            program.integrals.push_back(std::move(integral));
        } else {
            for (std::size_t k = 0; k < node.operands.size(); ++k) instruction.operands[k] = place[node.operands[k]];
            if (instruction.table >= 0) {
                program.tables.push_back(tables_[static_cast<std::size_t>(instruction.table)]);
                instruction.table = static_cast<std::int32_t>(program.tables.size() - 1);
            }
            if (instruction.field >= 0) {
                program.fields.push_back(fields_[static_cast<std::size_t>(instruction.field)]);
                instruction.field = static_cast<std::int32_t>(program.fields.size() - 1);
            }
        }
        program.instructions.push_back(instruction);
    }
    for (const Value output : outputs) program.outputs.push_back(place[output]);
    return program;
}

} // namespace coulter
