#pragma once
#include "special/kernels.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <initializer_list>
#include <utility>

namespace coulter {

inline constexpr auto kernelCount = static_cast<std::size_t>(Kernel::Count);

/// How an operation behaves where it is defined.
enum class Shape : std::uint8_t {
    Unknown, ///< nothing is known: every analysis has to take it as anything
    Smooth,  ///< as often differentiable as is wanted
    Bent,    ///< continuous, with a corner where its piece changes
    Jumping, ///< smooth in pieces, with a jump where its piece changes
    Stepped, ///< constant in pieces, with a jump where its piece changes
    Truth,   ///< 1 where something holds, 0 elsewhere
    Chosen,  ///< one of its operands
};

/// What is a fact about an operation of programs, whatever is made of it: one row for each.
struct Operation {
    Shape shape = Shape::Unknown;
    std::uint8_t operands = 1;
    bool commutes = false;     ///< its operands may be exchanged, to the bit
    bool changesPiece = false; ///< it consists of pieces that meet along a line which can be looked for
    bool isBySign = false;     ///< which piece it is in follows from a sign: of its operand, or of their difference
};

/// The row of an operation; of none of them (`Kernel::Count`) that of one of which nothing is known.
const Operation& operationOf(Kernel kernel);

/// A rule for each operation, from the rows of those that have one and a list of those that have none. Does not compile
/// while an operation is in neither, or in both: what is forgotten is not taken for “none”.
template <class Rule, std::size_t Rows>
consteval std::array<Rule, kernelCount> totalTable(const std::pair<Kernel, Rule> (&rows)[Rows],
                                                   std::initializer_list<Kernel> without = {}) {
    std::array<Rule, kernelCount> table{};
    std::array<int, kernelCount> told{};
    for (const auto& [kernel, rule] : rows) {
        table[static_cast<std::size_t>(kernel)] = rule;
        ++told[static_cast<std::size_t>(kernel)];
    }
    for (const Kernel kernel : without) ++told[static_cast<std::size_t>(kernel)];
    for (const int times : told) {
        if (times != 1) throw times; // an operation without a rule, or with two: this does not compile
    }
    return table;
}

} // namespace coulter
