#pragma once
#include "formula/page/page.h"

namespace coulter {

/// A symbolic derivative; without an expression there is one problem.
struct Derived {
    ExprPtr expression;
    Problems problems;
};

/// d^order e / d name^order, simplified, with all other names held fixed. Functions of the page appear as f' (with
/// several parameters as f^{(1,0)}), those of the catalogue by their derivatives from the DLMF; sums term by term,
/// products by the product rule, integrals by Leibniz' rule, pieces piece by piece (at a border the derivative is that
/// of the piece which holds there).
Derived derivative(const Page& page, const ExprPtr& e, const std::string& name, int order = 1);

/// The derivative of a function's body, so many times by each of its parameters.
Derived derivativeOfFunction(const Page& page, const Line& function, std::span<const int> orders);

/// A derivative (d/dx(…), f'(x)) as the formula that answers it.
Derived derivativeAsFormula(const Page& page, const ExprPtr& e);

/// A call with dashes (sin', J_0'', f^{(1,0)}) as a call without, for functions of the catalogue; others unchanged.
Derived withoutDashes(const Page& page, const ExprPtr& call);

} // namespace coulter
