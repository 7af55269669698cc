#include "special/continued_fraction.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/beta.hpp>
#include <boost/math/special_functions/digamma.hpp>
#include <boost/math/special_functions/erf.hpp>
#include <boost/math/special_functions/expint.hpp>
#include <boost/math/special_functions/gamma.hpp>
#include <boost/math/special_functions/polygamma.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;

bool isPole(double x) { return x <= 0 && x == std::floor(x); }

/// Γ(a, x) for a ≤ 0 < x.
Extended upperGammaNegative(Extended a, Extended x) {
    if (a == std::floor(a) && a >= -highestOrder) { // DLMF 8.19.1: Γ(1 − n, x) = x^{1−n} E_n(x)
        return std::pow(x, a) * bm::expint(static_cast<unsigned>(1 - a), x, Quiet());
    }
    if (a < -highestOrder) return undefined();
    if (x >= 1) { // DLMF 8.9.2
        const auto numerator = [a](int i) { return -i * (i - a); };
        return std::exp(a * std::log(x) - x) * continuedFraction(x + 1 - a, Extended(2), numerator);
    }
    // DLMF 8.8.2 downwards: Γ(a, x) = (Γ(a + 1, x) − x^a e^{−x}) / a, from a place in (0, 1).
    const int steps = static_cast<int>(std::ceil(-a));
    Extended value = bm::tgamma(a + steps, x, Quiet());
    for (int i = steps - 1; i >= 0; --i) value = (value - std::pow(x, a + i) * std::exp(-x)) / (a + i);
    return value;
}

} // namespace

double digammaPsi(const double* v) {
    if (isPole(v[0])) return undefined();
    return rounded([&] { return bm::digamma(Extended(v[0]), Quiet()); });
}

double polygammaPsi(const double* v) {
    const double n = v[0], x = v[1];
    if (!isWholeOrder(n, 0) || n > 1000) return undefined();
    if (isPole(x)) return isOdd(n) ? HUGE_VAL : undefined();
    return rounded([&] { return bm::polygamma(static_cast<int>(n), Extended(x), Quiet()); });
}

double betaFunction(const double* v) {
    const double a = v[0], b = v[1];
    if (isPole(a) || isPole(b)) return undefined();
    if (a > 0 && b > 0) return rounded([&] { return bm::beta(Extended(a), Extended(b), Quiet()); });
    const Extended sum = Extended(a) + b;
    if (sum <= 0 && sum == std::floor(sum)) return 0; // 1/Γ vanishes at the poles of Γ (DLMF 5.12.1)
    return rounded(
        [&] { return bm::tgamma(Extended(a), Quiet()) * bm::tgamma(Extended(b), Quiet()) / bm::tgamma(sum, Quiet()); });
}

double lowerGamma(const double* v) {
    const double a = v[0], x = v[1];
    if (!(a > 0) || !(x >= 0)) return undefined();
    return rounded([&] { return bm::tgamma_lower(Extended(a), Extended(x), Quiet()); });
}

double upperGamma(const double* v) {
    const double a = v[0], x = v[1];
    if (!(x >= 0) || !std::isfinite(a)) return undefined();
    if (x == 0 && a <= 0) return HUGE_VAL;
    if (std::isinf(x)) return 0;
    return rounded([&] {
        return a > 0 ? bm::tgamma(Extended(a), Extended(x), Quiet()) : upperGammaNegative(Extended(a), Extended(x));
    });
}

double regularisedLowerGamma(const double* v) {
    if (!(v[0] > 0) || !(v[1] >= 0)) return undefined();
    if (std::isinf(v[1])) return 1;
    return rounded([&] { return bm::gamma_p(Extended(v[0]), Extended(v[1]), Quiet()); });
}

double regularisedUpperGamma(const double* v) {
    if (!(v[0] > 0) || !(v[1] >= 0)) return undefined();
    if (std::isinf(v[1])) return 0;
    return rounded([&] { return bm::gamma_q(Extended(v[0]), Extended(v[1]), Quiet()); });
}

double regularisedBeta(const double* v) {
    const double x = v[0], a = v[1], b = v[2];
    if (!(a > 0) || !(b > 0) || !(x >= 0 && x <= 1)) return undefined();
    return rounded([&] { return bm::ibeta(Extended(a), Extended(b), Extended(x), Quiet()); });
}

double inverseErf(const double* v) {
    if (std::abs(v[0]) == 1) return std::copysign(HUGE_VAL, v[0]);
    return rounded([&] { return bm::erf_inv(Extended(v[0]), Quiet()); });
}

} // namespace coulter
