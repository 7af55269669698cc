#pragma once
#include "formula/proven_integral.h"

#include <optional>
#include <span>

namespace coulter {

/// Proven bounds of ∫ from `low` on without an end, upwards or (of a low that is the upper limit) downwards.
///
/// Method: what lies beyond X is bounded by the integrand's growth (see growth.h), and the part up to there by
/// `ProvenIntegral`, over parts of which each is twice as long as the one before; X is moved out as long as that helps.
/// None where the growth is not known to be small enough, as of sin(x)/x.
std::optional<Bounds> provenToInfinity(const Program& integrand, ProvenIntegral& between, double low, bool upwards,
                                       std::span<const Bounds> others);

/// Proven bounds of ∫ between two finite limits at which the integrand may be infinite, as k^(−0.9) and ln k at 0: what
/// lies nearest to an end is bounded by the growth beside it, which sees that 1 − k vanishes at 1, but not that sin k
/// does at π.
std::optional<Bounds> provenBetween(const Program& integrand, ProvenIntegral& between, double low, double high,
                                    std::span<const Bounds> others);

/// Proven bounds of the sum of a program over all whole numbers from `low` on.
///
/// Method: terms that fall off geometrically or faster are added up in outward rounded arithmetic until their growth
/// bounds the rest; of others the first are added up, and the rest up to some 10¹³ is their integral with the
/// corrections of Euler and Maclaurin, whose remainder is bounded by Taylor coefficients (DLMF 2.10.1); beyond that by
/// their growth. None where terms do not fall off fast enough by themselves, as of (−1)ⁿ/n.
std::optional<Bounds> provenSum(const Program& term, double low, std::span<const Bounds> others);

} // namespace coulter
