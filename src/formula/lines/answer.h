#pragma once
#include "formula/page/matrix_value.h"
#include "formula/page/page.h"

#include <limits>
#include <string_view>

namespace coulter {

/// What an expression without variables is worth.
struct Answer {
    std::vector<double> values;   ///< one, or the components of a vector; NaN where undefined
    std::vector<double> errors;   ///< bound of the error of each value; inf where none is known
    std::vector<Column> columns;  ///< of an expression with columns: one, or one for each component; then no values
    bool throughInfinity = false; ///< an infinite value was made on the way to a finite one: there is no bound then
    bool unsettled = false;       ///< undefined because a series or an integral in it has no value that could be found
    bool isEstimated = false;     ///< the errors rest on estimates of integrals or series, and are no bounds
    bool isStandardError = false; ///< the errors are standard errors of a fit, and no bounds
    std::string exact;            ///< its exact form, if it was asked for by text and says more than its digits
    ExprPtr formula;              ///< of a derivative by a name that has no value: the formula
    std::shared_ptr<const Places> places;      ///< of a search, such as sin(x) = 0 for x in [1, 10]; then no values
    std::shared_ptr<const MatrixValue> matrix; ///< of an expression with matrices; then no values
    Sought sought = Sought::Zeros;
    Problems problems;

    /// The value, if it is a single number; else NaN.
    double value() const { return values.size() == 1 ? values[0] : std::numeric_limits<double>::quiet_NaN(); }
};
Answer answer(const Page& page, const ExprPtr& expression);
/// The same for text, in which the parameters of the page's functions may stand for themselves; a search as well.
Answer evaluate(const Page& page, std::string_view expression);

} // namespace coulter
