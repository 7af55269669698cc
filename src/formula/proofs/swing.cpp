#include "formula/proofs/swing.h"

#include "formula/bounds/interval_rules.h"
#include "formula/program/tangent.h"
#include "formula/proofs/growth.h"
#include "formula/proofs/taylor_evaluator.h"

#include <array>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

/// As far as twelve derivatives go; beyond it two are enough.
constexpr std::array<double, 4> lastPlaces{0x1p12, 0x1p22, 0x1p33, 0x1p44};

/// ∫ |g″| from a place on, where g and g′ vanish at last.
std::optional<double> curvatureBeyond(const Program& g, double place, std::span<const Bounds> others) {
    const std::array<std::size_t, 1> first{0};
    const auto slope = tangentOf(g, first);
    const auto curvature = slope ? tangentOf(*slope, first) : std::nullopt;
    if (!curvature) return std::nullopt;
    std::vector<Bounds> more(others.begin(), others.end());
    const auto vanishes = [](const std::optional<Growth>& growth) {
        if (!growth) return false;
        const double rate = growth->exponential.high;
        return growth->factorial < 0 ||
               (growth->factorial == 0 && (rate < 0 || (rate == 0 && growth->power < 0) || isZero(growth->factor)));
    };
    const auto value = growthOf(g, place, more);
    more.push_back(exactly(1));
    const auto ofSlope = growthOf(*slope, place, more);
    more.push_back(exactly(1));
    const auto ofCurvature = growthOf(*curvature, place, more);
    if (!vanishes(value) || !vanishes(ofSlope) || !ofCurvature) return std::nullopt;
    Growth size = *ofCurvature;
    const double most = magnitude(size.factor);
    size.factor = {most, most};
    const auto beyond = integralBeyond(size, place);
    return beyond && isBounded(*beyond) ? std::optional(magnitude(*beyond)) : std::nullopt;
}

double factorial(std::size_t n) { return n < 2 ? 1 : static_cast<double>(n) * factorial(n - 1); }

/// What the two ends and the remainders of a swing's expansion are made of.
struct Ends {
    TaylorSeries near, far;
    double between = 0; ///< ∫ of the highest coefficient
    double beyond = 0;  ///< ∫ of the second derivative from there on
};

/// @param little  what may be left open
std::optional<Ends> endsOf(const Program& g, double from, std::span<const Bounds> others, double little) {
    if (!(from >= 1)) return std::nullopt;
    TaylorEvaluator series(g);
    const auto near = series(exactly(from), others);
    if (!near) return std::nullopt;
    for (const double last : lastPlaces) {
        if (!(from < last)) continue;
        const auto beyond = curvatureBeyond(g, last, others);
        if (last < lastPlaces.back() && !(beyond && *beyond <= little)) continue;
        const auto far = beyond ? series(exactly(last), others) : std::nullopt;
        const auto between = far ? highestCoefficientOver(g, from, last, others) : std::nullopt;
        return between ? std::optional(Ends{*near, *far, *between, *beyond}) : std::nullopt;
    }
    return std::nullopt;
}

Bounds within(double reach) { return {-reach, reach}; }

} // namespace

std::optional<Bounds> boundsOf(Kernel wave, const Bounds& angle) {
    const Enclosure value = enclose(wave, {angle.low, angle.high}, {}, false);
    return value.isProof() ? std::optional(Bounds{value.low, value.high}) : std::nullopt;
}

std::optional<double> highestCoefficientOver(const Program& f, double first, double last,
                                             std::span<const Bounds> others) {
    TaylorEvaluator series(f);
    double sum = 0;
    for (double from = first; from < last;) {
        const double to = std::min(last, 2 * from);
        constexpr int parts = 8; // the wider they are, the more is lost of quotients
        for (int i = 0; i < parts; ++i) {
            const double a = from + (to - from) * i / parts, b = from + (to - from) * (i + 1) / parts;
            const auto along = series({a, b}, others);
            if (!along) return std::nullopt;
            sum = roundedUp(sum + roundedUp(productOf(magnitude((*along)[taylorOrder]), roundedUp(b - a))));
        }
        from = to;
    }
    return std::isfinite(sum) ? std::optional(sum) : std::nullopt;
}

double awayFromTurns(const Bounds& rate) {
    const Bounds turn = 2 * halfTurn;
    const double turns = std::floor(rate.low / turn.low);
    if (!(std::abs(turns) < 1e6)) return 0;
    const Bounds left = rate - turns * turn;
    return std::max(0.0, std::min({left.low, roundedDown(turn.low - left.high), halfTurn.low}));
}

std::optional<Bounds> swingingIntegralFrom(const Swing& swing, double from, std::span<const Bounds> others,
                                           double little) {
    const double slowest = magnitude(reciprocal(swing.rate));
    const auto ends = endsOf(swing.rest, from, others, little / (slowest * slowest));
    if (!ends) return std::nullopt;
    // sin and cos of ω X + φ
    const Bounds turned = swing.rate * exactly(from);
    const auto s = boundsOf(Kernel::Sin, turned), c = boundsOf(Kernel::Cos, turned);
    if (!s || !c) return std::nullopt;
    const Bounds sine = *s * swing.cosine + *c * swing.sine, cosine = *c * swing.cosine - *s * swing.sine;
    // The j-th antiderivative of sin θ is sin(θ − j π/2)/ω^j.
    const std::array<Bounds, 4> waves{sine, -cosine, -sine, cosine};
    const Bounds over = reciprocal(swing.rate);
    Bounds sum{0, 0}, power = over;
    double far = 0, sizeOfPower = slowest;
    for (std::size_t j = 0; j < taylorOrder; ++j) {
        const Bounds derivative = exactly(factorial(j)) * ends->near[j];
        const Bounds term = derivative * waves[(j + 1) % 4] * power;
        sum = j % 2 == 0 ? sum - term : sum + term;
        if (j >= 2) far = roundedUp(far + roundedUp(factorial(j) * magnitude(ends->far[j])) * sizeOfPower * (1 + 1e-9));
        power = power * over;
        sizeOfPower = roundedUp(sizeOfPower * slowest);
    }
    const double remainder =
        roundedUp(factorial(taylorOrder) * ends->between) * magnitude(power) / slowest * (1 + 1e-9);
    const double beyond = ends->beyond * roundedUp(slowest * slowest) * (1 + 1e-9);
    const Bounds all = sum + within(far) + within(remainder) + within(beyond);
    return isBounded(all) ? std::optional(all) : std::nullopt;
}

namespace {

/// A complex number within bounds.
struct Complex {
    Bounds real, imaginary;
    friend Complex operator+(const Complex& a, const Complex& b) {
        return {a.real + b.real, a.imaginary + b.imaginary};
    }
    friend Complex operator*(const Complex& a, const Complex& b) {
        return {a.real * b.real - a.imaginary * b.imaginary, a.real * b.imaginary + a.imaginary * b.real};
    }
    friend Complex operator*(const Bounds& by, const Complex& a) { return {by * a.real, by * a.imaginary}; }
};

} // namespace

std::optional<Bounds> swingingSumFrom(const Swing& swing, double from, std::span<const Bounds> others, double little) {
    const double away = awayFromTurns(swing.rate);
    if (!(away > 0)) return std::nullopt;
    // Σ 1/|ω + 2π l|^m: the nearest two l, and all others, which are at least 2π away, together.
    const auto sumOverTurns = [&](std::size_t m) {
        double power = 1;
        for (std::size_t i = 0; i < m; ++i) power = roundedUp(power / away);
        constexpr double further = 1.5; // 1 + Σ (d/2π l)^m over all l ≥ 1, for a d ≤ π and m ≥ 2
        return 2 * further * power;
    };
    const auto ends = endsOf(swing.rest, from, others, little / sumOverTurns(2));
    const auto c = boundsOf(Kernel::Cos, swing.rate), s = boundsOf(Kernel::Sin, swing.rate);
    const Bounds turned = swing.rate * exactly(from);
    const auto cosine = boundsOf(Kernel::Cos, turned), sine = boundsOf(Kernel::Sin, turned);
    if (!ends || !c || !s || !cosine || !sine) return std::nullopt;
    // 1 − z, which is 2 sin(ω/2) in size, and its reciprocal: (1 − z̄)/(2 − 2 cos ω) = ½ + i sin ω/(2 (1 − cos ω)).
    const Bounds below = exactly(1) - *c;
    if (!(below.low > 0)) return std::nullopt;
    const Complex z{*c, *s}, over{exactly(0.5), *s / (exactly(2) * below)};
    const Complex ratio = z * over;
    std::array<Complex, taylorOrder> coefficients{over};
    Complex sum = ends->near[0] * over;
    double far = 0;
    for (std::size_t k = 1; k < taylorOrder; ++k) {
        Complex next{{0, 0}, {0, 0}};
        for (std::size_t i = 1; i <= k; ++i) next = next + exactly(1) / exactly(factorial(i)) * coefficients[k - i];
        coefficients[k] = ratio * next;
        sum = sum + exactly(factorial(k)) * ends->near[k] * coefficients[k];
        if (k < 2) continue;
        const double size = magnitude(coefficients[k].real) + magnitude(coefficients[k].imaginary);
        far = roundedUp(far + roundedUp(factorial(k) * size * magnitude(ends->far[k])) * (1 + 1e-9));
    }
    // The imaginary part of e^(i φ) z^N Σ.
    const Complex start = Complex{swing.cosine, swing.sine} * Complex{*cosine, *sine};
    const double remainder = factorial(taylorOrder) * ends->between * sumOverTurns(taylorOrder) * (1 + 1e-9),
                 beyond = ends->beyond * sumOverTurns(2) * (1 + 1e-9);
    const Bounds all = (start * sum).imaginary + within(far) + within(remainder) + within(beyond);
    return isBounded(all) ? std::optional(all) : std::nullopt;
}

} // namespace coulter
