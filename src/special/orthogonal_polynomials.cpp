#include "special/extended.h"
#include "special/hypergeometric.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/chebyshev.hpp>
#include <boost/math/special_functions/hermite.hpp>
#include <boost/math/special_functions/legendre.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;

/// Polynomials of degree −1 are 0, so that derivatives that lower the degree hold for degree 0.
constexpr double leastDegree = -1;

unsigned degree(double n) { return static_cast<unsigned>(n); }

} // namespace

double legendreP(const double* v) {
    double n = v[0];
    const double x = v[1];
    if (n == std::floor(n)) {
        if (n < 0) n = -n - 1; // DLMF 14.9.5
        if (!isWholeOrder(n, 0)) return undefined();
        if (n == 0) return std::isnan(x) ? x : 1;
        return rounded([&] { // upward recurrence DLMF 14.10.3; P_n dominates outside [−1, 1] and is neutral within
            Extended before = 1, value = x;
            for (unsigned k = 1; k < degree(n) && std::isfinite(value); ++k) {
                const Extended next = bm::legendre_next(k, Extended(x), value, before);
                before = value;
                value = next;
            }
            return value;
        });
    }
    if (!(x > -1)) return undefined();
    return rounded(
        [&] { return hypergeometric(-Extended(n), Extended(n) + 1, 1, (1 - Extended(x)) / 2); }); // DLMF 14.3.1
}

double associatedLegendreP(const double* v) {
    double n = v[0];
    const double m = v[1], x = v[2];
    if (n < 0) n = -n - 1;
    if (!isWholeOrder(n, 0) || !isWholeOrder(std::abs(m), 0) || !(std::abs(x) <= 1)) return undefined();
    if (std::abs(m) > n) return 0;
    return rounded([&] { return bm::legendre_p(static_cast<int>(n), static_cast<int>(m), Extended(x), Quiet()); });
}

double legendreQ(const double* v) {
    const double n = v[0], x = v[1];
    if (!isWholeOrder(n, 0) || !(std::abs(x) <= 1)) return undefined();
    if (std::abs(x) == 1) return x > 0 || isOdd(n) ? HUGE_VAL : -HUGE_VAL;
    return rounded([&] { return bm::legendre_q(degree(n), Extended(x), Quiet()); });
}

double laguerreL(const double* v) {
    if (!isWholeOrder(v[0], leastDegree)) return undefined();
    const double operands[] = {v[0], 0, v[1]};
    return associatedLaguerreL(operands);
}

double associatedLaguerreL(const double* v) {
    const double n = v[0];
    const Extended a = v[1], x = v[2];
    if (!isWholeOrder(n, leastDegree)) return undefined();
    if (n < 0) return 0;
    Extended before = 0, value = 1;
    for (unsigned k = 0; k < degree(n) && std::isfinite(value); ++k) { // DLMF 18.9.1, for any real a
        const Extended next = ((2 * k + 1 + a - x) * value - (k + a) * before) / (k + 1);
        before = value;
        value = next;
    }
    return static_cast<double>(value);
}

double hermiteH(const double* v) {
    if (!isWholeOrder(v[0], leastDegree)) return undefined();
    if (v[0] < 0) return 0;
    if (std::isinf(v[1])) return v[0] == 0 ? 1 : v[1] < 0 && isOdd(v[0]) ? -HUGE_VAL : HUGE_VAL;
    return rounded([&] { return bm::hermite(degree(v[0]), Extended(v[1]), Quiet()); });
}

double chebyshevT(const double* v) {
    const double n = std::abs(v[0]), x = v[1];
    if (isWholeOrder(n, 0)) return rounded([&] { return bm::chebyshev_t(degree(n), Extended(x)); });
    if (!(x > -1)) return undefined();
    return rounded([&] { // DLMF 18.5.1, which defines it for real n
        return x <= 1 ? std::cos(n * std::acos(Extended(x))) : std::cosh(n * std::acosh(Extended(x)));
    });
}

double chebyshevU(const double* v) {
    if (!isWholeOrder(v[0], leastDegree)) return undefined();
    if (v[0] < 0) return 0;
    const double operands[] = {v[0], 1, v[1]}; // DLMF 18.7.4
    return gegenbauerC(operands);
}

double gegenbauerC(const double* v) {
    const double n = v[0];
    if (!isWholeOrder(n, leastDegree)) return undefined();
    if (n < 0) return 0;
    const Extended a = v[1], x = v[2];
    Extended before = 0, value = 1;
    for (unsigned k = 0; k < degree(n) && std::isfinite(value); ++k) { // DLMF 18.9.1, for any real a
        const Extended next = (2 * (k + a) * x * value - (k + 2 * a - 1) * before) / (k + 1);
        before = value;
        value = next;
    }
    return static_cast<double>(value);
}

double jacobiP(const double* v) {
    const double n = v[0];
    if (!isWholeOrder(n, leastDegree)) return undefined();
    if (n < 0) return 0;
    const Extended a = v[1], b = v[2], x = v[3];
    Extended before = 1,
             value = ((a + b + 2) * x + (a - b)) / 2; // centred at 0, where equal a and b have an exact zero
    if (n == 0) return 1;
    for (unsigned k = 1; k < degree(n) && std::isfinite(value); ++k) { // DLMF 18.9.2
        const Extended s = 2 * k + a + b;
        const Extended next =
            ((s + 1) * ((s + 2) * s * x + (a * a - b * b)) * value - 2 * (k + a) * (k + b) * (s + 2) * before) /
            (2 * (k + 1) * (k + a + b + 1) * s);
        before = value;
        value = next;
    }
    return static_cast<double>(value);
}

} // namespace coulter
