#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/bounds/interval_rules.h"
#include "formula/bounds/taylor_series.h"

#include <algorithm>
#include <cmath>

namespace coulter {

/// Arithmetic of Taylor series by recurrences, for coefficients R that are bounds, or series of another variable
/// themselves. Of each operation: the coefficients of its result from those of its operands; none where it is not
/// defined and smooth all along.
template <class R> class TaylorRules {
public:
    using Series = std::array<R, taylorOrder + 1>;
    static constexpr std::size_t order = taylorOrder;

    static std::optional<Series> ofOne(Kernel kernel, const Series& a) {
        const R& value = a[0];
        const Bounds& x = baseOf(value);
        switch (kernel) {
        case Kernel::Negate: return negated(a);
        case Kernel::Absolute:
            if (x.low >= 0) return a;
            if (x.high <= 0) return negated(a);
            return std::nullopt;
        case Kernel::Sqrt: return rootOf(a);
        case Kernel::Cbrt:
            if (!(x.low > 0)) return std::nullopt;
            return powerFrom(valueOf(kernel, value), a, outwards(1.0 / 3, 1.0 / 3));
        case Kernel::Exp: return exponentialOf(a);
        case Kernel::Ln: return logarithmOf(a);
        case Kernel::Lg: return scaled(logarithmOf(a), Bounds{0.43429448190325176, 0.43429448190325187});
        case Kernel::Lb: return scaled(logarithmOf(a), Bounds{1.4426950408889632, 1.4426950408889636});
        case Kernel::Sin:
        case Kernel::Cos: {
            const auto both = waves(Kernel::Sin, Kernel::Cos, -1, a);
            return both ? std::optional((*both)[kernel == Kernel::Sin ? 0 : 1]) : std::nullopt;
        }
        case Kernel::Sinh:
        case Kernel::Cosh: {
            const auto both = waves(Kernel::Sinh, Kernel::Cosh, 1, a);
            return both ? std::optional((*both)[kernel == Kernel::Sinh ? 0 : 1]) : std::nullopt;
        }
        case Kernel::Tan: return quotient(waves(Kernel::Sin, Kernel::Cos, -1, a), true);
        case Kernel::Cot: return quotient(waves(Kernel::Sin, Kernel::Cos, -1, a), false);
        case Kernel::Sec: return reciprocalOf(ofOne(Kernel::Cos, a));
        case Kernel::Csc: return reciprocalOf(ofOne(Kernel::Sin, a));
        case Kernel::Tanh: return quotient(waves(Kernel::Sinh, Kernel::Cosh, 1, a), true);
        case Kernel::Coth: return quotient(waves(Kernel::Sinh, Kernel::Cosh, 1, a), false);
        case Kernel::Sech: return reciprocalOf(ofOne(Kernel::Cosh, a));
        case Kernel::Csch: return reciprocalOf(ofOne(Kernel::Sinh, a));
        case Kernel::Arctan: return fromSlope(valueOf(kernel, value), a, shifted(squared(a), 1));
        case Kernel::Arccot: return fromSlope(valueOf(kernel, value), negated(a), shifted(squared(a), 1));
        case Kernel::Arcsin: return fromSlope(valueOf(kernel, value), a, rootOf(shifted(negated(squared(a)), 1)));
        case Kernel::Arccos:
            return fromSlope(valueOf(kernel, value), negated(a), rootOf(shifted(negated(squared(a)), 1)));
        case Kernel::Arsinh: return fromSlope(valueOf(kernel, value), a, rootOf(shifted(squared(a), 1)));
        case Kernel::Arcosh: return fromSlope(valueOf(kernel, value), a, rootOf(shifted(squared(a), -1)));
        case Kernel::Artanh: return fromSlope(valueOf(kernel, value), a, shifted(negated(squared(a)), 1));
        case Kernel::Sinc: {
            const auto sine = ofOne(Kernel::Sin, a);
            return sine ? divided(*sine, a) : std::nullopt;
        }
        case Kernel::Erf: return errorFunction(kernel, a, 1);
        case Kernel::Erfc: return errorFunction(kernel, a, -1);
        case Kernel::Sgn:
        case Kernel::Floor:
        case Kernel::Ceil: {
            const auto whole = valueOf(kernel, value);
            return whole && numberOf(*whole) ? std::optional(constantSeries(*whole)) : std::nullopt;
        }
        default: return std::nullopt;
        }
    }

    static std::optional<Series> ofTwo(Kernel kernel, const Series& a, const Series& b, bool same, bool varies) {
        switch (kernel) {
        case Kernel::Add: return added(a, b);
        case Kernel::Subtract: return same ? Series{} : added(a, negated(b));
        case Kernel::Multiply: return same ? squared(a) : multiplied(a, b);
        case Kernel::Divide: return divided(a, b);
        case Kernel::Power: {
            bool constant = true;
            for (std::size_t n = 1; n <= order; ++n) constant = constant && isZero(b[n]);
            if (const auto exponent = numberOf(b[0]); constant && exponent) return powerOf(a, exactly(*exponent));
            const auto logarithm = logarithmOf(a);
            return logarithm ? exponentialOf(multiplied(b, *logarithm)) : std::nullopt;
        }
        case Kernel::LogToBase: {
            const auto number = logarithmOf(b), base = logarithmOf(a);
            return number && base ? divided(*number, *base) : std::nullopt;
        }
        case Kernel::Min:
        case Kernel::Max: {
            const bool least = kernel == Kernel::Min;
            if (baseOf(a[0]).high <= baseOf(b[0]).low) return least ? a : b;
            if (baseOf(b[0]).high <= baseOf(a[0]).low) return least ? b : a;
            return std::nullopt;
        }
        case Kernel::Mod: {
            const auto quotient = divided(a, b);
            const auto whole = quotient ? valueOf(Kernel::Floor, (*quotient)[0]) : std::nullopt;
            if (!whole || !numberOf(*whole)) return std::nullopt;
            return added(a, negated(multiplied(b, constantSeries(*whole))));
        }
        case Kernel::Less:
        case Kernel::LessEqual:
        case Kernel::Equal: {
            const auto truth = valueOf(kernel, a[0], b[0], same);
            return truth && numberOf(*truth) ? std::optional(constantSeries(*truth)) : std::nullopt;
        }
        case Kernel::ArctanOfPoint:
            if (!varies)
                if (const auto value = valueOf(kernel, a[0], b[0], same)) return constantSeries(*value);
            return std::nullopt;
        default: return std::nullopt;
        }
    }

    static Series constantSeries(const R& value) {
        Series c{};
        c[0] = value;
        return c;
    }

    static R over(const R& a, std::size_t n) { return a / R(exactly(static_cast<double>(n))); }
    static R times(std::size_t n, const R& a) { return static_cast<double>(n) * a; }

    static Series negated(const Series& a) {
        Series c;
        for (std::size_t n = 0; n <= order; ++n) c[n] = -a[n];
        return c;
    }

    static Series added(const Series& a, const Series& b) {
        Series c;
        for (std::size_t n = 0; n <= order; ++n) c[n] = a[n] + b[n];
        return c;
    }

    /// The last coefficient that is not 0: constants and the variable itself have few.
    static std::size_t degreeOf(const Series& a) {
        std::size_t degree = order;
        while (degree > 0 && isZero(a[degree])) --degree;
        return degree;
    }

    static Series multiplied(const Series& a, const Series& b) {
        Series c{};
        const std::size_t ofA = degreeOf(a), ofB = degreeOf(b);
        for (std::size_t n = 0; n <= std::min(order, ofA + ofB); ++n) {
            for (std::size_t j = n > ofB ? n - ofB : 0; j <= std::min(n, ofA); ++j) c[n] = c[n] + a[j] * b[n - j];
        }
        return c;
    }

    static Series squared(const Series& a) {
        Series c = multiplied(a, a);
        c[0] = square(a[0]);
        return c;
    }

    static std::optional<Series> divided(const Series& a, const Series& b) {
        if (baseOf(b[0]).low <= 0 && baseOf(b[0]).high >= 0) return std::nullopt;
        Series c{};
        const std::size_t degree = degreeOf(b);
        for (std::size_t n = 0; n <= order; ++n) {
            R rest = a[n];
            for (std::size_t j = 1; j <= std::min(n, degree); ++j) rest = rest - b[j] * c[n - j];
            c[n] = rest / b[0];
        }
        return c;
    }

    static std::optional<Series> rootOf(const Series& a) {
        const auto value = valueOf(Kernel::Sqrt, a[0]);
        if (!value || !(baseOf(a[0]).low > 0)) return std::nullopt;
        Series c = constantSeries(*value);
        for (std::size_t n = 1; n <= order; ++n) {
            R rest = a[n];
            for (std::size_t j = 1; j < n; ++j) rest = rest - c[j] * c[n - j];
            c[n] = rest / (2 * c[0]);
        }
        return c;
    }

    static std::optional<Series> exponentialOf(const Series& a) {
        const auto value = valueOf(Kernel::Exp, a[0]);
        if (!value) return std::nullopt;
        Series c = constantSeries(*value);
        for (std::size_t n = 1; n <= order; ++n) {
            for (std::size_t j = 1; j <= n; ++j) c[n] = c[n] + times(j, a[j]) * c[n - j];
            c[n] = over(c[n], n);
        }
        return c;
    }

    /// What has the value c0 and the derivative a'/d.
    static std::optional<Series> fromSlope(const std::optional<R>& c0, const Series& a,
                                           const std::optional<Series>& d) {
        if (!c0 || !d || (baseOf((*d)[0]).low <= 0 && baseOf((*d)[0]).high >= 0)) return std::nullopt;
        Series c = constantSeries(*c0);
        for (std::size_t n = 1; n <= order; ++n) {
            R rest = times(n, a[n]);
            for (std::size_t j = 1; j < n; ++j) rest = rest - times(j, c[j]) * (*d)[n - j];
            c[n] = over(rest, n) / (*d)[0];
        }
        return c;
    }

    static std::optional<Series> logarithmOf(const Series& a) {
        if (!(baseOf(a[0]).low > 0)) return std::nullopt;
        return fromSlope(valueOf(Kernel::Ln, a[0]), a, a);
    }

    /// sin and cos together, or sinh and cosh (sign 1).
    static std::optional<std::array<Series, 2>> waves(Kernel sine, Kernel cosine, double sign, const Series& a) {
        const auto s0 = valueOf(sine, a[0]), c0 = valueOf(cosine, a[0]);
        if (!s0 || !c0) return std::nullopt;
        std::array<Series, 2> both{constantSeries(*s0), constantSeries(*c0)};
        auto& [s, c] = both;
        for (std::size_t n = 1; n <= order; ++n) {
            for (std::size_t j = 1; j <= n; ++j) {
                s[n] = s[n] + times(j, a[j]) * c[n - j];
                c[n] = c[n] + times(j, a[j]) * s[n - j];
            }
            s[n] = over(s[n], n);
            c[n] = sign * over(c[n], n);
        }
        return both;
    }

    /// a to a power, with this value.
    static std::optional<Series> powerFrom(const std::optional<R>& value, const Series& a, const Bounds& exponent) {
        if (!value) return std::nullopt;
        Series c = constantSeries(*value);
        for (std::size_t n = 1; n <= order; ++n) {
            R sum{exactly(0)};
            for (std::size_t j = 1; j <= n; ++j) {
                const Bounds weight = static_cast<double>(j) * exponent - exactly(static_cast<double>(n - j));
                sum = sum + R(weight) * a[j] * c[n - j];
            }
            c[n] = over(sum, n) / a[0];
        }
        return c;
    }

    static std::optional<Series> powerOf(const Series& a, const Bounds& exponent) {
        const double p = exponent.low;
        if (exponent.low != exponent.high) return std::nullopt;
        if (p == std::floor(p) && p >= 0 && p <= 64) {
            Series result = constantSeries(R(exactly(1))), base = a;
            for (auto left = static_cast<unsigned>(p); left > 0; left /= 2) {
                if (left % 2 == 1) result = multiplied(result, base);
                if (left > 1) base = squared(base);
            }
            return result;
        }
        if (baseOf(a[0]).low <= 0 && (baseOf(a[0]).high >= 0 || p != std::floor(p))) return std::nullopt;
        return powerFrom(valueOf(Kernel::Power, a[0], R(exponent)), a, exponent);
    }

    static Series shifted(const Series& a, double by) {
        Series c = a;
        c[0] = c[0] + R(exactly(by));
        return c;
    }

    static std::optional<Series> quotient(const std::optional<std::array<Series, 2>>& parts, bool firstAbove) {
        if (!parts) return std::nullopt;
        return firstAbove ? divided((*parts)[0], (*parts)[1]) : divided((*parts)[1], (*parts)[0]);
    }

    static std::optional<Series> reciprocalOf(const std::optional<Series>& a) {
        return a ? divided(constantSeries(R(exactly(1))), *a) : std::nullopt;
    }

    static std::optional<Series> scaled(const std::optional<Series>& a, const std::optional<Bounds>& by) {
        if (!a || !by) return std::nullopt;
        return multiplied(*a, constantSeries(R(*by)));
    }

    /// 2/√π exp(−a²) a' is the derivative of erf(a).
    static std::optional<Series> errorFunction(Kernel kernel, const Series& a, double sign) {
        const auto bell = exponentialOf(negated(squared(a)));
        const auto value = valueOf(kernel, a[0]);
        if (!bell || !value) return std::nullopt;
        constexpr Bounds factor{1.1283791670955123, 1.1283791670955128}; // 2/√π
        Series c = constantSeries(*value);
        for (std::size_t n = 1; n <= order; ++n) {
            for (std::size_t j = 1; j <= n; ++j) c[n] = c[n] + times(j, a[j]) * (*bell)[n - j];
            c[n] = sign * (R(factor) * over(c[n], n));
        }
        return c;
    }
};

/// What the rules need to know of bounds as coefficients: their values, the number they stand for if it is one, and an
/// operation's result, if it is certain to be defined and continuous.
inline const Bounds& baseOf(const Bounds& a) { return a; }
inline std::optional<double> numberOf(const Bounds& a) { return a.low == a.high ? std::optional(a.low) : std::nullopt; }
inline std::optional<Bounds> valueOf(Kernel kernel, const Bounds& a, const Bounds& b = {0, 0}, bool same = false) {
    const Enclosure value = enclose(kernel, {a.low, a.high}, {b.low, b.high}, same);
    if (!value.isProof()) return std::nullopt;
    return Bounds{value.low, value.high};
}

/// A coefficient that is a series of another variable.
struct SeriesNumber {
    TaylorSeries c{};

    SeriesNumber() = default;
    explicit SeriesNumber(const Bounds& value) { c[0] = value; }
    explicit SeriesNumber(const TaylorSeries& series) : c(series) {}
};

inline const Bounds& baseOf(const SeriesNumber& a) { return a.c[0]; }
inline bool isZero(const SeriesNumber& a) {
    return std::ranges::all_of(a.c, [](const Bounds& each) { return isZero(each); });
}
inline bool isConstant(const SeriesNumber& a) {
    return std::all_of(a.c.begin() + 1, a.c.end(), [](const Bounds& each) { return isZero(each); });
}
inline std::optional<double> numberOf(const SeriesNumber& a) { return isConstant(a) ? numberOf(a.c[0]) : std::nullopt; }
inline SeriesNumber operator-(const SeriesNumber& a) { return SeriesNumber(TaylorRules<Bounds>::negated(a.c)); }
inline SeriesNumber operator+(const SeriesNumber& a, const SeriesNumber& b) {
    return SeriesNumber(TaylorRules<Bounds>::added(a.c, b.c));
}
inline SeriesNumber operator-(const SeriesNumber& a, const SeriesNumber& b) { return a + -b; }
inline SeriesNumber operator*(const SeriesNumber& a, const SeriesNumber& b) {
    return SeriesNumber(TaylorRules<Bounds>::multiplied(a.c, b.c));
}
inline SeriesNumber operator*(double k, const SeriesNumber& a) { return SeriesNumber(exactly(k)) * a; }
inline SeriesNumber operator/(const SeriesNumber& a, const SeriesNumber& b) {
    const auto quotient = TaylorRules<Bounds>::divided(a.c, b.c);
    return quotient ? SeriesNumber(*quotient) : SeriesNumber(everything());
}
inline SeriesNumber square(const SeriesNumber& a) { return SeriesNumber(TaylorRules<Bounds>::squared(a.c)); }
inline std::optional<SeriesNumber> valueOf(Kernel kernel, const SeriesNumber& a, const SeriesNumber& b = {},
                                           bool same = false) {
    const bool varies = !isConstant(a) || (operandCount(kernel) > 1 && !isConstant(b));
    const auto series = operandCount(kernel) == 1 ? TaylorRules<Bounds>::ofOne(kernel, a.c)
                                                  : TaylorRules<Bounds>::ofTwo(kernel, a.c, b.c, same, varies);
    if (series) return SeriesNumber(*series);
    if (varies) return std::nullopt;
    const auto value = valueOf(kernel, a.c[0], b.c[0], same);
    return value ? std::optional(SeriesNumber(*value)) : std::nullopt;
}

} // namespace coulter
