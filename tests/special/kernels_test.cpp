#include "special/kernels.h"

#include <bit>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <map>
#include <mpfr.h>
#include <random>
#include <vector>

using namespace coulter;

namespace {

double apply(Kernel kernel, double a, double b = 0, InstructionSet set = InstructionSet::Sse2) {
    alignas(64) double x[8], y[8], result[8];
    std::fill_n(x, 8, a);
    std::fill_n(y, 8, b);
    blockKernel(kernel, set)(x, y, result, 8);
    return result[0];
}

/// Distance in units in the last place between a double and a high-precision reference.
double ulps(double value, mpfr_t reference) {
    const double nearest = mpfr_get_d(reference, MPFR_RNDN);
    if (std::isnan(value) || std::isnan(nearest)) return std::isnan(value) && std::isnan(nearest) ? 0 : INFINITY;
    if (std::isinf(nearest) || nearest == 0) return value == nearest ? 0 : INFINITY;
    mpfr_t difference;
    mpfr_init2(difference, 256);
    mpfr_sub_d(difference, reference, value, MPFR_RNDN);
    const double unit = std::abs(std::nextafter(nearest, INFINITY) - nearest);
    const double distance = std::abs(mpfr_get_d(difference, MPFR_RNDN)) / unit;
    mpfr_clear(difference);
    return distance;
}

using MpfrFunction = int (*)(mpfr_t, const mpfr_t, mpfr_rnd_t);

struct Reference {
    Kernel kernel;
    MpfrFunction function;
    double low, high; ///< of the argument
    double allowed;   ///< ulps
};

int sinc(mpfr_t out, const mpfr_t x, mpfr_rnd_t mode) {
    mpfr_sin(out, x, mode);
    return mpfr_div(out, out, x, mode);
}
int arccot(mpfr_t out, const mpfr_t x, mpfr_rnd_t mode) { // the angle of (x, 1)
    mpfr_t one;
    mpfr_init2(one, 256);
    mpfr_set_d(one, 1, mode);
    const int status = mpfr_atan2(out, one, x, mode);
    mpfr_clear(one);
    return status;
}
template <MpfrFunction inverse> int ofReciprocal(mpfr_t out, const mpfr_t x, mpfr_rnd_t mode) {
    mpfr_ui_div(out, 1, x, mode);
    return inverse(out, out, mode);
}

} // namespace

TEST_CASE("elementary functions agree with MPFR to the last places") {
    const Reference references[] = {
        {Kernel::Sqrt, mpfr_sqrt, 0, 1e10, 0.5},
        {Kernel::Cbrt, mpfr_cbrt, -1e6, 1e6, 1},
        {Kernel::Exp, mpfr_exp, -700, 700, 1},
        {Kernel::Ln, mpfr_log, 1e-6, 1e6, 1},
        {Kernel::Lg, mpfr_log10, 1e-6, 1e6, 1},
        {Kernel::Lb, mpfr_log2, 1e-6, 1e6, 1},
        {Kernel::Sin, mpfr_sin, -1e5, 1e5, 1},
        {Kernel::Cos, mpfr_cos, -1e5, 1e5, 1},
        {Kernel::Tan, mpfr_tan, -1e3, 1e3, 1},
        {Kernel::Cot, mpfr_cot, -1e3, 1e3, 2},
        {Kernel::Sec, mpfr_sec, -1e3, 1e3, 2},
        {Kernel::Csc, mpfr_csc, -1e3, 1e3, 2},
        {Kernel::Arcsin, mpfr_asin, -1, 1, 1},
        {Kernel::Arccos, mpfr_acos, -1, 1, 1},
        {Kernel::Arctan, mpfr_atan, -50, 50, 1},
        {Kernel::Arccot, arccot, -50, 50, 1},
        {Kernel::Arcsec, ofReciprocal<mpfr_acos>, 1.0001, 9, 2},
        {Kernel::Arccsc, ofReciprocal<mpfr_asin>, 1.0001, 9, 2},
        {Kernel::Sinh, mpfr_sinh, -20, 20, 1},
        {Kernel::Cosh, mpfr_cosh, -20, 20, 1},
        {Kernel::Tanh, mpfr_tanh, -5, 5, 1},
        {Kernel::Coth, mpfr_coth, -5, 5, 2},
        {Kernel::Sech, mpfr_sech, -20, 20, 2},
        {Kernel::Csch, mpfr_csch, -20, 20, 2},
        {Kernel::Arsinh, mpfr_asinh, -50, 50, 1},
        {Kernel::Arcosh, mpfr_acosh, 1, 50, 1},
        {Kernel::Artanh, mpfr_atanh, -1, 1, 1},
        {Kernel::Arcoth, ofReciprocal<mpfr_atanh>, 1.001, 50, 3},
        {Kernel::Arsech, ofReciprocal<mpfr_acosh>, 1e-3, 1, 3},
        {Kernel::Arcsch, ofReciprocal<mpfr_asinh>, -50, 50, 2},
        {Kernel::Sinc, sinc, -50, 50, 2},
        {Kernel::Gamma, mpfr_gamma, 0.01, 170, 1},
        {Kernel::Gamma, mpfr_gamma, -9.9, -0.1, 1},
        {Kernel::LnGamma, mpfr_lngamma, 3, 1e6, 1},
        {Kernel::Erf, mpfr_erf, -6, 6, 1},
        {Kernel::Erfc, mpfr_erfc, -5, 26, 1.5},
    };
    mpfr_t x, result;
    mpfr_inits2(256, x, result, nullptr);
    std::mt19937_64 random(7);
    for (const Reference& reference : references) {
        std::uniform_real_distribution<double> place(reference.low, reference.high);
        double worst = 0, where = 0;
        for (int i = 0; i < 2000; ++i) {
            const double at = place(random);
            mpfr_set_d(x, at, MPFR_RNDN);
            reference.function(result, x, MPFR_RNDN);
            const double off = ulps(apply(reference.kernel, at), result);
            if (off > worst) {
                worst = off;
                where = at;
            }
        }
        INFO("kernel " << static_cast<int>(reference.kernel) << " worst at " << where);
        CHECK(worst <= reference.allowed);
    }
    mpfr_clears(x, result, nullptr);
}

TEST_CASE("every instruction set gives the same bits") {
    std::vector<InstructionSet> sets{InstructionSet::Sse2};
    if (bestInstructionSet() >= InstructionSet::Avx) sets.push_back(InstructionSet::Avx);
    if (bestInstructionSet() >= InstructionSet::Avx512) sets.push_back(InstructionSet::Avx512);
    std::mt19937_64 random(11);
    std::normal_distribution<double> exponent(0, 8);
    alignas(64) double a[256], b[256], first[256], other[256];
    const double special[] = {0.0, -0.0, INFINITY, -INFINITY, NAN, 5e-324, 1e308, -1e308, 0.5, 1, -1, 2};
    for (int k = 0; k < static_cast<int>(Kernel::Count); ++k) {
        for (int i = 0; i < 256; ++i) {
            a[i] = i < 12 ? special[i] : (random() % 2 == 0 ? 1 : -1) * std::exp(exponent(random));
            b[i] = i < 12 ? special[11 - i] : (random() % 2 == 0 ? 1 : -1) * std::exp(exponent(random) / 3);
        }
        blockKernel(static_cast<Kernel>(k), InstructionSet::Sse2)(a, b, first, 256);
        for (const InstructionSet set : sets) {
            blockKernel(static_cast<Kernel>(k), set)(a, b, other, 256);
            for (int i = 0; i < 256; ++i) {
                const bool same = std::bit_cast<std::uint64_t>(first[i]) == std::bit_cast<std::uint64_t>(other[i]) ||
                                  (std::isnan(first[i]) && std::isnan(other[i]));
                INFO("kernel " << k << " set " << static_cast<int>(set) << " at " << a[i] << ", " << b[i] << ": "
                               << first[i] << " and " << other[i]);
                REQUIRE(same);
            }
        }
    }
}

TEST_CASE("values that people check by hand are exact") {
    CHECK(apply(Kernel::Lg, 1000) == 3);
    CHECK(apply(Kernel::Lb, 1024) == 10);
    CHECK(apply(Kernel::Cbrt, -27) == -3);
    CHECK(apply(Kernel::Factorial, 5) == 120);
    CHECK(apply(Kernel::Factorial, 20) == 2432902008176640000.0);
    CHECK(apply(Kernel::Factorial, 170) == Approx(7.257415615307999e306).epsilon(1e-15));
    CHECK(apply(Kernel::Factorial, 0.5) == Approx(std::sqrt(3.14159265358979323846) / 2).epsilon(1e-15));
    CHECK(apply(Kernel::Mod, -1, 3) == 2);
    CHECK(apply(Kernel::Mod, 5.5, -2) == -0.5);
    CHECK(apply(Kernel::Sinc, 0) == 1);
    CHECK(apply(Kernel::Sgn, -0.25) == -1);
    CHECK(apply(Kernel::LogToBase, 2, 8) == 3);
    CHECK(apply(Kernel::ArctanOfPoint, 1, -1) == Approx(2.356194490192345).epsilon(1e-16));
}

TEST_CASE("outside its domain a function is undefined, never a number") {
    for (const Kernel kernel : {Kernel::Ln, Kernel::Lg, Kernel::Sqrt}) CHECK(std::isnan(apply(kernel, -1)));
    for (const Kernel kernel : {Kernel::Arcsin, Kernel::Arccos, Kernel::Artanh, Kernel::Arsech})
        CHECK(std::isnan(apply(kernel, 1.5)));
    for (const Kernel kernel : {Kernel::Arcsec, Kernel::Arccsc, Kernel::Arcoth, Kernel::Arcosh})
        CHECK(std::isnan(apply(kernel, 0.5)));
    CHECK(std::isnan(apply(Kernel::Factorial, -3)));
    CHECK(std::isnan(apply(Kernel::Gamma, 0)));
    CHECK(std::isnan(apply(Kernel::Gamma, -2)));
    CHECK(std::isinf(apply(Kernel::LnGamma, -2)));
    CHECK(std::isinf(apply(Kernel::Gamma, 200)));
    CHECK(apply(Kernel::Erfc, 40) == 0);
    CHECK(std::isnan(apply(Kernel::Power, -8, 1.0 / 3)));
    CHECK(std::isnan(apply(Kernel::Min, NAN, 1)));
    CHECK(std::isnan(apply(Kernel::Max, 1, NAN)));
}
