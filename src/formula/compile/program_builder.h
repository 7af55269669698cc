#pragma once
#include "formula/program/program.h"

#include <map>
#include <optional>
#include <tuple>

namespace coulter {

/// Collects operations and turns them into a `Program`. Equal operations on equal operands are one; operations on
/// constants are done at once, with the same kernels that would run them later, so folding never changes a bit.
class ProgramBuilder {
public:
    using Value = std::uint32_t;

    /// Deepest nesting of integrals.
    static constexpr int deepestIntegrals = 4;

    explicit ProgramBuilder(std::size_t inputCount);

    Value input(std::size_t index) const { return static_cast<Value>(index); }
    Value constant(double value);
    Value apply(Kernel kernel, Value a, Value b = 0);
    Value apply(ScalarFunction special, std::span<const Value> operands);
    /// a to a whole power, by multiplication as far as that is at least as accurate as the general power.
    Value power(Value base, Value exponent);

    Value interpolate(const std::shared_ptr<const Interpolation>& table, Value at);
    Value measured(const std::shared_ptr<const MeasuredField>& field, std::span<const Value> place);

    /// The inner variable of an integral that stands under `nesting` others.
    Value bound(int nesting);
    /// The integral of `integrand` over the inner variable of this nesting. What the integrand does not need that
    /// variable for is computed once, outside. Or a sum or product over the whole numbers from `low` on, without an
    /// end.
    Value integral(int nesting, Value low, Value high, Value integrand, Program::Over over = Program::Over::Interval);

    /// Whether operations on constants are done at once.
    bool folds = true;
    /// Whether integrals of constants are. Off where a formula is only looked at.
    bool foldsIntegrals = true;

    /// Whether what constants make infinite, as 1/0 is, stays so. Where it does not, it is undefined: then nothing that
    /// was computed through it looks like a value.
    bool keepsInfinities = true;
    /// Whether constants made anything infinite, or what is told to have been computed so.
    bool metInfinity = false;

    /// The number a value stands for, if it is a constant.
    std::optional<double> constantOf(Value value) const;

    std::size_t size() const { return nodes_.size(); }
    Program finish(std::span<const Value> outputs) const;

private:
    enum class NodeKind : std::uint8_t { Input, Constant, Bound, Operation };
    struct Node {
        NodeKind kind;
        Program::Instruction operation{}; ///< kernel, special function or number of the integral
        std::vector<Value> operands;
        double number = 0;
        std::uint32_t depends = 0; ///< on which inner variables, one bit for each nesting
    };
    using Key = std::tuple<Kernel, ScalarFunction, const void*, std::vector<Value>>;

    bool isConstant(Value value) const { return nodes_[value].kind == NodeKind::Constant; }
    /// What an operation on constants comes to.
    Value folded(double value, std::span<const Value> operands);
    Value add(Key key, Node node);
    /// A program of `outputs` whose inputs are `inputs`, in this order.
    Program extract(std::span<const Value> outputs, std::span<const Value> inputs) const;
    std::optional<double> valueOfIntegral(const Program::Integral& integral, std::span<const Value> operands) const;

    std::size_t inputCount_;
    std::vector<Node> nodes_;
    std::map<std::uint64_t, Value> constants_; ///< by bits
    std::map<Key, Value> operations_;
    std::map<int, Value> bounds_;
    std::map<std::tuple<Value, std::uint32_t, Program::Over>, std::shared_ptr<const Program>> integrands_;
    std::vector<Program::Integral> integrals_; ///< without operands
    std::vector<std::shared_ptr<const Interpolation>> tables_;
    std::vector<std::shared_ptr<const MeasuredField>> fields_;
};

} // namespace coulter
