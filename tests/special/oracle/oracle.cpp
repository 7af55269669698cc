#include "oracle.h"

#include "references.h"

#include <acb_elliptic.h>
#include <acb_hypgeom.h>
#include <acb_modular.h>
#include <algorithm>
#include <arb_hypgeom.h>
#include <cmath>
#include <memory>

using namespace coulter;

namespace oracle {
namespace {

struct Complex {
    acb_t v;
    Complex() { acb_init(v); }
    explicit Complex(const Ball& x) : Complex() { acb_set_arb(v, x.v); }
    Complex(const Complex&) = delete;
    Complex& operator=(const Complex&) = delete;
    ~Complex() { acb_clear(v); }
};

using RealFunction = void (*)(arb_t, const arb_t, slong);
Reference real(RealFunction f) {
    return [f](Ball& out, const Operands& v) { f(out.v, v[0].v, precision); };
}

/// Through a complex function; the result must be real.
template <typename F> Reference complex(F f) {
    return [f](Ball& out, const Operands& v) {
        std::vector<std::unique_ptr<Complex>> z;
        for (const Ball& each : v) z.push_back(std::make_unique<Complex>(each));
        Complex result;
        f(result.v, z);
        arb_set(out.v, acb_realref(result.v));
    };
}

Reference inverseOf(RealFunction f) { // f(1/x)
    return [f](Ball& out, const Operands& v) {
        Ball r;
        arb_inv(r.v, v[0].v, precision);
        f(out.v, r.v, precision);
    };
}

/// √(π/(2x)) · cylinder(n + ½, x), for x < 0 by parity.
Reference spherical(void (*cylinder)(arb_t, const arb_t, const arb_t, slong), bool second) {
    return [cylinder, second](Ball& out, const Operands& v) {
        Ball order(0.5), x, factor;
        arb_add(order.v, order.v, v[0].v, precision);
        arb_abs(x.v, v[1].v);
        cylinder(out.v, order.v, x.v, precision);
        arb_const_pi(factor.v, precision);
        arb_div(factor.v, factor.v, x.v, precision);
        arb_mul_2exp_si(factor.v, factor.v, -1);
        arb_sqrt(factor.v, factor.v, precision);
        arb_mul(out.v, out.v, factor.v, precision);
        const double n = arf_get_d(arb_midref(v[0].v), ARF_RND_NEAR);
        if (arb_is_negative(v[1].v) && (std::fmod(n, 2) != 0) != second) arb_neg(out.v, out.v);
    };
}

/// Jacobi's functions from theta functions (DLMF 22.2.4 to 22.2.6).
Reference jacobi(int which) {
    return [which](Ball& out, const Operands& v) {
        Ball k2, kk2, K, KK;
        arb_sqr(k2.v, v[1].v, precision);
        arb_sub_ui(kk2.v, k2.v, 1, precision);
        arb_neg(kk2.v, kk2.v);
        Complex m(k2), mm(kk2), period, other, tau, z;
        acb_elliptic_k(period.v, m.v, precision);
        acb_elliptic_k(other.v, mm.v, precision);
        acb_div(tau.v, other.v, period.v, precision);
        acb_mul_onei(tau.v, tau.v);
        acb_set_arb(z.v, v[0].v);
        acb_div(z.v, z.v, period.v, precision);
        acb_mul_2exp_si(z.v, z.v, -1);
        Complex t[4], t0[4], zero;
        acb_modular_theta(t[0].v, t[1].v, t[2].v, t[3].v, z.v, tau.v, precision);
        acb_modular_theta(t0[0].v, t0[1].v, t0[2].v, t0[3].v, zero.v, tau.v, precision);
        Complex a, b;
        if (which == 0) { // θ3 θ1(z) / (θ2 θ4(z))
            acb_mul(a.v, t0[2].v, t[0].v, precision);
            acb_mul(b.v, t0[1].v, t[3].v, precision);
        } else if (which == 1) { // θ4 θ2(z) / (θ2 θ4(z))
            acb_mul(a.v, t0[3].v, t[1].v, precision);
            acb_mul(b.v, t0[1].v, t[3].v, precision);
        } else { // θ4 θ3(z) / (θ3 θ4(z))
            acb_mul(a.v, t0[3].v, t[2].v, precision);
            acb_mul(b.v, t0[2].v, t[3].v, precision);
        }
        acb_div(a.v, a.v, b.v, precision);
        arb_set(out.v, acb_realref(a.v));
    };
}

using Z = std::vector<std::unique_ptr<Complex>>;

} // namespace

const std::map<std::string_view, Reference>& references() {
    static const std::map<std::string_view, Reference> made{
        {"sqrt(x)", real(arb_sqrt)},
        {"cbrt(x)",
         [](Ball& out, const Operands& v) {
             Ball x;
             arb_abs(x.v, v[0].v);
             arb_root_ui(out.v, x.v, 3, precision);
             if (arb_is_negative(v[0].v)) arb_neg(out.v, out.v);
         }},
        {"exp(x)", real(arb_exp)},
        {"ln(x)", real(arb_log)},
        {"lg(x)", [](Ball& out, const Operands& v) { arb_log_base_ui(out.v, v[0].v, 10, precision); }},
        {"lb(x)", [](Ball& out, const Operands& v) { arb_log_base_ui(out.v, v[0].v, 2, precision); }},
        {"log_{b}(x)",
         [](Ball& out, const Operands& v) {
             Ball b;
             arb_log(b.v, v[0].v, precision);
             arb_log(out.v, v[1].v, precision);
             arb_div(out.v, out.v, b.v, precision);
         }},
        {"sin(x)", real(arb_sin)},
        {"cos(x)", real(arb_cos)},
        {"tan(x)", real(arb_tan)},
        {"cot(x)", real(arb_cot)},
        {"sec(x)", real(arb_sec)},
        {"csc(x)", real(arb_csc)},
        {"arcsin(x)", real(arb_asin)},
        {"arccos(x)", real(arb_acos)},
        {"arctan(x)", real(arb_atan)},
        {"arctan(y, x)", [](Ball& out, const Operands& v) { arb_atan2(out.v, v[0].v, v[1].v, precision); }},
        {"arccot(x)",
         [](Ball& out, const Operands& v) {
             Ball one(1);
             arb_atan2(out.v, one.v, v[0].v, precision);
         }},
        {"arcsec(x)", inverseOf(arb_acos)},
        {"arccsc(x)", inverseOf(arb_asin)},
        {"sinh(x)", real(arb_sinh)},
        {"cosh(x)", real(arb_cosh)},
        {"tanh(x)", real(arb_tanh)},
        {"coth(x)", real(arb_coth)},
        {"sech(x)", real(arb_sech)},
        {"csch(x)", real(arb_csch)},
        {"arsinh(x)", real(arb_asinh)},
        {"arcosh(x)", real(arb_acosh)},
        {"artanh(x)", real(arb_atanh)},
        {"arcoth(x)", inverseOf(arb_atanh)},
        {"arsech(x)", inverseOf(arb_acosh)},
        {"arcsch(x)", inverseOf(arb_asinh)},
        {"abs(x)", [](Ball& out, const Operands& v) { arb_abs(out.v, v[0].v); }},
        {"sgn(x)", [](Ball& out, const Operands& v) { arb_sgn(out.v, v[0].v); }},
        {"floor(x)", real(arb_floor)},
        {"ceil(x)", real(arb_ceil)},
        {"mod(x, y)",
         [](Ball& out, const Operands& v) {
             Ball q;
             arb_div(q.v, v[0].v, v[1].v, 3000);
             arb_floor(q.v, q.v, 3000);
             arb_mul(q.v, q.v, v[1].v, 3000);
             arb_sub(out.v, v[0].v, q.v, 3000);
         }},
        {"min(x, y, …)", [](Ball& out, const Operands& v) { arb_min(out.v, v[0].v, v[1].v, precision); }},
        {"max(x, y, …)", [](Ball& out, const Operands& v) { arb_max(out.v, v[0].v, v[1].v, precision); }},
        {"sinc(x)", real(arb_sinc)},
        {"Γ(x)", real(arb_gamma)},
        {"lnGamma(x)",
         [](Ball& out, const Operands& v) {
             arb_gamma(out.v, v[0].v, precision);
             arb_abs(out.v, out.v);
             arb_log(out.v, out.v, precision);
         }},
        {"ψ(x)", real(arb_digamma)},
        {"ψ_{n}(x)", complex([](acb_t out, Z& v) { acb_polygamma(out, v[0]->v, v[1]->v, precision); })},
        {"B(a, b)",
         [](Ball& out, const Operands& v) {
             Ball a, b, sum;
             arb_gamma(a.v, v[0].v, precision);
             arb_gamma(b.v, v[1].v, precision);
             arb_add(sum.v, v[0].v, v[1].v, precision);
             arb_rgamma(sum.v, sum.v, precision);
             arb_mul(out.v, a.v, b.v, precision);
             arb_mul(out.v, out.v, sum.v, precision);
         }},
        {"γ(a, x)", [](Ball& out, const Operands& v) { arb_hypgeom_gamma_lower(out.v, v[0].v, v[1].v, 0, precision); }},
        {"Γ(a, x)", [](Ball& out, const Operands& v) { arb_hypgeom_gamma_upper(out.v, v[0].v, v[1].v, 0, precision); }},
        {"P(a, x)", [](Ball& out, const Operands& v) { arb_hypgeom_gamma_lower(out.v, v[0].v, v[1].v, 1, precision); }},
        {"Q(a, x)", [](Ball& out, const Operands& v) { arb_hypgeom_gamma_upper(out.v, v[0].v, v[1].v, 1, precision); }},
        {"I_{x}(a, b)",
         [](Ball& out, const Operands& v) { arb_hypgeom_beta_lower(out.v, v[1].v, v[2].v, v[0].v, 1, precision); }},
        {"erf(x)", real(arb_hypgeom_erf)},
        {"erfc(x)", real(arb_hypgeom_erfc)},
        {"arerf(x)", real(arb_hypgeom_erfinv)},
        {"F(x)",
         [](Ball& out, const Operands& v) { // x M(1, 3/2, −x²) (DLMF 7.5.1, 7.11.4)
             Ball one(1), half(1.5), square;
             arb_sqr(square.v, v[0].v, precision);
             arb_neg(square.v, square.v);
             arb_hypgeom_1f1(out.v, one.v, half.v, square.v, 0, precision);
             arb_mul(out.v, out.v, v[0].v, precision);
         }},
        {"S(x)", [](Ball& out, const Operands& v) { arb_hypgeom_fresnel(out.v, nullptr, v[0].v, 1, precision); }},
        {"C(x)", [](Ball& out, const Operands& v) { arb_hypgeom_fresnel(nullptr, out.v, v[0].v, 1, precision); }},
        {"E_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_expint(out.v, v[0].v, v[1].v, precision); }},
        {"Ei(x)", real(arb_hypgeom_ei)},
        {"Si(x)", real(arb_hypgeom_si)},
        {"Ci(x)", real(arb_hypgeom_ci)},
        {"li(x)", [](Ball& out, const Operands& v) { arb_hypgeom_li(out.v, v[0].v, 0, precision); }},
        {"J_{n}(x)", complex([](acb_t out, Z& v) { acb_hypgeom_bessel_j(out, v[0]->v, v[1]->v, precision); })},
        {"Y_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_bessel_y(out.v, v[0].v, v[1].v, precision); }},
        {"I_{n}(x)", complex([](acb_t out, Z& v) { acb_hypgeom_bessel_i(out, v[0]->v, v[1]->v, precision); })},
        {"K_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_bessel_k(out.v, v[0].v, v[1].v, precision); }},
        {"j_{n}(x)", spherical(arb_hypgeom_bessel_j, false)},
        {"y_{n}(x)", spherical(arb_hypgeom_bessel_y, true)},
        {"Ai(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_airy(out.v, nullptr, nullptr, nullptr, v[0].v, precision); }},
        {"Bi(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_airy(nullptr, nullptr, out.v, nullptr, v[0].v, precision); }},
        {"Ai'(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_airy(nullptr, out.v, nullptr, nullptr, v[0].v, precision); }},
        {"Bi'(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_airy(nullptr, nullptr, nullptr, out.v, v[0].v, precision); }},
        {"P_{n}(x)",
         [](Ball& out, const Operands& v) {
             Ball zero;
             arb_hypgeom_legendre_p(out.v, v[0].v, zero.v, v[1].v, 0, precision);
         }},
        {"P_{n}^{m}(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_legendre_p(out.v, v[0].v, v[1].v, v[2].v, 0, precision); }},
        {"Q_{n}(x)",
         [](Ball& out, const Operands& v) {
             Ball zero;
             arb_hypgeom_legendre_q(out.v, v[0].v, zero.v, v[1].v, 0, precision);
         }},
        {"L_{n}(x)",
         [](Ball& out, const Operands& v) {
             Ball zero;
             arb_hypgeom_laguerre_l(out.v, v[0].v, zero.v, v[1].v, precision);
         }},
        {"L_{n}^{a}(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_laguerre_l(out.v, v[0].v, v[1].v, v[2].v, precision); }},
        {"H_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_hermite_h(out.v, v[0].v, v[1].v, precision); }},
        {"T_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_chebyshev_t(out.v, v[0].v, v[1].v, precision); }},
        {"U_{n}(x)", [](Ball& out, const Operands& v) { arb_hypgeom_chebyshev_u(out.v, v[0].v, v[1].v, precision); }},
        {"C_{n}^{a}(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_gegenbauer_c(out.v, v[0].v, v[1].v, v[2].v, precision); }},
        {"P_{n}^{a,b}(x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_jacobi_p(out.v, v[0].v, v[1].v, v[2].v, v[3].v, precision); }},
        {"K(k)", complex([](acb_t out, Z& v) {
             acb_mul(v[0]->v, v[0]->v, v[0]->v, precision);
             acb_elliptic_k(out, v[0]->v, precision);
         })},
        {"E(k)", complex([](acb_t out, Z& v) {
             acb_mul(v[0]->v, v[0]->v, v[0]->v, precision);
             acb_elliptic_e(out, v[0]->v, precision);
         })},
        {"F(φ, k)", complex([](acb_t out, Z& v) {
             acb_mul(v[1]->v, v[1]->v, v[1]->v, precision);
             acb_elliptic_f(out, v[0]->v, v[1]->v, 0, precision);
         })},
        {"E(φ, k)", complex([](acb_t out, Z& v) {
             acb_mul(v[1]->v, v[1]->v, v[1]->v, precision);
             acb_elliptic_e_inc(out, v[0]->v, v[1]->v, 0, precision);
         })},
        {"Π(n, k)", complex([](acb_t out, Z& v) {
             acb_mul(v[1]->v, v[1]->v, v[1]->v, precision);
             acb_elliptic_pi(out, v[0]->v, v[1]->v, precision);
         })},
        {"sn(u, k)", jacobi(0)},
        {"cn(u, k)", jacobi(1)},
        {"dn(u, k)", jacobi(2)},
        {"ζ(x)", real(arb_zeta)},
        {"W_{n}(x)",
         [](Ball& out, const Operands& v) { arb_lambertw(out.v, v[1].v, arb_is_zero(v[0].v) ? 0 : 1, precision); }},
        {"M(a, b, x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_1f1(out.v, v[0].v, v[1].v, v[2].v, 0, precision); }},
        {"F(a, b; c; x)",
         [](Ball& out, const Operands& v) { arb_hypgeom_2f1(out.v, v[0].v, v[1].v, v[2].v, v[3].v, 0, precision); }},
    };
    return made;
}

namespace {

const FunctionEntry* entryOf(std::string_view form) {
    for (const FunctionEntry& entry : catalogue()) {
        if (entry.form == form) return &entry;
    }
    return nullptr;
}

/// Places in a range: evenly, and crowded towards 0 and towards both ends.
std::vector<double> places(double low, double high, int density) {
    std::vector<double> xs;
    const double irrational = 0.6180339887498949; // so that no point is a round number
    for (int i = 0; i < density; ++i) {
        const double t = std::fmod((i + 1) * irrational, 1.0);
        xs.push_back(low + (high - low) * t);
        const double small = std::pow(10, -12 * t);
        xs.push_back(low + (high - low) * small);
        xs.push_back(high - (high - low) * small);
        if (low > 0) xs.push_back(low * std::pow(high / low, t));
        if (low == 0) xs.push_back(high * std::pow(10, -40 * t));
        if (low < 0 && high > 0) xs.push_back((i % 2 ? high : low) * std::pow(10, -20 * t));
    }
    std::erase_if(xs, [&](double x) { return !(x > low && x < high); });
    return xs;
}

} // namespace

double valueOf(const FunctionEntry& entry, const std::vector<double>& operands) {
    const Implementation& made = entry.implementation;
    if (made.scalar) return applied(made.scalar, operands.data(), operands.size());
    alignas(64) double a[8], b[8], result[8];
    std::fill_n(a, 8, operands[0]);
    std::fill_n(b, 8, operands.size() > 1 ? operands[1] : 0);
    blockKernel(made.kernel, InstructionSet::Sse2)(a, b, result, 8);
    return result[0];
}

Errors compare(const Points& points, int density) {
    Errors errors;
    const FunctionEntry& entry = *entryOf(points.form);
    const Reference& reference = references().at(points.form);
    const std::size_t varying =
        points.varying < 0 ? entry.operandCount() - 1 : static_cast<std::size_t>(points.varying);
    const auto referenceAt = [&](const std::vector<double>& operands, double nudge, Ball& out) {
        Operands v;
        for (const double each : operands) v.emplace_back(each);
        Ball factor(1), small(nudge);
        arb_add(factor.v, factor.v, small.v, precision);
        arb_mul(v[varying].v, v[varying].v, factor.v, precision);
        reference(out, v);
    };
    std::vector<std::vector<double>> others = points.others;
    if (others.empty()) others.push_back({});
    for (const std::vector<double>& other : others) {
        for (const auto& [low, high] : points.ranges) {
            std::vector<double> xs = places(low, high, density);
            std::vector<double> operands(entry.operandCount());
            for (std::size_t i = 0, k = 0; i < operands.size(); ++i) {
                if (i != varying) operands[i] = other[k++];
            }
            // Around zeros, found where the sign changes.
            std::vector<double> sorted = xs;
            std::sort(sorted.begin(), sorted.end());
            for (std::size_t i = 0; i + 1 < sorted.size() && xs.size() < 12 * static_cast<std::size_t>(density); ++i) {
                operands[varying] = sorted[i];
                const double a = valueOf(entry, operands);
                operands[varying] = sorted[i + 1];
                const double b = valueOf(entry, operands);
                if (!(a * b < 0)) continue;
                for (const double t : {0.1, 0.3, 0.5, 0.7, 0.9})
                    xs.push_back(sorted[i] + t * (sorted[i + 1] - sorted[i]));
            }
            for (const double x : xs) {
                operands[varying] = x;
                Ball exact, nudged;
                referenceAt(operands, 0, exact);
                const double got = valueOf(entry, operands);
                const double nearest = arf_get_d(arb_midref(exact.v), ARF_RND_NEAR);
                const bool known = arb_is_finite(exact.v) && arb_rel_accuracy_bits(exact.v) > 90;
                if (!known) continue; // the reference itself is undefined or not accurate enough here
                ++errors.points;
                if (std::isinf(nearest) || std::abs(nearest) < 1e-300 || std::abs(nearest) > 1e300) {
                    const bool same =
                        std::isinf(nearest) ? got == nearest : std::abs(got) < 1e-290 || std::abs(got) > 1e290;
                    if (!same && !(std::abs(got) > 1e300)) ++errors.undefined, errors.undefinedAt = operands;
                    continue;
                }
                if (!std::isfinite(got)) {
                    ++errors.undefined;
                    errors.undefinedAt = operands;
                    continue;
                }
                referenceAt(operands, 1e-25, nudged);
                Ball difference, shift, value(got);
                arb_sub(difference.v, exact.v, value.v, precision);
                arb_div(difference.v, difference.v, exact.v, precision);
                arb_sub(shift.v, nudged.v, exact.v, precision);
                arb_div(shift.v, shift.v, exact.v, precision);
                const double relative = std::abs(arf_get_d(arb_midref(difference.v), ARF_RND_NEAR));
                const double condition = std::abs(arf_get_d(arb_midref(shift.v), ARF_RND_NEAR)) / 1e-25;
                if (condition <= 16) {
                    const double unit = std::abs(std::nextafter(nearest, INFINITY) - nearest) / std::abs(nearest);
                    if (relative / unit > errors.ulps) errors.ulps = relative / unit, errors.worst = operands;
                } else if (condition <= 1e6 && relative / (condition * 0x1p-53) > errors.relative) {
                    errors.relative = relative / (condition * 0x1p-53);
                    errors.worstOther = operands;
                }
            }
        }
    }
    return errors;
}

std::vector<Points> allPoints() {
    using P = Points;
    const std::vector<std::vector<double>> orders{{0}, {1}, {2}, {5}, {0.5}, {1.0 / 3}, {10.25}, {40}};
    const std::vector<std::vector<double>> whole{{0}, {1}, {2}, {3}, {7}, {20}, {50}};
    return {
        P{"sqrt(x)", {}, {{0, 4}, {1, 1e12}}},
        P{"cbrt(x)", {}, {{-5, 5}, {1, 1e12}}},
        P{"exp(x)", {}, {{-5, 5}, {-700, 700}}},
        P{"ln(x)", {}, {{0, 3}, {1, 1e15}}},
        P{"lg(x)", {}, {{0, 3}, {1, 1e15}}},
        P{"lb(x)", {}, {{0, 3}, {1, 1e15}}},
        P{"log_{b}(x)", {{2}, {10}, {0.5}, {3.7}}, {{0, 3}, {1, 1e6}}},
        P{"sin(x)", {}, {{-7, 7}, {1, 1e6}, {1e10, 1e15}}},
        P{"cos(x)", {}, {{-7, 7}, {1, 1e6}, {1e10, 1e15}}},
        P{"tan(x)", {}, {{-7, 7}, {1, 1e6}}},
        P{"cot(x)", {}, {{-7, 7}, {1, 1e6}}},
        P{"sec(x)", {}, {{-7, 7}, {1, 1e6}}},
        P{"csc(x)", {}, {{-7, 7}, {1, 1e6}}},
        P{"arcsin(x)", {}, {{-1, 1}}},
        P{"arccos(x)", {}, {{-1, 1}}},
        P{"arctan(x)", {}, {{-5, 5}, {1, 1e12}}},
        P{"arctan(y, x)", {{0.3}, {-2}, {1e-5}, {7}}, {{-5, 5}}},
        P{"arccot(x)", {}, {{-5, 5}, {1, 1e12}}},
        P{"arcsec(x)", {}, {{1, 8}, {-8, -1}, {1, 1e12}}},
        P{"arccsc(x)", {}, {{1, 8}, {-8, -1}, {1, 1e12}}},
        P{"sinh(x)", {}, {{-5, 5}, {-700, 700}}},
        P{"cosh(x)", {}, {{-5, 5}, {-700, 700}}},
        P{"tanh(x)", {}, {{-5, 5}, {-40, 40}}},
        P{"coth(x)", {}, {{-5, 5}, {-40, 40}}},
        P{"sech(x)", {}, {{-5, 5}, {-600, 600}}},
        P{"csch(x)", {}, {{-5, 5}, {-600, 600}}},
        P{"arsinh(x)", {}, {{-5, 5}, {1, 1e12}}},
        P{"arcosh(x)", {}, {{1, 8}, {1, 1e12}}},
        P{"artanh(x)", {}, {{-1, 1}}},
        P{"arcoth(x)", {}, {{1, 8}, {-8, -1}, {1, 1e6}}},
        P{"arsech(x)", {}, {{0, 1}}},
        P{"arcsch(x)", {}, {{-5, 5}, {1, 1e6}}},
        P{"abs(x)", {}, {{-5, 5}}},
        P{"sgn(x)", {}, {{-5, -0.1}, {0.1, 5}}},
        P{"floor(x)", {}, {{1.1, 1.9}, {-1.9, -1.1}, {1e9, 1e12}}},
        P{"ceil(x)", {}, {{1.1, 1.9}, {-1.9, -1.1}, {1e9, 1e12}}},
        P{"mod(x, y)", {{2}, {0.3}, {-1.7}}, {{-20, 20}, {1e5, 1e9}}, 0},
        P{"min(x, y, …)", {{2}, {-1}}, {{-5, 5}}},
        P{"max(x, y, …)", {{2}, {-1}}, {{-5, 5}}},
        P{"sinc(x)", {}, {{-20, 20}, {1, 1e6}}},
        P{"Γ(x)", {}, {{0, 30}, {-8, 0}, {20, 170}}},
        P{"lnGamma(x)", {}, {{0, 30}, {-8, 0}, {1, 1e10}}},
        P{"ψ(x)", {}, {{0, 30}, {-8, 0}, {1, 1e10}}},
        P{"ψ_{n}(x)", {{1}, {2}, {3}, {6}}, {{0, 30}, {-5, 0}}},
        P{"B(a, b)", {{0.3}, {1}, {2.5}, {20}, {-0.5}}, {{0, 10}, {-3, 0}}},
        P{"γ(a, x)", {{0.1}, {0.5}, {1}, {3}, {25}}, {{0, 40}}},
        P{"Γ(a, x)", {{-2.5}, {-1}, {0}, {0.1}, {0.5}, {1}, {3}, {25}}, {{0, 40}}},
        P{"P(a, x)", {{0.1}, {0.5}, {1}, {3}, {25}, {300}}, {{0, 40}, {200, 400}}},
        P{"Q(a, x)", {{0.1}, {0.5}, {1}, {3}, {25}, {300}}, {{0, 40}, {200, 400}}},
        P{"I_{x}(a, b)", {{0.5, 0.5}, {1, 3}, {2.5, 0.3}, {30, 20}}, {{0, 1}}, 0},
        P{"erf(x)", {}, {{-6, 6}}},
        P{"erfc(x)", {}, {{-6, 6}, {0, 26}}},
        P{"arerf(x)", {}, {{-1, 1}}},
        P{"F(x)", {}, {{-10, 10}, {1, 1e6}}},
        P{"S(x)", {}, {{-10, 10}, {1, 1e4}}},
        P{"C(x)", {}, {{-10, 10}, {1, 1e4}}},
        P{"E_{n}(x)", {{0}, {1}, {2}, {5}, {30}, {0.5}, {2.7}, {-1.5}}, {{0, 5}, {1, 300}}},
        P{"Ei(x)", {}, {{-40, 0}, {0, 5}, {1, 600}}},
        P{"Si(x)", {}, {{-30, 30}, {1, 1e6}}},
        P{"Ci(x)", {}, {{0, 30}, {1, 1e6}}},
        P{"li(x)", {}, {{0, 1}, {1, 10}, {2, 1e12}}},
        P{"J_{n}(x)", orders, {{0, 60}, {1, 1e4}}},
        P{"Y_{n}(x)", orders, {{0, 60}, {1, 1e4}}},
        P{"I_{n}(x)", orders, {{0, 60}, {1, 600}}},
        P{"K_{n}(x)", orders, {{0, 60}, {1, 600}}},
        P{"j_{n}(x)", {{0}, {1}, {2}, {5}, {20}, {0.3}}, {{0, 60}, {1, 1e4}}},
        P{"y_{n}(x)", {{0}, {1}, {2}, {5}, {20}, {0.3}}, {{0, 60}, {1, 1e4}}},
        P{"Ai(x)", {}, {{-30, 0}, {0, 30}, {-1e4, -1}}},
        P{"Bi(x)", {}, {{-30, 0}, {0, 30}, {-1e4, -1}}},
        P{"Ai'(x)", {}, {{-30, 0}, {0, 30}, {-1e4, -1}}},
        P{"Bi'(x)", {}, {{-30, 0}, {0, 30}, {-1e4, -1}}},
        P{"P_{n}(x)", {{0}, {1}, {2}, {3}, {7}, {20}, {50}, {0.5}, {-0.3}, {2.7}}, {{-1, 1}, {1, 10}}},
        P{"P_{n}^{m}(x)", {{1, 1}, {2, 1}, {3, 2}, {7, 3}, {20, 5}, {4, 4}}, {{-1, 1}}},
        P{"Q_{n}(x)", {{0}, {1}, {2}, {3}, {7}, {20}}, {{-1, 1}}},
        P{"L_{n}(x)", whole, {{-5, 40}}},
        P{"L_{n}^{a}(x)", {{1, 0.5}, {2, -0.5}, {3, 2}, {20, 1.5}}, {{-5, 40}}},
        P{"H_{n}(x)", whole, {{-8, 8}}},
        P{"T_{n}(x)", {{0}, {1}, {2}, {3}, {7}, {50}, {0.5}, {2.7}}, {{-1, 1}, {1, 5}}},
        P{"U_{n}(x)", whole, {{-1, 1}, {1, 5}}},
        P{"C_{n}^{a}(x)", {{1, 0.5}, {2, 1.5}, {5, -0.3}, {20, 2}}, {{-1, 1}, {1, 5}}},
        P{"P_{n}^{a,b}(x)", {{1, 0.5, 0.5}, {2, 1, 2}, {5, -0.3, 0.7}, {20, 2, 1}}, {{-1, 1}, {1, 5}}},
        P{"K(k)", {}, {{-1, 1}}},
        P{"E(k)", {}, {{-1, 1}}},
        P{"F(φ, k)", {{0.1}, {0.5}, {0.9}, {0.999}}, {{-5, 5}}, 0},
        P{"E(φ, k)", {{0.1}, {0.5}, {0.9}, {0.999}}, {{-5, 5}}, 0},
        P{"Π(n, k)", {{-3}, {-0.5}, {0.3}, {0.9}}, {{-1, 1}}},
        P{"sn(u, k)", {{0.1}, {0.5}, {0.9}, {0.999}}, {{-8, 8}}, 0},
        P{"cn(u, k)", {{0.1}, {0.5}, {0.9}, {0.999}}, {{-8, 8}}, 0},
        P{"dn(u, k)", {{0.1}, {0.5}, {0.9}, {0.999}}, {{-8, 8}}, 0},
        P{"ζ(x)", {}, {{-15, 1}, {1, 30}}},
        P{"W_{n}(x)", {{0}}, {{-0.36787944117144233, 5}, {1, 1e10}}},
        P{"W_{n}(x)", {{-1}}, {{-0.36787944117144233, 0}}},
        P{"M(a, b, x)", {{0.5, 1.5}, {1, 2}, {-2, 0.5}, {-3.3, 2.2}, {10, 0.7}}, {{-30, 30}}},
        P{"F(a, b; c; x)",
          {{1, 1, 2}, {0.5, 0.5, 1}, {0.5, 1, 1.5}, {-3, 2, 1}, {2.2, -1.3, 0.7}, {3, 4, 2.5}},
          {{-20, 0}, {0, 1}}},
    };
}

} // namespace oracle
