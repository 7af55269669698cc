#pragma once
#include <cstdint>
#include <functional>
#include <span>

namespace coulter {

/// Sums and products without an end, many at once. What each does depends on its own terms alone.
///
/// Terms that fall off geometrically or faster are added up. Of others the first are added up, and the rest is
/// - alternating: accelerated (`alternatingSum`);
/// - of one sign and smooth: made alternating by condensation, Σ aₙ = Σ (−1)^(k−1) Σ_j 2^j a(2^j k) (A. van
/// Wijngaarden; J. W. Daniel,
///   "Summation of series of positive terms by condensation transformations", 1969), which asks for terms far out;
/// - anything else: cut off smoothly at 64, 128, 256, … terms, and the totals extrapolated (`smoothCutoff`, `limitOf`).
/// Each is done from several first terms on, and they must agree. A series whose totals do not settle has no sum.
struct Series {
    /// values[i] = term of series which[i] at n[i]. Returns false when the computation is to be given up.
    using Terms = std::function<bool(std::span<const double> n, std::span<const std::uint32_t> which, double* values)>;

    bool product = false; ///< of 1 + term

    /// result[i] = the sum from n = low[i] on, within about errors[i]; NaN (and an error of inf) where a term is
    /// undefined, where there is no limit, or where no more than six digits can be vouched for.
    void operator()(const Terms& terms, std::span<const double> low, double* result, double* errors) const;
};

} // namespace coulter
