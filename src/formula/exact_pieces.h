#pragma once
#include "formula/exact_value.h"
#include "formula/page.h"

#include <optional>
#include <vector>

namespace coulter {

/// A stretch of a function on which it is one polynomial: the sum of coefficients[j] t^j for begin < t < end.
struct ExactPiece {
    ExactValue begin, end;
    std::vector<ExactValue> coefficients;

    ExactValue value(const ExactValue& t) const;
};

/// The pieces of an expression between two places, in order and without gaps, by exact arithmetic from what is
/// spelled: polynomials chosen by conditions whose sides are of the first degree, |…|, functions of the page and their
/// periods. None where anything else is in it, or where it is undefined over a stretch.
std::optional<std::vector<ExactPiece>> exactPieces(const Page& page, const ExprPtr& expression,
                                                   const std::string& variable, const ExactValue& low,
                                                   const ExactValue& high);

} // namespace coulter
