#pragma once
#include "formula/page.h"

namespace coulter {

// Lines about Fourier's analysis. See the manual's page on it for the conventions.

/// What such a line is worth: columns, or a problem.
struct FourierAnswer {
    std::vector<Column> columns; ///< one for each name
    double period = 0;           ///< that was taken
    Problems problems;           ///< and notes
};
/// (n, a, b) = Fourier coefficients of r(t); w = spectral derivative of u by t; (k, A) = spectrum of u by t.
FourierAnswer fourierLine(const Page& page, const Line& line);

/// The partial sum that S(t, N) = Fourier sum of r(t) means, as a formula with the integrals of its coefficients.
struct FourierSum {
    ExprPtr formula; ///< null if there is a problem
    Problems problems;
};
FourierSum fourierSum(const Page& page, const Line& line);

} // namespace coulter
