#pragma once
#include "formula/program.h"

#include <map>
#include <optional>
#include <tuple>

namespace coulter {

/// Collects operations and turns them into a `Program`. Equal operations on equal operands are one; operations on
/// constants are done at once, with the same kernels that would run them later, so folding never changes a bit.
class ProgramBuilder {
public:
    using Value = std::uint32_t;

    explicit ProgramBuilder(std::size_t inputCount);

    Value input(std::size_t index) const { return static_cast<Value>(index); }
    Value constant(double value);
    Value apply(Kernel kernel, Value a, Value b = 0);
    /// a to a whole power, by multiplication as far as that is at least as accurate as the general power.
    Value power(Value base, Value exponent);

    /// The number a value stands for, if it is a constant.
    std::optional<double> constantOf(Value value) const;

    std::size_t size() const { return nodes_.size(); }
    Program finish(std::span<const Value> outputs) const;

private:
    enum class NodeKind : std::uint8_t { Input, Constant, Operation };
    struct Node {
        NodeKind kind;
        Kernel kernel{};
        Value a = 0, b = 0;
        double number = 0;
    };
    bool isConstant(Value value) const { return nodes_[value].kind == NodeKind::Constant; }

    std::size_t inputCount_;
    std::vector<Node> nodes_;
    std::map<std::uint64_t, Value> constants_; ///< by bits
    std::map<std::tuple<Kernel, Value, Value>, Value> operations_;
};

} // namespace coulter
