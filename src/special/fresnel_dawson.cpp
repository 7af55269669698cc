#include "special/continued_fraction.h"
#include "special/scalar_functions.h"

namespace coulter {
namespace {

using Complex = std::complex<Extended>;

/// Below, the power series (DLMF 7.6.4 and 7.6.6) loses less than two digits; above, the continued fraction is used.
constexpr double fresnelSeriesUpTo = 2;

/// πx²/2 modulo 2π: x² is held as an exact sum of two numbers before it is reduced, so no digit is lost for large x.
Extended quadraticPhase(double x) {
    const Extended high = Extended(x) * x, low = std::fma(Extended(x), Extended(x), -high);
    return extendedPi / 2 * std::fmod(std::fmod(high, 4) + low, 4.0L);
}

/// C(x) + i S(x) for x > 2: (1 + i)/2 (1 − erfc z), z = √π (1 − i) x / 2 (DLMF 7.5.8), with the continued fraction of
/// erfc (DLMF 7.9.1).
Complex byContinuedFraction(double at) {
    const Extended x = at;
    const Complex square(0, -extendedPi * x * x / 2); // z²
    // √π e^{z²} erfc z = z / (z² + ½ − (1·½)/(z² + 5/2 − (2·3/2)/(z² + 9/2 − …)))
    const auto numerator = [](int i) { return Complex(-i * (i - 0.5L)); };
    const Complex h = continuedFraction(square + Extended(0.5), Complex(2), numerator);
    const Extended phase = quadraticPhase(at);
    const Complex z = std::sqrt(extendedPi) / 2 * x * Complex(1, -1);
    const Complex erfc = Complex(std::cos(phase), std::sin(phase)) * z * h / std::sqrt(extendedPi);
    return Complex(0.5L, 0.5L) * (Extended(1) - erfc);
}

/// Σ (−1)^k (π/2)^{2k+s} x^{4k+2s+1} / ((2k+s)! (4k+2s+1)), s = 0 for C and 1 for S.
Extended fresnelSeries(Extended x, int s) {
    const Extended t = extendedPi / 2 * x * x;
    Extended term = s == 0 ? x : t * x, sum = 0;
    for (int k = 0; k < 200; ++k) {
        const int n = 2 * k + s;
        sum += term / (2 * n + 1);
        if (std::abs(term) < 1e-22L * std::abs(sum)) break;
        term *= -t * t / (static_cast<Extended>(n + 1) * (n + 2));
    }
    return sum;
}

} // namespace

double dawson(const double* v) {
    const Extended x = std::abs(Extended(v[0]));
    Extended value = 0;
    if (x < 6.5L) { // e^{−x²} Σ x^{2k+1} / (k! (2k + 1)) (DLMF 7.6.1): all terms positive
        Extended power = x;
        for (int k = 0; k < 400; ++k) {
            value += power / (2 * k + 1);
            power *= x * x / (k + 1);
            if (power < 1e-22L * value) break;
        }
        value *= std::exp(-x * x);
    } else { // Σ (2k − 1)!! / (2^{k+1} x^{2k+1}) (DLMF 7.12.1): the least term is below 1e−18
        Extended term = 1 / (2 * x);
        for (int k = 1; k < 42 && term > 1e-22L * value; ++k) {
            value += term;
            term *= (2 * k - 1) / (2 * x * x);
        }
        if (std::isinf(v[0])) value = 0;
    }
    if (std::isnan(v[0])) return undefined();
    return static_cast<double>(std::copysign(value, Extended(v[0])));
}

double fresnelS(const double* v) {
    const double x = std::abs(v[0]);
    if (std::isnan(x)) return undefined();
    const double value = x <= fresnelSeriesUpTo ? static_cast<double>(fresnelSeries(x, 1))
                         : x > 1e150            ? 0.5
                                                : static_cast<double>(byContinuedFraction(x).imag());
    return std::copysign(value, v[0]);
}

double fresnelC(const double* v) {
    const double x = std::abs(v[0]);
    if (std::isnan(x)) return undefined();
    const double value = x <= fresnelSeriesUpTo ? static_cast<double>(fresnelSeries(x, 0))
                         : x > 1e150            ? 0.5
                                                : static_cast<double>(byContinuedFraction(x).real());
    return std::copysign(value, v[0]);
}

} // namespace coulter
