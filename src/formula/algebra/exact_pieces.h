#pragma once
#include "formula/algebra/exact_function.h"
#include "formula/page/page.h"

#include <optional>
#include <vector>

namespace coulter {

/// A stretch of a function on which it is one formula: for begin < t < end.
struct ExactPiece {
    ExactValue begin, end;
    ExactFunction function;
};

/// The pieces of an expression between two places, in order and without gaps, by exact arithmetic from what is
/// spelled: polynomials, sines and exponentials, chosen by conditions whose sides are polynomials of the first degree,
/// |…| of such, functions of the page and their periods. None where anything else is in it, or where it is undefined
/// over a stretch.
std::optional<std::vector<ExactPiece>> exactPieces(const Page& page, const ExprPtr& expression,
                                                   const std::string& variable, const ExactValue& low,
                                                   const ExactValue& high);

} // namespace coulter
