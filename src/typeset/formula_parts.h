#pragma once
#include "typeset/formula_math.h"

namespace coulter {

// Parts that formulas and the lines of a page are set of.

/// f(x): a name with its arguments in brackets.
MathPtr applicationMath(MathPtr name, MathPtr arguments);
/// The numbers of a list one by one, each with the comma behind it.
std::vector<MathPtr> listTerms(const Expr& list);

} // namespace coulter
