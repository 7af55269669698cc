#include "special/hypergeometric.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/gamma.hpp>
#include <boost/math/special_functions/hypergeometric_1F1.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;

bool isPole(Extended x) { return x <= 0 && x == std::floor(x); }

/// F and its derivative.
struct Solution {
    Extended value, slope;
};

/// The power series DLMF 15.2.1 at |x| ≤ 1/2.
Solution powerSeries(Extended a, Extended b, Extended c, Extended x) {
    Extended term = 1, value = 1, slope = 0;
    for (int n = 0; n < 100000 && std::isfinite(value); ++n) {
        const Extended next = term * (a + n) * (b + n) / ((c + n) * (n + 1));
        slope += next * (n + 1);
        term = next * x;
        value += term;
        if (term == 0 || (std::abs(term) < 1e-21L * std::abs(value) && n > std::abs(a) + std::abs(b))) break;
    }
    return {value, slope};
}

/// One step of the Taylor series about z of a solution of the hypergeometric equation (DLMF 15.10.1),
/// z(1 − z) w'' + (c − (a + b + 1) z) w' − a b w = 0, over the distance h.
Solution taylorStep(Extended a, Extended b, Extended c, Extended z, Solution at, Extended h) {
    const Extended p = z * (1 - z), q = 1 - 2 * z, r = c - (a + b + 1) * z;
    Extended before = at.value, now = at.slope; // coefficients n and n + 1
    Extended power = h, value = before + now * h, slope = now;
    for (int n = 0; n < 400; ++n) {
        const Extended next = ((n + a) * (n + b) * before - (n + 1) * (q * n + r) * now) / (p * (n + 2) * (n + 1));
        slope += (n + 2) * next * power;
        power *= h;
        value += next * power;
        const bool small = std::abs(next * power) < 1e-21L * std::abs(value);
        if (small && std::abs(now * power / h) < 1e-21L * std::abs(value) && n > 4) break;
        before = now;
        now = next;
    }
    return {value, slope};
}

/// F(a, b; c; x) for 0 ≤ x < 1: the power series up to 1/2, then Taylor steps towards 1, each half the way there.
/// That needs no special case where c − a − b is a whole number.
Extended onUnitInterval(Extended a, Extended b, Extended c, Extended x) {
    if (x <= 0.5L) return powerSeries(a, b, c, x).value;
    Extended z = 0.5L;
    Solution at = powerSeries(a, b, c, z);
    while (z < x) {
        const Extended h = std::min((1 - z) / 2, x - z);
        at = taylorStep(a, b, c, z, at, h);
        z += h;
        if (!std::isfinite(at.value)) break;
    }
    return at.value;
}

/// A series that ends: a is 0, −1, −2, …
Extended polynomial(Extended a, Extended b, Extended c, Extended x) {
    Extended term = 1, sum = 1;
    for (int n = 0; n < -a && std::isfinite(sum); ++n) {
        term *= (a + n) * (b + n) / ((c + n) * (n + 1)) * x;
        sum += term;
    }
    return sum;
}

/// The power series DLMF 13.2.2, which loses digits where its terms change sign.
Extended kummerSeries(Extended a, Extended b, Extended x) {
    Extended term = 1, sum = 1;
    for (int n = 0; n < 100000 && std::isfinite(sum); ++n) {
        term *= (a + n) / ((b + n) * (n + 1)) * x;
        sum += term;
        if (term == 0 || (std::abs(term) < 1e-22L * std::abs(sum) && n > std::abs(a))) break;
    }
    return sum;
}

} // namespace

double kummerM(const double* v) {
    const double a = v[0], b = v[1], x = v[2];
    // Beyond, the library's recurrences would run for minutes.
    constexpr double reach = 1e4;
    if (!(std::abs(a) <= reach && std::abs(b) <= reach && std::abs(x) <= reach) || isPole(b)) return undefined();
    const double value =
        rounded([&] { return bm::hypergeometric_1F1(Extended(a), Extended(b), Extended(x), Quiet()); });
    if (!std::isnan(value)) return value;
    return rounded([&] { // Kummer's transformation DLMF 13.2.39 makes the terms of one sign
        return x < 0 ? std::exp(Extended(x)) * kummerSeries(Extended(b) - a, b, -Extended(x)) : kummerSeries(a, b, x);
    });
}

Extended hypergeometric(Extended a, Extended b, Extended c, Extended x) {
    for (const auto& [first, second] : {std::pair(a, b), std::pair(b, a)}) {
        if (!isPole(first) || -first > highestOrder || (isPole(c) && c >= first)) continue;
        if (isPole(c - second) && !isPole(c) && c - first - second > 0) // a zero at x = 1, set apart (DLMF 15.8.1)
            return std::pow(1 - x, c - first - second) * polynomial(c - second, c - first, c, x);
        return polynomial(first, second, c, x);
    }
    if (isPole(c) || !(x <= 1) || std::isinf(x)) return undefined();
    if (std::abs(a) > highestOrder || std::abs(b) > highestOrder || std::abs(c) > highestOrder) return undefined();
    if (x == 1) { // DLMF 15.4.20
        if (c - a - b <= 0) return undefined();
        if (isPole(c - a) || isPole(c - b)) return 0;
        return bm::tgamma(c, Quiet()) * bm::tgamma(c - a - b, Quiet()) /
               (bm::tgamma(c - a, Quiet()) * bm::tgamma(c - b, Quiet()));
    }
    if (x >= -0.5L) return x < 0 ? powerSeries(a, b, c, x).value : onUnitInterval(a, b, c, x);
    // DLMF 15.8.1: F(a, b; c; x) = (1 − x)^{−a} F(a, c − b; c; x/(x − 1))
    return std::pow(1 - x, -a) * onUnitInterval(a, c - b, c, x / (x - 1));
}

double hypergeometricF(const double* v) {
    if (!std::isfinite(v[0]) || !std::isfinite(v[1]) || !std::isfinite(v[2])) return undefined();
    return rounded([&] { return hypergeometric(v[0], v[1], v[2], v[3]); });
}

} // namespace coulter
