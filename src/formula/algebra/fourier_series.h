#pragma once
#include "formula/notation/expr.h"
#include "formula/page/page.h"

#include <optional>

namespace coulter {

/// The Fourier coefficients of a function that consists of polynomials, sines and exponentials in each of its pieces,
/// as formulas: sums over the borders of pieces of how far the function and its derivatives jump there. Of a
/// polynomial, integrated by parts,
///
///   a_n = 2/P Σ_c (−D₀ sin(kc)/k − D₁ cos(kc)/k² + D₂ sin(kc)/k³ + …),
///   b_n = 2/P Σ_c (+D₀ cos(kc)/k − D₁ sin(kc)/k² − D₂ cos(kc)/k³ + …), with k = 2πn/P and D_j the jump of the j-th
///
/// derivative at c; of a wave cos(bt) or sin(bt) the same with the denominator k² − b², and of e^(rt) with k² + r².
/// Where the wave is one of the harmonics itself, its own order is a piece of its own. All numbers in them are exact.
struct FourierFormulas {
    ExprPtr mean;         ///< a_0/2
    ExprPtr cosine, sine; ///< a_n, b_n for n ≥ 1, in the order's name; the number 0 where all of them vanish
};

/// @param body    the function, in its variable
/// @param period  an expression without variables
/// @return none where the integrals have no such formula, or one too long to be read
std::optional<FourierFormulas> fourierFormulas(const Page& page, const ExprPtr& body, const std::string& variable,
                                               const ExprPtr& period, const std::string& order);

} // namespace coulter
