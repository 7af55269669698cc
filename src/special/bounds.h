#pragma once
#include "special/scalar_functions.h"

#include <optional>

namespace coulter {

/// Bounds between which a function stays: low ≤ f ≤ high.
struct Bounds {
    double low = 0;
    double high = 0;
};

/// Rigorous bounds of a special function while its operand number `varying` runs over [low, high] and the others keep
/// their values in v; none where no bound is known here, or where the function is not defined throughout.
///
/// Each bound rests on where the function is monotone, on a bound of its slope, or on both, from the DLMF; values at
/// single points are taken with a margin of `marginUlps` units in the last place, several times the largest error that
/// comparison with high-precision references shows.
std::optional<Bounds> boundsOver(ScalarFunction f, const double* v, std::size_t count, std::size_t varying, double low,
                                 double high);

inline constexpr int marginUlps = 4;

/// x moved by so many units in the last place, down for negative numbers of them.
double moved(double x, int ulps);

} // namespace coulter
