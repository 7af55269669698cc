#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/program/program.h"

#include <vector>

namespace coulter {

/// ∫ f(x) dx over positive x as ∫ F(u) du with u = x^power.
struct Substitution {
    Program program; ///< F, by u, the further inputs of f, and 1/power
    double power = 1;
    Bounds inverse; ///< of 1/power
};

/// One for each power of the variable besides itself that stands in a sine or a cosine, as x² does in sin(x² + 1): what
/// swings ever faster swings evenly by it. For a program without integrals.
std::vector<Substitution> substitutionsOf(const Program& f);

} // namespace coulter
