#include "special/continued_fraction.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/expint.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;
using Complex = std::complex<Extended>;

constexpr Extended eulerGamma = 0.57721566490153286060651209008240243L;

/// From here on the continued fraction converges fast; below, the power series loses less than two digits.
constexpr Extended seriesUpTo = 4;

/// E₁(ix) for x ≥ 4 by the continued fraction DLMF 6.9.1. Ci x = −Re, Si x = π/2 + Im
/// (DLMF 6.5.5 to 6.5.7).
Complex byContinuedFraction(Extended x) {
    const auto numerator = [](int i) { return Complex(-static_cast<Extended>(i) * i); };
    return Complex(std::cos(x), -std::sin(x)) * continuedFraction(Complex(1, x), Complex(2), numerator);
}

/// Σ (−1)^k x^{2k + first} / ((2k + first) (2k + first)!) (DLMF 6.6.5 and 6.6.6).
Extended series(Extended x, int first) {
    Extended term = first == 1 ? x : -x * x / 2, sum = 0;
    for (int n = first == 1 ? 1 : 2; n < 200; n += 2) {
        sum += term / n;
        if (std::abs(term) < 1e-22L * std::abs(sum)) break;
        term *= -x * x / (static_cast<Extended>(n + 1) * (n + 2));
    }
    return sum;
}

} // namespace

double exponentialIntegralE(const double* v) {
    const double n = v[0], x = v[1];
    if (!(x >= 0) || !std::isfinite(n)) return undefined();
    if (std::isinf(x)) return 0;
    if (x == 0) return n > 1 ? static_cast<double>(1 / (Extended(n) - 1)) : HUGE_VAL;
    if (isWholeOrder(n, 0)) return rounded([&] { return bm::expint(static_cast<unsigned>(n), Extended(x), Quiet()); });
    const double operands[] = {1 - n, x}; // DLMF 8.19.1: E_p(x) = x^{p−1} Γ(1 − p, x)
    const double gamma = upperGamma(operands);
    return rounded([&] { return std::pow(Extended(x), Extended(n) - 1) * gamma; });
}

double exponentialIntegralEi(const double* v) {
    if (v[0] == 0) return -HUGE_VAL;
    if (std::isinf(v[0])) return v[0] > 0 ? v[0] : 0;
    return rounded([&] { return bm::expint(Extended(v[0]), Quiet()); });
}

double sineIntegral(const double* v) {
    const Extended x = std::abs(Extended(v[0]));
    if (std::isnan(v[0])) return undefined();
    if (std::isinf(v[0])) return std::copysign(static_cast<double>(extendedPi / 2), v[0]);
    const Extended value = x <= seriesUpTo ? series(x, 1) : extendedPi / 2 + byContinuedFraction(x).imag();
    return static_cast<double>(std::copysign(value, Extended(v[0])));
}

double cosineIntegral(const double* v) {
    const Extended x = v[0];
    if (!(x >= 0)) return undefined();
    if (x == 0) return -HUGE_VAL;
    if (std::isinf(v[0])) return 0;
    if (x > seriesUpTo) return static_cast<double>(-byContinuedFraction(x).real());
    return static_cast<double>(eulerGamma + std::log(x) + series(x, 2));
}

double logarithmicIntegral(const double* v) {
    const double x = v[0];
    if (!(x >= 0)) return undefined();
    if (x == 0) return 0;
    if (x == 1) return -HUGE_VAL;
    if (std::isinf(x)) return x;
    return rounded([&] { return bm::expint(std::log(Extended(x)), Quiet()); }); // DLMF 6.2.8
}

} // namespace coulter
