#pragma once
#include "formula/program/program.h"

#include <functional>
#include <optional>
#include <span>

namespace coulter {

/// The value of an integral or series of constants, from those that were computed last if it is among them: a page is
/// compiled again for every plot and at every stroke of a key, and its coefficients stay the same. What is kept never
/// changes a bit of what is computed. May be called from any thread.
/// @param operands  the limits, then the further inputs of the integrand
/// @param compute   its value, or none if that takes too long
std::optional<double> knownIntegral(const Program::Integral& integral, std::span<const double> operands,
                                    const std::function<std::optional<double>()>& compute);

} // namespace coulter
