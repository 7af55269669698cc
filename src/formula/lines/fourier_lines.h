#pragma once
#include "formula/page/page.h"

#include <optional>
#include <string_view>

namespace coulter {

// Lines about Fourier's analysis. See the manual's page on it for the conventions.

/// What such a line is worth: columns, or a problem.
struct FourierAnswer {
    std::vector<Column> columns;   ///< one for each name
    std::vector<ExprPtr> formulas; ///< of both kinds of coefficients, as equations; empty where they have none
    double period = 0;             ///< that was taken
    Problems problems;             ///< and notes
};
/// (n, a, b) = Fourier coefficients of r(t); (n, p, q) = complex Fourier coefficients of r(t), for n from −N to N;
/// (N, h) = Fourier overshoot of r(t) at 2, of the sums up to each N as a part of the jump; w = spectral derivative of
/// u by t; (k, A) = spectrum of u by t.
FourierAnswer fourierLine(const Page& page, const Line& line);

/// The partial sum that S(t, N) = Fourier sum of r(t) means, as a formula with the integrals of its coefficients.
struct FourierSum {
    ExprPtr formula; ///< null if there is a problem
    Problems problems;
};
FourierSum fourierSum(const Page& page, const Line& line);

/// The series that text such as “Fourier series of r(t)” asks for, with the formulas of its coefficients; none if the
/// text does not ask for one.
std::optional<FourierSum> fourierSeriesText(const Page& page, std::string_view text);
/// The same as a line of the page, of a function of a place and of how many harmonics are added up; empty if there is
/// none.
std::string fourierSeriesLine(const Page& page, std::string_view text);

} // namespace coulter
