#pragma once
#include "formula/program/extrapolation.h"
#include "formula/program/quadrature.h"

#include <vector>

namespace coulter {

/// The integral of integrand `which` between two finite limits, where it may grow beyond all bounds or lose its
/// derivatives at either: from the middle on over parts half as long each, whose totals are extrapolated. So powers
/// above −1 and logarithms have their digits, also where the integrand itself has lost them close to the limit. Inf as
/// error where there is no limit, as of 1/k at 0.
Limit gradedIntegral(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high);

/// Where the integrand changes its sign through infinity between limits of which either may be infinite, in ascending
/// order; as far as a few hundred places show it.
std::vector<double> polesBetween(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high);

/// Cauchy's principal value: what lies at the same distances on both sides of a pole is taken together. Poles are where
/// the integrand changes its sign through infinity; one limit or both may be infinite.
Limit principalValue(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high);

} // namespace coulter
