#pragma once
#include "special/extended.h"

#include <complex>

namespace coulter {

/// 1/(b + a₁/(b + s + a₂/(b + 2s + …))), for real or complex numbers, by the modified Lentz method
/// (I. J. Thompson and A. R. Barnett, "Coulomb and Bessel functions of complex arguments and order", 1986).
/// @param a  the i-th numerator, i = 1, 2, …
template <typename Number, typename Numerator> Number continuedFraction(Number b, Number step, const Numerator& a) {
    constexpr Extended tiny = 1e-4000L, close = 1e-19L;
    Number c = Number(1) / tiny, d = Number(1) / b, h = d;
    for (int i = 1; i < 100'000; ++i) {
        const Number numerator = a(i);
        b += step;
        d = Number(1) / (numerator * d + b);
        c = b + numerator / c;
        const Number factor = c * d;
        h *= factor;
        const Extended change = std::abs(factor - Number(1));
        if (change < close || !std::isfinite(change)) break;
    }
    return h;
}

} // namespace coulter
