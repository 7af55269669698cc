#pragma once
#include "formula/page/page.h"

namespace coulter {

class ExactValue;

/// What an expression without variables is worth exactly, where it is made of fractions, square roots, π, whole powers,
/// factorials, sums and products of whole length, trigonometric functions of whole multiples of 15° and their
/// inverses, Γ of whole and half numbers, ζ of even ones, and integrals of polynomials: as "√3/2". By exact arithmetic
/// from what is spelled, so it is no guess from digits; 0.1 means a tenth. None where anything else is in it.
std::optional<ExactValue> exactForm(const Page& page, const ExprPtr& expression);

/// The same as text, where it says more than the decimal digits do: none for 0.5 and 120.
std::string exactText(const Page& page, const ExprPtr& expression);

} // namespace coulter
