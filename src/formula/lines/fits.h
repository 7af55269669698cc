#pragma once
#include "formula/page/page.h"

namespace coulter {

/// What least squares make of a fit.
struct Fitted {
    std::vector<double> values; ///< by coefficient; empty exactly if there is a problem
    std::vector<double> errors; ///< standard error of each; inf where the rows leave none to spare
    std::size_t rows = 0;       ///< that count: in which everything is defined
    Problems problems;
};

/// Finds the coefficients for which the two sides of (a, b) fits s = a + b t differ least, in the sum of squares over
/// the rows in which both are defined. The equation is linear in its coefficients, and may be anything in its columns.
///
/// Method: Householder QR with column pivoting; standard errors from the residual variance over n − p degrees of
/// freedom and the inverse of RᵀR (G. A. F. Seber and A. J. Lee, "Linear Regression Analysis", 2nd ed. 2003, sections
/// 3.2 and 3.3).
Fitted fitLine(const Page& page, const Line& line);

} // namespace coulter
