#include "special/extended.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/ellint_1.hpp>
#include <boost/math/special_functions/ellint_2.hpp>
#include <boost/math/special_functions/ellint_3.hpp>
#include <boost/math/special_functions/jacobi_elliptic.hpp>

namespace coulter {
namespace {

namespace bm = boost::math;

/// Whether 1 − k² sin²φ stays positive on the way from 0 to φ.
bool isRegular(double phi, double k) {
    if (std::isnan(phi) || std::isnan(k) || std::isinf(phi)) return false;
    if (std::abs(k) < 1) return true;
    return std::abs(phi) < extendedPi / 2 && std::abs(k * std::sin(Extended(phi))) < 1;
}

} // namespace

double ellipticK(const double* v) {
    if (std::abs(v[0]) == 1) return HUGE_VAL;
    if (!(std::abs(v[0]) < 1)) return undefined();
    return rounded([&] { return bm::ellint_1(Extended(v[0]), Quiet()); });
}

double ellipticE(const double* v) {
    if (!(std::abs(v[0]) <= 1)) return undefined();
    return rounded([&] { return bm::ellint_2(Extended(v[0]), Quiet()); });
}

double ellipticF(const double* v) {
    const double phi = v[0], k = v[1];
    if (!isRegular(phi, k)) return undefined();
    return rounded([&] { return bm::ellint_1(Extended(k), Extended(phi), Quiet()); });
}

double ellipticIncompleteE(const double* v) {
    const double phi = v[0], k = v[1];
    if (!isRegular(phi, k) && !(std::abs(k) == 1 && std::isfinite(phi))) return undefined();
    return rounded([&] { return bm::ellint_2(Extended(k), Extended(phi), Quiet()); });
}

double ellipticPi(const double* v) {
    const double n = v[0], k = v[1];
    if (!(n < 1) || !(std::abs(k) < 1)) return n == 1 && std::abs(k) <= 1 ? HUGE_VAL : undefined();
    return rounded([&] { return bm::ellint_3(Extended(k), Extended(n), Quiet()); });
}

double jacobiSn(const double* v) {
    if (!std::isfinite(v[0]) || !std::isfinite(v[1])) return undefined();
    return rounded([&] { return bm::jacobi_sn(std::abs(Extended(v[1])), Extended(v[0]), Quiet()); });
}
double jacobiCn(const double* v) {
    if (!std::isfinite(v[0]) || !std::isfinite(v[1])) return undefined();
    return rounded([&] { return bm::jacobi_cn(std::abs(Extended(v[1])), Extended(v[0]), Quiet()); });
}
double jacobiDn(const double* v) {
    if (!std::isfinite(v[0]) || !std::isfinite(v[1])) return undefined();
    return rounded([&] {
        const Extended k = std::abs(Extended(v[1]));
        if (k > 1) return bm::jacobi_dn(k, Extended(v[0]), Quiet());
        const Extended cn = bm::jacobi_cn(k, Extended(v[0]), Quiet()); // DLMF 22.6.1; both parts are positive
        return std::sqrt((1 - k) * (1 + k) + k * k * cn * cn);
    });
}

} // namespace coulter
