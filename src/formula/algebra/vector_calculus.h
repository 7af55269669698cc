#pragma once
#include "formula/page/page.h"

namespace coulter {

// Gradient, divergence and curl of functions of the page (ISO 80000-2): grad h(x, y), div v(x, y), rot v(x, y), by the
// function's parameters. In a tree they are calls whose operand is the call of the function.

/// What it is made of: derivatives by the function's parameters. Null and the problem where it is none: the function
/// has one parameter, or more than three; a field of vectors has another number of components.
struct ExpandedVectors {
    ExprPtr expression;
    Problem problem;
};
ExpandedVectors expandedVectors(const Page& page, const Expr& e);

/// A component of a vector, from 0, as such trees have it; null: the expression is no such thing. Nobody spells this.
struct ComponentOf {
    ExprPtr vector;
    std::size_t index = 0;
};
std::optional<ComponentOf> componentOf(const Expr& e);

} // namespace coulter
