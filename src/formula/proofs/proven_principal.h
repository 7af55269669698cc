#pragma once
#include "formula/proofs/proven_integral.h"

#include <optional>
#include <span>

namespace coulter {

/// Proven bounds of Cauchy's principal value of an integral over simple poles, between limits of which either may be
/// infinite.
///
/// Method: of the reciprocal r = 1/f, which is 0 at a pole c and nowhere else near it, r(c + t) = t s(t), the series of
/// q = 1/s is bounded, and f(c + t) = q(t)/t. From −l to h about the pole the principal value is then
/// q₀ ln(h/l) + Σ q_k (h^k − (−l)^k)/k, with the bounded coefficient of the highest order as its remainder. What lies
/// between the poles is left to `provenOver`: a pole that was overlooked has no bounds there, and so makes no proof.
/// @param between  of the same integrand, which has no integrals inside
std::optional<Bounds> provenPrincipal(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                      const Bounds& high, std::span<const Bounds> others,
                                      const BoundsEffort& effort = {});

} // namespace coulter
