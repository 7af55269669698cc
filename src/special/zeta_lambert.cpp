#include "special/extended.h"
#include "special/scalar_functions.h"

#include <boost/math/special_functions/lambert_w.hpp>
#include <boost/math/special_functions/zeta.hpp>

namespace coulter {

double zetaFunction(const double* v) {
    if (v[0] == 1) return undefined();
    if (std::isinf(v[0])) return v[0] > 0 ? 1 : undefined();
    return rounded([&] { return boost::math::zeta(Extended(v[0]), Quiet()); });
}

double lambertW(const double* v) {
    const double branch = v[0], x = v[1];
    const Extended least = -std::exp(-1.0L);
    if (!(x >= least)) return undefined();
    if (branch == 0) {
        if (std::isinf(x)) return x;
        return rounded([&] { return boost::math::lambert_w0(Extended(x), Quiet()); });
    }
    if (branch != -1 || x > 0) return undefined();
    if (x == 0) return -HUGE_VAL;
    return rounded([&] { return boost::math::lambert_wm1(Extended(x), Quiet()); });
}

} // namespace coulter
