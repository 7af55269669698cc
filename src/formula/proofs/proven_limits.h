#pragma once
#include "formula/proofs/proven_integral.h"

#include <optional>
#include <span>

namespace coulter {

/// Proven bounds of ∫ between limits of which either may be infinite, and at which the integrand may be.
///
/// Method: what lies beyond X, or within 1/X of a finite end, is bounded by the integrand's growth (see growth.h), and
/// the part up to there by `ProvenIntegral`, over parts of which each is twice as long as the one before; X is moved
/// out as long as that helps. Beside an end the growth sees that 1 − k vanishes at 1, but not that sin k does at π.
/// What swings and vanishes, as sin(x)/x, is bounded by its expansion in derivatives (see swing.h). None where neither
/// is known to be small enough.
/// @param between  of the same integrand
std::optional<Bounds> provenOver(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                 const Bounds& high, std::span<const Bounds> others, const BoundsEffort& effort = {});

} // namespace coulter
