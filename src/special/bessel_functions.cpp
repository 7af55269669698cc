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

double airyAi(const double* v) {
    return rounded([&] { return bm::airy_ai(Extended(v[0]), Quiet()); });
}
double airyBi(const double* v) {
    return rounded([&] { return bm::airy_bi(Extended(v[0]), Quiet()); });
}
double airyAiPrime(const double* v) {
    return rounded([&] { return bm::airy_ai_prime(Extended(v[0]), Quiet()); });
}
double airyBiPrime(const double* v) {
    return rounded([&] { return bm::airy_bi_prime(Extended(v[0]), Quiet()); });
}

} // namespace coulter
