#include "formula/proofs/growth.h"

#include "formula/bounds/enclosure.h"
#include "formula/bounds/interval_rules.h"
#include "formula/bounds/slope_rules.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <tuple>
#include <vector>

namespace coulter {
namespace {

constexpr double inf = std::numeric_limits<double>::infinity();
/// What exponents are widened by before they are used: they are sums and products of few doubles.
constexpr double slackOfRounding = 1e-12;
/// Exponentials that fall more slowly than this are not told from their rounding.
constexpr double flattest = 1e-6;

/// Bounds of e^a, of a^p with a > 0, and of ln a; libm is within a few units in the last place, and 1e-12 is far more.
Bounds widened(double low, double high) {
    return {low - std::abs(low) * slackOfRounding, std::isfinite(high) ? high + std::abs(high) * slackOfRounding : inf};
}
Bounds exponentialOf(const Bounds& a) { return widened(std::exp(a.low), std::exp(a.high)); }
Bounds powerOf(double x, double p) { return x == 1 ? exactly(1) : widened(std::pow(x, p), std::pow(x, p)); }

/// What the power of a growth may be.
Bounds exponentsOf(const Growth& g) {
    return g.spread == 0 ? exactly(g.power) : Bounds{roundedDown(g.power - g.spread), g.power};
}

/// Reads the growth of each step, from X on.
class GrowthReader {
public:
    explicit GrowthReader(double from) : from_(from) {}

    using Maybe = std::optional<Growth>;

    static Growth constant(const Bounds& value) { return {0, {0, 0}, 0, value}; }

    Maybe apply(Kernel kernel, const Maybe& a, const Maybe& b) const {
        if (!a || (!b && operandCount(kernel) > 1)) return std::nullopt;
        constexpr std::array ofAll{Kernel::Add,    Kernel::Subtract, Kernel::Multiply, Kernel::Divide,
                                   Kernel::Negate, Kernel::Absolute, Kernel::Sqrt,     Kernel::Power};
        if ((!isPlain(*a) || (b && !isPlain(*b))) && std::ranges::find(ofAll, kernel) == ofAll.end())
            return apply(kernel, plain(*a), b ? Maybe(plain(*b)) : b);
        switch (kernel) {
        case Kernel::Add: return sum(*a, *b);
        case Kernel::Subtract: return sum(*a, negated(*b));
        case Kernel::Multiply: return product(*a, *b);
        case Kernel::Divide: {
            const Maybe below = inverse(*b);
            return below ? product(*a, *below) : std::nullopt;
        }
        case Kernel::Negate: return negated(*a);
        case Kernel::Absolute: {
            Growth size = *a;
            const double most = magnitude(a->factor);
            const bool crosses = a->factor.low <= 0 && a->factor.high >= 0;
            size.factor = {crosses ? 0 : std::min(std::abs(a->factor.low), std::abs(a->factor.high)), most};
            return size;
        }
        case Kernel::Sqrt: return root(*a, 0.5);
        case Kernel::Exp: return exponential(*a);
        case Kernel::Tan:
        case Kernel::Arcsin:
        case Kernel::Arctan:
        case Kernel::Tanh:
        case Kernel::Arsinh:
        case Kernel::Artanh:
        case Kernel::Erf: return ofWhatVanishes(kernel, *a);
        case Kernel::Cosh: return hyperbolic(*a, 1);
        case Kernel::Sinh: return a->isPower() && a->power < 0 ? ofWhatVanishes(kernel, *a) : hyperbolic(*a, -1);
        case Kernel::Sech: {
            const Maybe below = hyperbolic(*a, 1);
            return below ? inverse(*below) : std::nullopt;
        }
        case Kernel::Csch: {
            const Maybe below = hyperbolic(*a, -1);
            return below ? inverse(*below) : std::nullopt;
        }
        case Kernel::Ln: return logarithm(*a);
        case Kernel::Power: return power(*a, *b);
        case Kernel::Sin: return wave(kernel, *a);
        case Kernel::Cos: return wave(kernel, *a);
        case Kernel::Factorial: return factorial(*a, 1);
        case Kernel::Gamma: return factorial(*a, 0);
        default: return byRange(kernel, *a, b.value_or(*a));
        }
    }

private:
    static bool isFinite(const Growth& g) {
        return isBounded(g.factor) && std::isfinite(g.factorial) && isBounded(g.exponential) && std::isfinite(g.power);
    }
    Maybe checked(const Growth& g) const {
        const bool isNumber = !std::isnan(g.factor.low) && !std::isnan(g.factor.high) && std::isfinite(g.factorial) &&
                              isBounded(g.exponential) && std::isfinite(g.power);
        return isNumber ? Maybe(g) : std::nullopt;
    }

    static Growth negated(Growth g) {
        g.factor = -g.factor; // exactly, as exponents are read off it
        return g;
    }
    static Growth scaled(Growth g, double by) {
        g.factor = exactly(by) * g.factor;
        return g;
    }

    /// Bounds, for all x ≥ X, of e^(f x ln x + e x) x^p with exponents of which the first that is not 0 is negative.
    std::optional<Bounds> shrinking(double f, double e, double p) const {
        const double x = from_;
        if (f == 0 && e == 0) return p > 0 ? std::nullopt : std::optional(Bounds{0, powerOf(x, p).high});
        // Its logarithm falls from X on if its slope f (ln x + 1) + e + p/x is negative there and falls, or stays so.
        const double slope = f * (std::log(x) + 1) + e + std::max(0.0, p) / x;
        if (f > 0 || !(slope < -flattest)) return std::nullopt;
        const double top = f * x * std::log(x) + e * x + p * std::log(x);
        return Bounds{0, widened(0, std::exp(top + std::abs(top) * slackOfRounding)).high};
    }

    static bool isPlain(const Growth& g) { return g.logarithms == 0 && g.spread == 0; }

    /// With neither logarithms nor a spread, at most: ln x ≤ x^s max(ln X/X^s, 1/(e s)), and x^(−spread) ≤ 1.
    Growth plain(Growth g) const {
        if (isPlain(g)) return g;
        constexpr double s = 0.0625;
        const double most = std::log(from_) > 1 / s ? std::log(from_) / std::pow(from_, s) : 1 / (std::exp(1.0) * s);
        const double raised = g.power + g.logarithms * s;
        const bool isExact = raised - g.power == g.logarithms * s && raised - g.logarithms * s == g.power;
        g.power = isExact ? raised : std::nextafter(raised, inf);
        g.factor = hullOf(g.factor, {0, 0}) * Bounds{0, powerOf(most * (1 + slackOfRounding), g.logarithms).high};
        g.logarithms = 0;
        g.spread = 0;
        return g;
    }

    static Growth withExponents(Growth g, const Bounds& exponents) {
        g.power = exponents.high;
        g.spread = exponents.low == exponents.high ? 0 : roundedUp(width(exponents));
        return g;
    }

    /// Of x^p (ln x)^d, which falls at last, the most from X on.
    std::optional<double> mostOf(double p, int d) const {
        if (p > 0 || (d > 0 && p == 0)) return std::nullopt;
        const double at = d > 0 ? std::max(from_, std::exp(d / -p)) : from_, logarithm = std::log(at);
        if (!std::isfinite(at) || (d < 0 && at < 2)) return std::nullopt;
        const double most = powerOf(at, p).high * std::pow(logarithm, d) * (1 + slackOfRounding);
        return std::isfinite(most) ? std::optional(most) : std::nullopt;
    }

    /// Of powers with logarithms beside them, or with a spread.
    Maybe sumOfPowers(const Growth& a, const Growth& b) const {
        const bool aLeads = std::tie(a.power, a.logarithms) >= std::tie(b.power, b.logarithms);
        Growth more = aLeads ? a : b;
        const Growth& less = aLeads ? b : a;
        const bool isAlike =
            less.power == more.power && less.logarithms == more.logarithms && !less.spread && !more.spread;
        // Of rounded differences of which the first may be nearly as large as the second.
        const double p = more.spread ? roundedUp(less.power - exponentsOf(more).low) : less.power - more.power;
        const auto part = isAlike ? 1.0 : mostOf(p, less.logarithms - more.logarithms);
        if (!part || !isBounded(less.factor)) return sum(plain(a), plain(b));
        more.factor = more.factor + (isAlike ? less.factor : less.factor * Bounds{0, *part});
        return checked(more);
    }

    Maybe sum(const Growth& a, const Growth& b) const {
        if (isZero(a.factor)) return b;
        if (isZero(b.factor)) return a;
        if (!isPlain(a) || !isPlain(b)) return a.isPower() && b.isPower() ? sumOfPowers(a, b) : sum(plain(a), plain(b));
        const auto order = [](const Growth& g) { return std::tuple(g.factorial, g.exponential.high, g.power); };
        const bool aLeads = order(a) >= order(b);
        const Growth &more = aLeads ? a : b, &less = aLeads ? b : a;
        const bool isAlike = less.factorial == more.factorial && less.power == more.power;
        const double f = less.factorial - more.factorial,
                     p = less.power - more.power; // which measures the smaller part, and need not be exact
        const Bounds rate = less.exponential - more.exponential;
        Growth all = more;
        if (isAlike && isZero(less.exponential) && isZero(more.exponential)) {
            all.factor = more.factor + less.factor;
        } else if (const auto part = shrinking(f, rate.high, p); part && isBounded(less.factor)) {
            all.factor = more.factor + less.factor * *part;
        } else if (f == 0 && isBounded(less.factor) && isBounded(more.factor)) {
            // Which of both is larger is not known: both are at most of the larger rate and power.
            all.exponential = exactly(more.exponential.high);
            all.power = std::max(more.power, less.power);
            const auto most = [&](const Growth& each) {
                return hullOf(each.factor, {0, 0}) * Bounds{0, powerOf(from_, each.power - all.power).high};
            };
            all.factor = most(more) + most(less);
        } else {
            return std::nullopt;
        }
        return checked(all);
    }

    /// An exponent that is rounded is another one, however little, when x grows beyond all bounds: a power gets a
    /// spread, and with the next larger factorial what is left for the factor lies between 0 and 1.
    static Growth roundedUpwards(Growth g) {
        const double power = g.power;
        g.power = std::nextafter(power, inf);
        if (g.isPower()) {
            const Bounds beside{std::nextafter(power, -inf), g.power};
            g.spread = roundedUp(roundedUp(g.spread) + width(beside));
            return g;
        }
        if (g.factorial != 0) g.factorial = std::nextafter(g.factorial, inf);
        g.factor = hullOf(g.factor, {0, 0});
        return g;
    }

    Maybe product(const Growth& a, const Growth& b) const {
        constexpr int mostLogarithms = 16;
        const int logarithms = a.logarithms + b.logarithms;
        const bool arePowers = a.isPower() && b.isPower(), arePlain = isPlain(a) && isPlain(b);
        if (logarithms > mostLogarithms || (!arePowers && !arePlain)) return product(plain(a), plain(b));
        const double spread = a.spread == 0 ? b.spread : b.spread == 0 ? a.spread : roundedUp(a.spread + b.spread);
        Growth all{a.factorial + b.factorial,
                   a.exponential + b.exponential,
                   a.power + b.power,
                   a.factor * b.factor,
                   logarithms,
                   spread};
        const bool isExact = all.power - a.power == b.power && all.power - b.power == a.power &&
                             all.factorial - a.factorial == b.factorial && all.factorial - b.factorial == a.factorial;
        return checked(isExact ? all : roundedUpwards(all));
    }

    Maybe inverse(const Growth& a) const {
        if ((a.factor.low <= 0 && a.factor.high >= 0) || a.logarithms) return std::nullopt;
        const Bounds factor = std::isinf(a.factor.high) ? Bounds{0, roundedUp(1 / a.factor.low)} : reciprocal(a.factor);
        return checked(withExponents({-a.factorial, -a.exponential, 0, factor}, -exponentsOf(a)));
    }

    /// A positive function to a power.
    Maybe root(const Growth& given, double p) const {
        const Growth a = given.logarithms ? plain(given) : given;
        if (a.factor.low < 0 || (a.factor.low == 0 && p < 0)) return std::nullopt;
        const bool isExact =
            std::fma(a.power, p, -(a.power * p)) == 0 && std::fma(a.factorial, p, -(a.factorial * p)) == 0;
        const Bounds factor{a.factor.low == 0 ? 0 : powerOf(a.factor.low, p).low, powerOf(a.factor.high, p).high};
        const Bounds ordered = p < 0 ? Bounds{powerOf(a.factor.high, p).low, powerOf(a.factor.low, p).high} : factor;
        const Growth all{a.factorial * p, exactly(p) * a.exponential, a.power * p, ordered};
        if (a.spread) return checked(withExponents(all, exactly(p) * exponentsOf(a)));
        return checked(isExact ? all : roundedUpwards(all));
    }

public:
    /// All values from X on.
    std::optional<Bounds> range(const Growth& given) const {
        const Growth a = plain(given);
        if (!isBounded(a.factor)) return std::nullopt;
        if (!a.isPower()) {
            const auto size = shrinking(a.factorial, a.exponential.high, a.power);
            return size ? std::optional(a.factor * *size) : std::nullopt;
        }
        const Bounds at = a.factor * powerOf(from_, a.power);
        if (a.power == 0) return a.factor;
        if (a.power < 0) return Bounds{std::min(0.0, at.low), std::max(0.0, at.high)};
        return Bounds{a.factor.low < 0 ? -inf : at.low, a.factor.high > 0 ? inf : at.high};
    }

private:
    Maybe exponential(const Growth& a) const {
        if (!a.isPower() || !isBounded(a.factor)) return std::nullopt;
        const double high = a.factor.high;
        if (a.power <= 0) return constant(exponentialOf(*range(a)));
        if (a.power == 1) return checked({0, a.factor, 0, {1, 1}});
        if (high >= 0) return std::nullopt;
        // e^(−c x^p) ≤ e^(−c X^(p−1) x)
        if (a.power > 1)
            return checked(
                {0, exactly(high * powerOf(from_, a.power - 1).low * (1 - slackOfRounding)), 0, Bounds{0, 1}});
        // Its logarithm's slope by ln x is −c p x^p, which only gets steeper: from X on it lies below the power that
        // has this slope at X.
        constexpr double mostOrder = 500;
        const double reach = powerOf(from_, a.power).low;
        const double order = std::min(mostOrder, std::floor(-high * a.power * reach * (1 - slackOfRounding)));
        const double top = high * reach + order * std::log(from_);
        const double slack = (std::abs(high * reach) + order * std::log(from_)) * slackOfRounding * 4;
        return checked({0, {0, 0}, -order, Bounds{0, std::exp(top + slack) * (1 + 1e-9)}});
    }

    /// (e^u ± e^−u)/2
    Maybe hyperbolic(const Growth& a, double sign) const {
        const Maybe up = exponential(a), down = exponential(negated(a));
        const Maybe both = up && down ? sum(*up, scaled(*down, sign)) : std::nullopt;
        return both ? Maybe(scaled(*both, 0.5)) : std::nullopt;
    }

    /// ln(x^p c) = p ln x + ln c
    Maybe logarithm(const Growth& a) const {
        if (!a.isPower() || !(a.factor.low > 0) || !isBounded(a.factor)) return std::nullopt;
        const Growth rest = constant(widened(std::log(a.factor.low), std::log(a.factor.high)));
        if (a.power == 0) return rest;
        return sum({0, {0, 0}, 0, exactly(a.power), 1}, rest);
    }

    Maybe power(const Growth& a, const Growth& b) const {
        const bool isFixed = b.isPower() && b.power == 0 && isPlain(b) && b.factor.low == b.factor.high;
        const bool isProduct = isFixed && b.factor.low == std::floor(b.factor.low) && b.factor.low >= 1;
        if (!isPlain(b) || (a.logarithms && !isProduct)) return power(plain(a), plain(b));
        if (isFixed) {
            const double p = b.factor.low;
            if (a.logarithms) {
                Maybe result = a;
                for (int i = 1; i < std::min(p, 64.0) && result; ++i) result = product(*result, a);
                return p <= 64 ? result : std::nullopt;
            }
            if (a.factor.low > 0 || (a.factor.low == 0 && p > 0)) return root(a, p);
            if (p != std::floor(p) || p == 0 || std::abs(p) > 64 || !isFinite(a)) return std::nullopt;
            Maybe result = a;
            for (int i = 1; i < static_cast<int>(std::abs(p)) && result; ++i) result = product(*result, a);
            return result && p < 0 ? inverse(*result) : result;
        }
        // To an exponent of which bounds are known.
        const bool isBetween = b.isPower() && b.power == 0 && isBounded(b.factor);
        if (isBetween && a.isPower() && a.factor.low > 0 && isBounded(a.factor)) {
            Growth all{0, {0, 0}, 0, {inf, 0}};
            for (const double base : {a.factor.low, a.factor.high}) {
                for (const double exponent : {b.factor.low, b.factor.high}) {
                    const Bounds corner = powerOf(base, exponent);
                    all.factor = {std::min(all.factor.low, corner.low), std::max(all.factor.high, corner.high)};
                }
            }
            return checked(withExponents(all, exponentsOf(a) * b.factor));
        }
        if (!isPlain(a)) return power(plain(a), b);
        // e^(b ln a), where that vanishes or is bounded.
        if (b.isPower() && b.power < 0 && a.factor.low > 0) {
            const Maybe logarithm = apply(Kernel::Ln, a, std::nullopt);
            return logarithm ? apply(Kernel::Exp, product(b, *logarithm), std::nullopt) : std::nullopt;
        }
        // A constant to a power: its sign changes to and fro if it is negative.
        const bool isConstant = a.isPower() && a.power == 0 && isBounded(a.factor);
        const bool isPositive = a.factor.low > 0;
        const bool isKnown = b.factor.low > 0 || (isPositive && b.factor.high < 0);
        if (!isConstant || !b.isPower() || !isBounded(b.factor) || !(b.power > 0) || !isKnown) return std::nullopt;
        const double size = magnitude(a.factor), least = isPositive ? a.factor.low : size;
        if (size == 0) return constant({0, 0});
        const Bounds rate = widened(std::log(least), std::log(size));
        const Maybe grown =
            size == 1 && least == 1 ? Maybe(constant({1, 1})) : exponential({0, {0, 0}, b.power, rate * b.factor});
        if (!grown) return std::nullopt;
        Growth result = *grown;
        const double most = magnitude(result.factor);
        if (!isPositive) result.factor = {-most, most};
        return checked(result);
    }

    /// sin u of a u that vanishes is u itself, to within u²/6 of it.
    Maybe wave(Kernel kernel, const Growth& a) const {
        const auto values = range(a);
        if (!values) return constant({-1, 1});
        const double most = magnitude(*values);
        if (kernel == Kernel::Sin && most <= 1) {
            Growth result = a;
            result.factor = a.factor * Bounds{roundedDown(1 - roundedUp(roundedUp(most * most) / 6)), 1};
            return result;
        }
        if (!isBounded(*values)) return constant({-1, 1});
        return byRange(kernel, a, a);
    }

    /// f with f(0) = 0 of a u that vanishes is u f′ somewhere between.
    Maybe ofWhatVanishes(Kernel kernel, const Growth& a) const {
        const auto values = range(a);
        const bool vanishes = !a.isPower() || a.power < 0;
        if (!values || !vanishes || !isBounded(*values)) return byRange(kernel, a, a);
        const double most = magnitude(*values);
        const Enclosure value = enclose(kernel, {-most, most}, {}, false);
        if (!value.isProof()) return std::nullopt;
        Growth result = a;
        result.factor = a.factor * slopeRule(kernel)({value.low, value.high}, {-most, most}).first;
        return isBounded(result.factor) ? checked(result) : std::nullopt;
    }

    /// Γ(u + more) from Γ(u) ≥ √(2π/u) (u/e)^u, of a u = x c: at least Γ of its least factor.
    Maybe factorial(const Growth& a, double more) const {
        if (!a.isPower() || a.power != 1 || !(a.factor.low > 0) || !(a.factor.low * from_ >= 2)) return std::nullopt;
        const double c = a.factor.low;
        // Γ(u + 1) = u Γ(u)
        const double least = std::sqrt(6.283185307179586 / c) * (more > 0 ? c : 1);
        const double rate = c * std::log(c) - c;
        return checked({c, exactly(rate - std::abs(rate) * slackOfRounding), more > 0 ? 0.5 : -0.5,
                        Bounds{least * (1 - 1e-9), inf}});
    }

    Maybe byRange(Kernel kernel, const Growth& a, const Growth& b) const {
        const auto left = range(a), right = range(b);
        if (!left || !right) return std::nullopt;
        const Enclosure value = enclose(kernel, {left->low, left->high}, {right->low, right->high}, false);
        if (!value.known || !value.defined || value.mayBeUnset || !(value.low <= value.high) ||
            !std::isfinite(value.low) || !std::isfinite(value.high))
            return std::nullopt;
        return constant({value.low, value.high});
    }

    double from_;
};

} // namespace

namespace {

/// A register that is a number plus something that vanishes: 1 + 1/n², or cos(1/t), which is 1 less half of 1/t² or so.
/// Differences of such numbers are exact, which the growth of a sum does not see.
struct Near {
    double value = 0;
    Growth rest;
};

/// Follows such registers.
class NearReader {
public:
    explicit NearReader(double from) : reader_(from) {}

    using Maybe = std::optional<Near>;

    static Growth nothing() { return GrowthReader::constant({0, 0}); }
    static Near constant(double value) { return {value, nothing()}; }

    /// As what it is near to, if that is told, or to 0, if it vanishes.
    Maybe of(const Maybe& near, const std::optional<Growth>& growth) const {
        if (near || !growth) return near;
        const bool vanishes = growth->isPower() ? growth->power < 0 : reader_.range(*growth).has_value();
        return vanishes ? Maybe({0, *growth}) : std::nullopt;
    }

    Maybe apply(Kernel kernel, const Maybe& a, const Maybe& b) {
        if (!a || (operandCount(kernel) > 1 && !b)) return std::nullopt;
        switch (kernel) {
        case Kernel::Negate: return made(-a->value, reader_.apply(Kernel::Negate, a->rest, {}));
        case Kernel::Add:
        case Kernel::Subtract: {
            const double other = kernel == Kernel::Add ? b->value : -b->value, value = a->value + other;
            if (value - a->value != other || value - other != a->value) return std::nullopt;
            return made(value, reader_.apply(kernel, a->rest, b->rest));
        }
        case Kernel::Multiply: return product(*a, *b);
        case Kernel::Divide: return quotient(*a, *b);
        case Kernel::Power: return power(*a, *b);
        default: return operandCount(kernel) == 1 ? smooth(kernel, *a) : std::nullopt;
        }
    }

private:
    static Maybe made(double value, const std::optional<Growth>& rest) {
        return rest ? Maybe({value, *rest}) : std::nullopt;
    }
    std::optional<Growth> scaled(const Growth& growth, double by) {
        return reader_.apply(Kernel::Multiply, growth, GrowthReader::constant(exactly(by)));
    }
    std::optional<Growth> sum(const std::optional<Growth>& a, const std::optional<Growth>& b) {
        return reader_.apply(Kernel::Add, a, b);
    }

    Maybe product(const Near& a, const Near& b) {
        const double value = a.value * b.value;
        if (!std::isfinite(value) || std::fma(a.value, b.value, -value) != 0) return std::nullopt;
        return made(value, sum(sum(scaled(b.rest, a.value), scaled(a.rest, b.value)),
                               reader_.apply(Kernel::Multiply, a.rest, b.rest)));
    }

    /// (p + u)/(q + v) = r + (u − r v)/(q + v)
    Maybe quotient(const Near& a, const Near& b) {
        const double value = a.value / b.value;
        if (b.value == 0 || std::fma(value, b.value, -a.value) != 0) return std::nullopt;
        return made(value, reader_.apply(Kernel::Divide, sum(a.rest, scaled(b.rest, -value)),
                                         sum(GrowthReader::constant(exactly(b.value)), b.rest)));
    }

    Maybe power(const Near& a, const Near& b) {
        const double exponent = b.value;
        if (!isZero(b.rest.factor)) return std::nullopt;
        if (a.value != 1) {
            if (exponent != std::floor(exponent) || exponent < 1 || exponent > 8) return std::nullopt;
            Maybe result = a;
            for (int i = 1; i < static_cast<int>(exponent) && result; ++i) result = product(*result, a);
            return result;
        }
        const auto reach = reader_.range(a.rest);
        if (!reach || !(magnitude(*reach) <= 0.5)) return std::nullopt;
        const double most = magnitude(*reach);
        const Bounds low = powerOf(1 - most, exponent - 1), high = powerOf(1 + most, exponent - 1);
        return made(
            1, reader_.apply(Kernel::Multiply, a.rest, GrowthReader::constant(exactly(exponent) * hullOf(low, high))));
    }

    /// f(a + u) = f(a) + u f′ somewhere between, or + u²/2 f″ where f′(a) is 0.
    Maybe smooth(Kernel kernel, const Near& a) {
        const auto value = exactValue(kernel, a.value);
        const auto reach = value ? reader_.range(a.rest) : std::nullopt;
        if (!reach || !isBounded(*reach) || !slopeRule(kernel)) return std::nullopt;
        const Bounds over = exactly(a.value) + hullOf(*reach, {0, 0});
        const Enclosure values = enclose(kernel, {over.low, over.high}, {}, false);
        if (!values.isProof()) return std::nullopt;
        const Slopes slopes = slopeRule(kernel)({values.low, values.high}, over);
        const bool isFlat = kernel == Kernel::Cos || kernel == Kernel::Cosh || kernel == Kernel::Sech;
        const Bounds& slope = isFlat ? slopes.second : slopes.first;
        if (!isBounded(slope)) return std::nullopt;
        const auto measure = isFlat ? reader_.apply(Kernel::Multiply, a.rest, a.rest) : std::optional(a.rest);
        const auto rest = reader_.apply(Kernel::Multiply, measure, GrowthReader::constant(slope));
        return made(*value, isFlat && rest ? scaled(*rest, 0.5) : rest);
    }

    /// The value there, where it is a number that a double holds and that is known to be exactly this.
    static std::optional<double> exactValue(Kernel kernel, double at) {
        switch (kernel) {
        case Kernel::Exp:
        case Kernel::Cos:
        case Kernel::Cosh:
        case Kernel::Sech: return at == 0 ? std::optional(1.0) : std::nullopt;
        case Kernel::Ln: return at == 1 ? std::optional(0.0) : std::nullopt;
        case Kernel::Sqrt: {
            const double root = at > 0 ? std::sqrt(at) : 0;
            return at > 0 && std::fma(root, root, -at) == 0 ? std::optional(root) : std::nullopt;
        }
        case Kernel::Sin:
        case Kernel::Tan:
        case Kernel::Sinh:
        case Kernel::Tanh:
        case Kernel::Arcsin:
        case Kernel::Arctan:
        case Kernel::Arsinh:
        case Kernel::Artanh:
        case Kernel::Erf: return at == 0 ? std::optional(0.0) : std::nullopt;
        default: return std::nullopt;
        }
    }

    GrowthReader reader_;
};

std::optional<Growth> read(const Program& program, double from, std::span<const Bounds> others, const Growth& input,
                           const std::optional<Near>& place) {
    if (!(from >= 1) || !std::isfinite(from) || program.inputCount != 1 + others.size()) return std::nullopt;
    std::vector<std::optional<Growth>> registers(program.registerCount());
    std::vector<std::optional<Growth>> inverses(registers.size()); // of powers, of which only one side may be known
    std::vector<std::optional<Near>> places(registers.size());
    registers[0] = input;
    places[0] = place;
    for (std::size_t i = 0; i < others.size(); ++i) registers[1 + i] = GrowthReader::constant(others[i]);
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        if (!std::isfinite(program.constants[i])) continue;
        registers[program.inputCount + i] = GrowthReader::constant(exactly(program.constants[i]));
        places[program.inputCount + i] = NearReader::constant(program.constants[i]);
    }
    GrowthReader reader(from);
    NearReader nearReader(from);
    std::vector<char> unset(registers.size()); // of pieces: certainly none of those looked at so far
    for (const Program::Instruction& step : program.instructions) {
        const auto first = step.operands[0], second = step.operands[operandCount(step.kernel) > 1 ? 1 : 0];
        const bool isPlain = !step.special && step.integral < 0 && step.table < 0 && step.field < 0;
        std::optional<Growth> result, inverse;
        std::optional<Near> itsPlace;
        bool isUnset = false;
        if (isPlain && step.kernel == Kernel::When) {
            const auto& condition = registers[first];
            const bool isDecided = condition && condition->isPower() && condition->power == 0 &&
                                   condition->factor.low == condition->factor.high;
            isUnset = isDecided && condition->factor.low == 0;
            if (isDecided && condition->factor.low == 1) result = registers[second];
        } else if (isPlain && step.kernel == Kernel::OrElse) {
            result = unset[first] ? registers[second] : registers[first];
            isUnset = unset[first] && unset[second];
        } else if (isPlain && step.kernel != Kernel::Count) {
            itsPlace = nearReader.apply(step.kernel, nearReader.of(places[first], registers[first]),
                                        nearReader.of(places[second], registers[second]));
            if (itsPlace && itsPlace->value == 0) result = itsPlace->rest;
            if (step.kernel == Kernel::Power)
                inverse = reader.apply(step.kernel, registers[first],
                                       reader.apply(Kernel::Negate, registers[second], std::nullopt));
            if (!result && step.kernel == Kernel::Divide && inverses[second])
                result = reader.apply(Kernel::Multiply, registers[first], inverses[second]);
            if (!result) result = reader.apply(step.kernel, registers[first], registers[second]);
        }
        registers[step.result] = result;
        inverses[step.result] = inverse;
        places[step.result] = itsPlace;
        unset[step.result] = isUnset;
    }
    return registers[program.outputs[0]];
}

} // namespace

std::optional<Growth> growthOf(const Program& program, double from, std::span<const Bounds> others) {
    return read(program, from, others, {0, {0, 0}, 1, {1, 1}}, std::nullopt);
}

std::optional<Growth> growthBeside(const Program& program, double end, int side, double from,
                                   std::span<const Bounds> others) {
    // The place itself, as it is where nothing cancels: between the end and the end and a bit.
    const double reach = roundedUp(1 / from);
    const Bounds near = exactly(end) + (side > 0 ? Bounds{0, reach} : Bounds{-reach, 0});
    const Growth away{0, {0, 0}, -1, exactly(side)};
    return read(program, from, others, end == 0 ? away : GrowthReader::constant(near), Near{end, away});
}

namespace {

/// At most, without the factor, at one place.
double valueAt(const Growth& growth, double x) {
    const double parts[] = {growth.factorial * x * std::log(x), growth.exponential.high * x,
                            growth.power * std::log(x)};
    double sum = 0, size = 0;
    for (const double part : parts) sum += part, size += std::abs(part);
    return std::exp(sum + size * slackOfRounding) * (1 + slackOfRounding) + smallest;
}

} // namespace

namespace {

/// ∫ of x^(−1 − over) (ln x)^n from a place on, by parts: x^(−over) (ln x)^n/over and n/over of the one before.
Bounds powerBeyond(double from, const Bounds& over, int logarithms) {
    const Bounds power = hullOf(powerOf(from, -over.low), powerOf(from, -over.high)) / over;
    const Bounds logarithm = widened(std::log(from), std::log(from));
    Bounds integral = power, raised{1, 1};
    for (int n = 1; n <= logarithms; ++n) {
        raised = raised * logarithm;
        integral = power * raised + exactly(n) / over * integral;
    }
    return integral;
}

} // namespace

std::optional<Bounds> integralBeyond(const Growth& growth, double from, double more) {
    if (!isBounded(growth.factor)) return std::nullopt;
    if (growth.isPower()) {
        const Bounds over = -(exponentsOf(growth) + exactly(more) + exactly(1));
        if (!(over.low > flattest)) return std::nullopt;
        return growth.factor * powerBeyond(from, over, growth.logarithms);
    }
    // e^(g(x)) falls at least as fast as its logarithm's slope at X says, which only gets steeper.
    const double rate = growth.exponential.high, power = growth.power + more;
    const double slope = growth.factorial * (std::log(from) + 1) + rate + std::max(0.0, power) / from;
    if (growth.factorial > 0 || !(slope < -flattest)) return std::nullopt;
    const double most =
        valueAt(growth, from) * powerOf(from, more).high / (-slope * (1 - slackOfRounding)) * (1 + slackOfRounding);
    return growth.factor * Bounds{0, most + smallest};
}

std::optional<Bounds> sumBeyond(const Growth& growth, double from) {
    if (!isBounded(growth.factor) || !(from >= 2)) return std::nullopt;
    // Of what falls, the sum from X on lies between the integrals from X and from X − 1 on.
    if (growth.isPower()) {
        const Bounds over = -(exponentsOf(growth) + exactly(1));
        if (!(over.low > flattest)) return std::nullopt;
        const bool falls = growth.logarithms < -growth.power * std::log(from - 1) * (1 - slackOfRounding);
        if (growth.logarithms > 0 && !falls) return std::nullopt;
        const Bounds least = powerBeyond(from, over, growth.logarithms),
                     most = powerBeyond(from - 1, over, growth.logarithms);
        return growth.factor * Bounds{least.low, most.high};
    }
    const auto beyond = integralBeyond({growth.factorial, growth.exponential, growth.power, {1, 1}}, from);
    if (!beyond) return std::nullopt;
    return growth.factor * Bounds{0, roundedUp(valueAt(growth, from) + beyond->high)};
}

} // namespace coulter
