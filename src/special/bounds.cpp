#include "special/bounds.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstdint>
#include <map>

namespace coulter {

double moved(double x, int ulps) {
    if (std::abs(x) > 1e-300 && std::abs(x) < 1e300) { // far from 0 and ±inf neighbours are neighbouring integers
        const auto bits = std::bit_cast<std::int64_t>(x);
        return std::bit_cast<double>(x > 0 ? bits + ulps : bits - ulps);
    }
    for (int i = 0; i < std::abs(ulps); ++i) x = std::nextafter(x, ulps > 0 ? HUGE_VAL : -HUGE_VAL);
    return x;
}

namespace {

constexpr double pi = 3.141592653589793;

/// A function of one operand, the others being fixed.
struct Slice {
    ScalarFunction f;
    std::array<double, 4> v;
    std::size_t varying;
    double low, high;

    double at(double x) const {
        auto w = v;
        w[varying] = x;
        return f(w.data());
    }
    std::optional<Bounds> monotone(int direction) const {
        const double a = at(low), b = at(high);
        if (std::isnan(a) || std::isnan(b)) return std::nullopt;
        const double least = direction > 0 ? a : b, greatest = direction > 0 ? b : a;
        return Bounds{moved(least, -marginUlps), moved(greatest, marginUlps)};
    }
    /// From the value in the middle and a bound of the slope.
    std::optional<Bounds> sloping(double slope) const {
        const double middle = low + (high - low) / 2, value = at(middle);
        const double reach = slope * std::max(high - middle, middle - low) * (1 + 1e-12);
        if (!std::isfinite(value) || !std::isfinite(reach)) return std::nullopt;
        return Bounds{moved(moved(value, -marginUlps) - reach, -1), moved(moved(value, marginUlps) + reach, 1)};
    }
    std::optional<Bounds> sloping(double slope, Bounds within) const {
        const auto found = sloping(slope);
        if (!found) return within;
        return Bounds{std::max(found->low, within.low), std::min(found->high, within.high)};
    }
    /// Even in the operand and monotone on its positive side.
    std::optional<Bounds> evenMonotone(int direction) const {
        if (low >= 0) return monotone(direction);
        if (high <= 0) return monotone(-direction);
        Slice half = *this;
        half.low = 0;
        half.high = std::max(-low, high);
        return half.monotone(direction);
    }
};

double absolute(double x) { return std::abs(x); }
double largest(const Bounds& b) { return std::max(absolute(b.low), absolute(b.high)); }

bool isWhole(double x) { return x == std::floor(x); }

/// √(J_n² + Y_n²), which decreases with x > 0 (from Nicholson's integral DLMF 10.9.30), at x.
double besselModulus(double n, double x) {
    const double v[] = {std::abs(n), x};
    return std::hypot(besselJ(v), besselY(v)) * (1 + 1e-12);
}

/// |J_n′|, |Y_n′| ≤ (M_{n−1} + M_{n+1})/2 (DLMF 10.6.1).
double besselSlope(double n, double x) {
    if (!(x > 0)) return HUGE_VAL;
    return (besselModulus(n - 1, x) + besselModulus(n + 1, x)) / 2;
}

double sphericalModulus(double n, double x) {
    return std::sqrt(pi / (2 * x)) * besselModulus(n + 0.5, x) * (1 + 1e-12);
}

/// Polynomials whose derivative is a multiple of one of lower degree: f(m) + f′([x]) ([x] − m), downwards to degree 0.
template <typename Value, typename Step>
std::optional<Bounds> polynomialBounds(int n, double low, double high, const Value& value, const Step& step) {
    constexpr int highest = 100;
    if (n == -1) return Bounds{0, 0}; // what the derivative of a constant member leads to
    if (n < 0 || n > highest) return std::nullopt;
    const double middle = low + (high - low) / 2, radius = std::max(high - middle, middle - low);
    Bounds derivative{0, 0};
    for (int k = 0; k <= n; ++k) { // the member of degree k, differentiated n − k times before
        const double at = value(k, n - k, middle);
        if (!std::isfinite(at)) return std::nullopt;
        const double reach = largest(derivative) * radius * (1 + 1e-12);
        derivative = {moved(moved(at, -marginUlps) - reach, -1), moved(moved(at, marginUlps) + reach, 1)};
        if (k == n) return derivative;
        // One degree up, this one is the derivative over a factor.
        const double factor = step(k + 1, n - k - 1);
        derivative = {derivative.low * factor, derivative.high * factor};
        if (derivative.low > derivative.high) std::swap(derivative.low, derivative.high);
        derivative = {moved(derivative.low, -2), moved(derivative.high, 2)};
    }
    return derivative;
}

/// C_n^a, whose derivative is 2a C_{n−1}^{a+1} (DLMF 18.9.19).
std::optional<Bounds> gegenbauerBounds(int n, double a, double low, double high) {
    return polynomialBounds(
        n, low, high,
        [&](int k, int times, double x) {
            const double v[] = {static_cast<double>(k), a + times, x};
            return gegenbauerC(v);
        },
        [&](int, int times) { return 2 * (a + times); });
}

/// f(middle) with the bounds of a slope that is itself enclosed.
std::optional<Bounds> withSlope(const Slice& s, const std::optional<Bounds>& slope, double factor) {
    return slope ? s.sloping(largest(*slope) * std::abs(factor)) : std::nullopt;
}

/// Ai′² − x Ai² decreases (its derivative is −Ai²), so on x < 0 it bounds the slope from the left end; the same for Bi.
double airySlope(double low, ScalarFunction value, ScalarFunction slope) {
    const double y = value(&low), d = slope(&low);
    return std::sqrt(d * d - low * y * y) * (1 + 1e-12);
}

std::optional<Bounds> joined(const std::optional<Bounds>& a, const std::optional<Bounds>& b) {
    if (!a || !b) return std::nullopt;
    return Bounds{std::min(a->low, b->low), std::max(a->high, b->high)};
}

/// Left and right of `place` apart.
template <typename Left, typename Right>
std::optional<Bounds> dividedAt(double place, const Slice& s, const Left& left, const Right& right) {
    if (s.high <= place) return left(s);
    if (s.low >= place) return right(s);
    Slice a = s, b = s;
    a.high = b.low = place;
    return joined(left(a), right(b));
}

using Rule = std::optional<Bounds> (*)(const Slice&);

std::optional<Bounds> increasing(const Slice& s) { return s.monotone(1); }
std::optional<Bounds> decreasing(const Slice& s) { return s.monotone(-1); }

bool noPole(const Slice& s) { return s.low > 0 || (std::floor(s.low) == std::floor(s.high) && !isWhole(s.low)); }

const std::map<ScalarFunction, Rule>& rules() {
    static const std::map<ScalarFunction, Rule> made{
        {digammaPsi, [](const Slice& s) { return noPole(s) ? s.monotone(1) : std::nullopt; }}, // ψ′ > 0, DLMF 5.15.1
        {polygammaPsi,
         [](const Slice& s) -> std::optional<Bounds> {
             if (s.varying != 1 || s.low <= 0 || s.v[0] < 1) return std::nullopt;
             return s.monotone(std::fmod(s.v[0], 2) != 0 ? -1 : 1); // DLMF 5.15.1
         }},
        {betaFunction,
         [](const Slice& s) { // the integrand of DLMF 5.12.1 falls with a and with b
             return s.low > 0 && s.v[1 - s.varying] > 0 ? s.monotone(-1) : std::nullopt;
         }},
        {lowerGamma, [](const Slice& s) { return s.varying == 1 && s.low >= 0 ? s.monotone(1) : std::nullopt; }},
        {upperGamma, [](const Slice& s) { return s.varying == 1 && s.low > 0 ? s.monotone(-1) : std::nullopt; }},
        {regularisedLowerGamma,
         [](const Slice& s) { return s.varying == 1 && s.low >= 0 ? s.monotone(1) : std::nullopt; }},
        {regularisedUpperGamma,
         [](const Slice& s) { return s.varying == 1 && s.low >= 0 ? s.monotone(-1) : std::nullopt; }},
        {regularisedBeta, [](const Slice& s) { return s.varying == 0 ? s.monotone(1) : std::nullopt; }},
        {inverseErf, increasing},
        {dawson, [](const Slice& s) { return s.sloping(1); }}, // F′ = 1 − 2xF lies between −0.29 and 1
        {fresnelS, [](const Slice& s) { return s.sloping(1); }},
        {fresnelC, [](const Slice& s) { return s.sloping(1); }},
        {exponentialIntegralE,
         [](const Slice& s) { return s.varying == 1 && s.low > 0 ? s.monotone(-1) : std::nullopt; }},
        {exponentialIntegralEi,
         [](const Slice& s) { return s.low > 0    ? s.monotone(1)
                                     : s.high < 0 ? s.monotone(-1)
                                                  : std::nullopt; }},
        {sineIntegral, [](const Slice& s) { return s.sloping(1); }},
        {cosineIntegral,
         [](const Slice& s) { return s.low > 0 ? s.sloping(std::min(1 / s.low, 1e300)) : std::nullopt; }},
        {logarithmicIntegral,
         [](const Slice& s) {
             return s.low > 1 ? s.monotone(1) : s.low >= 0 && s.high < 1 ? s.monotone(-1) : std::nullopt;
         }},
        {besselJ,
         [](const Slice& s) -> std::optional<Bounds> { // |J_n| ≤ 1 for n ≥ 0, DLMF 10.14.1
             const double n = std::abs(s.v[0]);
             if (s.varying != 1 || (!isWhole(n) && (s.v[0] < 1 || s.low < 0))) return std::nullopt;
             const double near = s.low > 0 ? s.low : s.high < 0 ? -s.high : 0;
             return s.sloping(near > 0 && isWhole(n) ? std::min(1.0, besselSlope(n, near)) : 1, {-1, 1});
         }},
        {besselY,
         [](const Slice& s) -> std::optional<Bounds> {
             const double n = std::abs(s.v[0]);
             if (s.varying != 1 || s.low <= 0 || !(isWhole(n) || s.v[0] >= 1)) return std::nullopt;
             const double most = besselModulus(n, s.low);
             return s.sloping(besselSlope(n, s.low), {-most, most});
         }},
        {besselI,
         [](const Slice& s) -> std::optional<Bounds> { // all terms of DLMF 10.25.2 grow with x > 0
             if (s.varying != 1 || !(s.v[0] >= 0 || isWhole(s.v[0]))) return std::nullopt;
             if (s.low >= 0) return s.monotone(1);
             if (!isWhole(s.v[0])) return std::nullopt;
             return std::fmod(s.v[0], 2) != 0 ? s.monotone(1) : s.evenMonotone(1);
         }},
        {besselK,
         [](const Slice& s) { return s.varying == 1 && s.low > 0 ? s.monotone(-1) : std::nullopt; }}, // DLMF 10.37
        {sphericalJ,
         [](const Slice& s) -> std::optional<Bounds> { // |j_n| ≤ 1; DLMF 10.51.1
             if (s.varying != 1 || !isWhole(s.v[0]) || s.v[0] < 0) return std::nullopt;
             return s.sloping(1, {-1, 1});
         }},
        {sphericalY,
         [](const Slice& s) -> std::optional<Bounds> {
             const double n = s.v[0];
             if (s.varying != 1 || !isWhole(n) || n < 0 || s.low <= 0) return std::nullopt;
             const double most = sphericalModulus(n, s.low);
             const double below = n > 0 ? sphericalModulus(n - 1, s.low) : 0;
             return s.sloping((n * below + (n + 1) * sphericalModulus(n + 1, s.low)) / (2 * n + 1), {-most, most});
         }},
        {airyAi,
         [](const Slice& s) {
             return dividedAt(
                 0, s, [](const Slice& l) { return l.sloping(airySlope(l.low, airyAi, airyAiPrime)); }, decreasing);
         }},
        {airyBi,
         [](const Slice& s) {
             return dividedAt(
                 0, s, [](const Slice& l) { return l.sloping(airySlope(l.low, airyBi, airyBiPrime)); }, increasing);
         }},
        {airyAiPrime,
         [](const Slice& s) { // Ai″ = x Ai, |Ai| < 0.536
             return dividedAt(
                 0, s, [](const Slice& l) { return l.sloping(-l.low * 0.536); }, increasing);
         }},
        {airyBiPrime,
         [](const Slice& s) { // Bi″ = x Bi, |Bi| < 0.615 for x ≤ 0
             return dividedAt(
                 0, s, [](const Slice& l) { return l.sloping(-l.low * 0.615); }, increasing);
         }},
        {legendreP,
         [](const Slice& s) -> std::optional<Bounds> { // P_n = C_n^{1/2}, DLMF 18.7.9
             if (s.varying != 1 || !isWhole(s.v[0])) return std::nullopt;
             const double n = s.v[0] < 0 ? -s.v[0] - 1 : s.v[0];
             return n > 100 ? std::nullopt : gegenbauerBounds(static_cast<int>(n), 0.5, s.low, s.high);
         }},
        {chebyshevU,
         [](const Slice& s) {
             return s.varying == 1 && isWhole(s.v[0]) && std::abs(s.v[0]) <= 100
                        ? gegenbauerBounds(static_cast<int>(s.v[0]), 1, s.low, s.high)
                        : std::nullopt;
         }},
        {chebyshevT,
         [](const Slice& s) -> std::optional<Bounds> { // T_n′ = n U_{n−1}, DLMF 18.9.21
             const double n = std::abs(s.v[0]);
             if (s.varying != 1 || !isWhole(n) || n > 100) return std::nullopt;
             if (n == 0) return Bounds{1, 1};
             return withSlope(s, gegenbauerBounds(static_cast<int>(n) - 1, 1, s.low, s.high), n);
         }},
        {gegenbauerC,
         [](const Slice& s) {
             return s.varying == 2 && isWhole(s.v[0]) && std::abs(s.v[0]) <= 100
                        ? gegenbauerBounds(static_cast<int>(s.v[0]), s.v[1], s.low, s.high)
                        : std::nullopt;
         }},
        {hermiteH,
         [](const Slice& s) -> std::optional<Bounds> { // H_n′ = 2n H_{n−1}, DLMF 18.9.25
             if (s.varying != 1 || !isWhole(s.v[0]) || std::abs(s.v[0]) > 100) return std::nullopt;
             return polynomialBounds(
                 static_cast<int>(s.v[0]), s.low, s.high,
                 [](int k, int, double x) {
                     const double v[] = {static_cast<double>(k), x};
                     return hermiteH(v);
                 },
                 [](int k, int) { return 2.0 * k; });
         }},
        {associatedLaguerreL,
         [](const Slice& s) -> std::optional<Bounds> { // L_n^a′ = −L_{n−1}^{a+1}, DLMF 18.9.23
             if (s.varying != 2 || !isWhole(s.v[0]) || std::abs(s.v[0]) > 100) return std::nullopt;
             const double a = s.v[1];
             return polynomialBounds(
                 static_cast<int>(s.v[0]), s.low, s.high,
                 [a](int k, int times, double x) {
                     const double v[] = {static_cast<double>(k), a + times, x};
                     return associatedLaguerreL(v);
                 },
                 [](int, int) { return -1.0; });
         }},
        {laguerreL,
         [](const Slice& s) -> std::optional<Bounds> {
             if (s.varying != 1) return std::nullopt;
             const double v[] = {s.v[0], 0, 0};
             return boundsOver(associatedLaguerreL, v, 3, 2, s.low, s.high);
         }},
        {jacobiP,
         [](const Slice& s) -> std::optional<Bounds> { // DLMF 18.9.15
             if (s.varying != 3 || !isWhole(s.v[0]) || std::abs(s.v[0]) > 100) return std::nullopt;
             const double a = s.v[1], b = s.v[2];
             return polynomialBounds(
                 static_cast<int>(s.v[0]), s.low, s.high,
                 [a, b](int k, int times, double x) {
                     const double v[] = {static_cast<double>(k), a + times, b + times, x};
                     return jacobiP(v);
                 },
                 [a, b](int k, int times) { return (k + a + times + b + times + 1) / 2; });
         }},
        {ellipticK, [](const Slice& s) { return s.evenMonotone(1); }},
        {ellipticE, [](const Slice& s) { return s.evenMonotone(-1); }},
        {ellipticF,
         [](const Slice& s) { return s.varying == 0 && std::abs(s.v[1]) < 1 ? s.monotone(1) : std::nullopt; }},
        {ellipticIncompleteE,
         [](const Slice& s) { return s.varying == 0 && std::abs(s.v[1]) <= 1 ? s.monotone(1) : std::nullopt; }},
        {ellipticPi,
         [](const Slice& s) { // the integrand of DLMF 19.2.7 grows with n and with |k|
             return s.varying == 0 ? s.monotone(1) : s.evenMonotone(1);
         }},
        {jacobiSn,
         [](const Slice& s) {
             return s.varying == 0 && std::abs(s.v[1]) <= 1 ? s.sloping(1, {-1, 1}) : std::nullopt;
         }},
        {jacobiCn,
         [](const Slice& s) {
             return s.varying == 0 && std::abs(s.v[1]) <= 1 ? s.sloping(1, {-1, 1}) : std::nullopt;
         }},
        {jacobiDn,
         [](const Slice& s) {
             return s.varying == 0 && std::abs(s.v[1]) <= 1 ? s.sloping(1, {0, 1}) : std::nullopt;
         }},
        {zetaFunction,
         [](const Slice& s) { return s.low > 1 || (s.low >= 0 && s.high < 1) ? s.monotone(-1) : std::nullopt; }},
        {lambertW, [](const Slice& s) { return s.varying == 1 ? s.monotone(s.v[0] == 0 ? 1 : -1) : std::nullopt; }},
        {kummerM,
         [](const Slice& s) { // all terms of DLMF 13.2.2 are positive
             return s.varying == 2 && s.v[0] > 0 && s.v[1] > 0 && s.low >= 0 ? s.monotone(1) : std::nullopt;
         }},
        {hypergeometricF,
         [](const Slice& s) { // all terms of DLMF 15.2.1 are positive
             return s.varying == 3 && s.v[0] > 0 && s.v[1] > 0 && s.v[2] > 0 && s.low >= 0 && s.high < 1 ? s.monotone(1)
                                                                                                         : std::nullopt;
         }},
    };
    return made;
}

} // namespace

std::optional<Bounds> boundsOver(ScalarFunction f, const double* v, std::size_t count, std::size_t varying, double low,
                                 double high) {
    Slice slice{f, {}, varying, low, high};
    std::copy_n(v, count, slice.v.begin());
    if (low == high) { // a single place: its value, with the margin
        const double value = slice.at(low);
        if (std::isnan(value)) return std::nullopt;
        return Bounds{moved(value, -marginUlps), moved(value, marginUlps)};
    }
    const auto rule = rules().find(f);
    if (rule == rules().end() || std::isnan(low) || std::isnan(high)) return std::nullopt;
    return rule->second(slice);
}

} // namespace coulter
