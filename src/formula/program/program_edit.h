#pragma once
#include "formula/program/program.h"

#include <span>
#include <vector>

namespace coulter {

/// Makes a program out of the steps of others. Nothing is folded, so that what is bounded of it is bounded of exactly
/// these steps.
class ProgramEdit {
public:
    /// What stands for a register until all is there.
    using Place = std::uint32_t;

    explicit ProgramEdit(std::size_t inputCount) { made_.inputCount = inputCount; }

    Place input(std::size_t index) const { return static_cast<Place>(index); }
    Place constant(double value);
    Place apply(Kernel kernel, Place a, Place b = 0);
    /// A step of another program, without integrals, on these operands.
    Place copy(const Program& of, const Program::Instruction& step, std::span<const Place> operands);
    /// All of a program without integrals, on these inputs: its first output.
    /// @param without  a step that is left out, in place of which `instead` stands; −1: none
    Place copy(const Program& of, std::span<const Place> inputs, std::ptrdiff_t without = -1, Place instead = 0);

    /// What this output needs.
    Program finish(Place output);

private:
    Program made_;
};

/// The program with its first input turned round.
Program reflected(const Program& f);

/// 1/f, made of one numerator and one denominator as far as sums, products, quotients, whole powers and the quotients
/// of sine and cosine go: where f has a pole, it is 0 and defined all around. For a program without integrals.
Program reciprocalOf(const Program& f);

/// ln(1 + f), exact to rounding however small f is.
Program logarithmOfOneAnd(const Program& f);

/// The program with each ln(1 + u) and ln(1 − u) in it as exact, for a program without integrals.
Program withExactLogarithms(const Program& f);

} // namespace coulter
