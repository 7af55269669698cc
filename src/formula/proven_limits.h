#pragma once
#include "formula/proven_integral.h"

#include <optional>
#include <span>

namespace coulter {

/// Proven bounds of ∫ between limits of which either may be infinite, and at which the integrand may be.
///
/// Method: what lies beyond X, or within 1/X of a finite end, is bounded by the integrand's growth (see growth.h), and
/// the part up to there by `ProvenIntegral`, over parts of which each is twice as long as the one before; X is moved
/// out as long as that helps. Beside an end the growth sees that 1 − k vanishes at 1, but not that sin k does at π.
/// None where the growth is not known to be small enough, as of sin(x)/x.
/// @param between  of the same integrand
std::optional<Bounds> provenOver(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                 const Bounds& high, std::span<const Bounds> others);

/// Proven bounds of the sum of a program over all whole numbers from `low` on.
///
/// Method: terms that fall off geometrically or faster are added up in outward rounded arithmetic until their growth
/// bounds the rest; of others the first are added up, and the rest up to some 10¹³ is their integral with the
/// corrections of Euler and Maclaurin, whose remainder is bounded by Taylor coefficients (DLMF 2.10.1); beyond that by
/// their growth. None where terms do not fall off fast enough by themselves, as of (−1)ⁿ/n.
std::optional<Bounds> provenSum(const Program& term, double low, std::span<const Bounds> others);

} // namespace coulter
