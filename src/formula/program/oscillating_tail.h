#pragma once
#include "formula/program/extrapolation.h"
#include "formula/program/quadrature.h"

namespace coulter {

/// The integral of integrand `which` from `start` to infinity (sign 1), or from minus infinity to `start` (sign −1),
/// where the integrand swings about zero for ever: as the limit of integrals that are cut off smoothly at twice the
/// length each, so that an oscillation leaves nothing but its share, whatever its frequencies are. Inf as error where
/// there is no limit: the integrals up to an end must come to rest, which those of cos(k) do not.
Limit oscillatingTail(const Quadrature::Integrand& integrand, std::uint32_t which, double start, double sign);

} // namespace coulter
