#pragma once
#include <cstdint>
#include <functional>
#include <span>
#include <vector>

namespace coulter {

/// Definite integrals, many at once, so that their integrands are evaluated together in long runs.
///
/// Each integral is divided until the estimated errors of its pieces add up to 1e−13 of the integral of the integrand's
/// magnitude, or until dividing no longer helps. What each integral does depends on its own integrand alone.
/// Method: Gauss–Kronrod rule of 7 and 15 points with the error estimate of R. Piessens et al., "QUADPACK" (1983);
/// infinite ranges are mapped by k = a ± t/(1 − t); where that leaves few digits, see
/// `oscillatingTail` and `gradedIntegral`.
struct Quadrature {
    /// values[i] = integrand of integral which[i] at k[i]. Returns false when the computation is to be given up.
    using Integrand =
        std::function<bool(std::span<const double> k, std::span<const std::uint32_t> which, double* values)>;

    int mostPieces = 600; ///< of one integral

    /// result[i] = ∫ from low[i] to high[i], within about errors[i]; NaN (and an error of inf) where the integrand is
    /// undefined inside, or where no more than six digits can be vouched for.
    void operator()(const Integrand& integrand, std::span<const double> low, std::span<const double> high,
                    double* result, double* errors) const;
};

} // namespace coulter
