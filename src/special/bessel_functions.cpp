#include "special/extended.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/airy.hpp>
#include <boost/math/special_functions/bessel.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;

bool inReach(double order, double x) { return std::abs(order) <= highestOrder && !std::isnan(x); }

/// √(π/(2x)) times a cylinder function of order n + 1/2 (DLMF 10.47.3 and 10.47.4).
template <typename Cylinder> double spherical(double n, double x, const Cylinder& cylinder) {
    return rounded(
        [&] { return std::sqrt(extendedPi / (2 * Extended(x))) * cylinder(Extended(n) + 0.5L, Extended(x)); });
}

} // namespace

double besselJ(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x)) return undefined();
    if (std::isinf(x)) return x > 0 || n == std::floor(n) ? 0 : undefined();
    return rounded([&] { return bm::cyl_bessel_j(Extended(n), Extended(x), Quiet()); });
}

double besselY(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x) || x < 0) return undefined();
    if (std::isinf(x)) return 0;
    if (x == 0) return n >= 0 ? -HUGE_VAL : undefined();
    return rounded([&] { return bm::cyl_neumann(Extended(n), Extended(x), Quiet()); });
}

double besselI(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x) || (x < 0 && n != std::floor(n))) return undefined();
    if (std::isinf(x)) return x < 0 && isOdd(n) ? -HUGE_VAL : HUGE_VAL;
    return rounded([&] { return bm::cyl_bessel_i(Extended(n), Extended(x), Quiet()); });
}

double besselK(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x) || x < 0) return undefined();
    if (std::isinf(x)) return 0;
    if (x == 0) return HUGE_VAL;
    return rounded([&] { return bm::cyl_bessel_k(Extended(n), Extended(x), Quiet()); });
}

double sphericalJ(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x)) return undefined();
    if (std::isinf(x)) return 0;
    if (!isWholeOrder(n, 0)) {
        if (x <= 0) return undefined();
        return spherical(n, x, [](Extended order, Extended y) { return bm::cyl_bessel_j(order, y, Quiet()); });
    }
    const double value =
        rounded([&] { return bm::sph_bessel(static_cast<unsigned>(n), std::abs(Extended(x)), Quiet()); });
    return x < 0 && isOdd(n) ? -value : value;
}

double sphericalY(const double* v) {
    const double n = v[0], x = v[1];
    if (!inReach(n, x)) return undefined();
    if (std::isinf(x)) return 0;
    if (!isWholeOrder(n, 0)) {
        if (x <= 0) return undefined();
        return spherical(n, x, [](Extended order, Extended y) { return bm::cyl_neumann(order, y, Quiet()); });
    }
    if (x == 0) return isOdd(n) ? -HUGE_VAL : undefined(); // y_n(−x) = (−1)^{n+1} y_n(x)
    const double value =
        rounded([&] { return bm::sph_neumann(static_cast<unsigned>(n), std::abs(Extended(x)), Quiet()); });
    return x < 0 && !isOdd(n) ? -value : value;
}

namespace {

/// Ai, Bi or their slopes near 0 by the Maclaurin series DLMF 9.4.1 to 9.4.4.
struct NearZero {
    Extended f = 1, g = 0, fSlope = 0, gSlope = 1;

    explicit NearZero(Extended x) : g(x) {
        const Extended cube = x * x * x;
        Extended a = 1, b = x; // terms of f and g
        for (int k = 1; k < 40; ++k) {
            fSlope += x == 0 ? 0 : a * cube / ((3 * k - 1) * (3 * k)) * (3 * k) / x;
            gSlope += x == 0 ? 0 : b * cube / ((3 * k) * (3 * k + 1)) * (3 * k + 1) / x;
            a *= cube / ((3 * k - 1) * (3 * k));
            b *= cube / ((3 * k) * (3 * k + 1));
            f += a;
            g += b;
        }
    }
};

constexpr double seriesWithin = 1;
constexpr Extended aiAtZero = 0.355028053887817239260063186004183177L,
                   aiSlopeAtZero = -0.258819403792806798405183560189203964L;
const Extended root3 = std::sqrt(3.0L); // Bi(0) = √3 Ai(0), Bi′(0) = −√3 Ai′(0) (DLMF 9.2.3 to 9.2.6)

} // namespace

double airyAi(const double* v) {
    if (std::isinf(v[0])) return 0;
    if (std::abs(v[0]) > seriesWithin) return rounded([&] { return bm::airy_ai(Extended(v[0]), Quiet()); });
    const NearZero s(v[0]);
    return static_cast<double>(aiAtZero * s.f + aiSlopeAtZero * s.g);
}
double airyBi(const double* v) {
    if (std::isinf(v[0])) return v[0] > 0 ? v[0] : 0;
    if (std::abs(v[0]) > seriesWithin) return rounded([&] { return bm::airy_bi(Extended(v[0]), Quiet()); });
    const NearZero s(v[0]);
    return static_cast<double>(root3 * (aiAtZero * s.f - aiSlopeAtZero * s.g));
}
double airyAiPrime(const double* v) {
    if (std::isinf(v[0])) return v[0] > 0 ? 0 : undefined();
    if (std::abs(v[0]) > seriesWithin) return rounded([&] { return bm::airy_ai_prime(Extended(v[0]), Quiet()); });
    const NearZero s(v[0]);
    return static_cast<double>(aiAtZero * s.fSlope + aiSlopeAtZero * s.gSlope);
}
double airyBiPrime(const double* v) {
    if (std::isinf(v[0])) return v[0] > 0 ? v[0] : undefined();
    if (std::abs(v[0]) > seriesWithin) return rounded([&] { return bm::airy_bi_prime(Extended(v[0]), Quiet()); });
    const NearZero s(v[0]);
    return static_cast<double>(root3 * (aiAtZero * s.fSlope - aiSlopeAtZero * s.gSlope));
}

} // namespace coulter
