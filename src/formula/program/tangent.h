#pragma once
#include "formula/program/program.h"

#include <optional>
#include <span>

namespace coulter {

/// The derivative of a program's first output while some of its inputs move, as a program: its inputs are those of f,
/// then the speed of each input that moves. Twice applied, with the speeds among what moves, it is the second one.
///
/// Method: forward automatic differentiation, one step after the other. Right wherever f is defined and smooth; none
/// where a step that moves may jump or bend (|·|, floor, conditions), is a special function without a rule here, a
/// table or an integral.
std::optional<Program> tangentOf(const Program& f, std::span<const std::size_t> moving);

} // namespace coulter
