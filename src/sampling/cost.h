#pragma once
#include "formula/base/interval.h"
#include "formula/program/program.h"

#include <span>
#include <stop_token>

namespace coulter {

/// About how many operations of arithmetic (additions, say) one value of a program takes. Integrals are counted by what
/// they take at a few places within the intervals of its inputs, one value after the other, so that the answer is the
/// same on every machine.
/// @param most  what one value may take; beyond it the answer is infinite
double costOfValue(const Program& program, std::span<const Interval> intervals, double most,
                   const std::stop_token& stop = {});

} // namespace coulter
