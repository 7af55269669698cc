#pragma once
#include "formula/proofs/proven_integral.h"

#include <optional>
#include <span>

namespace coulter {

/// Proven bounds of the sum of a program over all whole numbers from `low` on.
///
/// Method: terms that fall off geometrically or faster are added up in outward rounded arithmetic until their growth
/// bounds the rest (see growth.h); of others the first are added up, and the rest up to some 10¹³ is their integral
/// with the corrections of Euler and Maclaurin, whose remainder is bounded by Taylor coefficients (DLMF 2.10.1); beyond
/// that by their growth. What alternates is added up in pairs of their signs by Boole's formula (see swing.h). None
/// where terms do not fall off fast enough by themselves and swing in another way, as sin(n)/n does.
std::optional<Bounds> provenSum(const Program& term, double low, std::span<const Bounds> others,
                                const BoundsEffort& effort = {});

/// Of the product of 1 + a program over the same numbers: the first factors, and e to the sum of the logarithms of the
/// rest.
std::optional<Bounds> provenProduct(const Program& more, double low, std::span<const Bounds> others,
                                    const BoundsEffort& effort = {});

} // namespace coulter
