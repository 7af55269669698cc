#include "formula/taylor.h"

#include "formula/enclosure.h"
#include "formula/interval_rules.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr std::size_t order = taylorOrder;
using Series = TaylorSeries;

Series constantSeries(const Bounds& value) {
    Series c{};
    c[0] = value;
    return c;
}

Bounds over(const Bounds& a, std::size_t n) { return a / exactly(static_cast<double>(n)); }
Bounds times(std::size_t n, const Bounds& a) { return exactly(static_cast<double>(n)) * a; }

/// The value of an operation at order 0, if it is certain to be defined and continuous.
std::optional<Bounds> valueOf(Kernel kernel, const Bounds& a, const Bounds& b = {0, 0}, bool same = false) {
    const Enclosure value = enclose(kernel, {a.low, a.high}, {b.low, b.high}, same);
    if (!value.isProof()) return std::nullopt;
    return Bounds{value.low, value.high};
}

Series negated(const Series& a) {
    Series c;
    for (std::size_t n = 0; n <= order; ++n) c[n] = -a[n];
    return c;
}

Series added(const Series& a, const Series& b) {
    Series c;
    for (std::size_t n = 0; n <= order; ++n) c[n] = a[n] + b[n];
    return c;
}

/// The last coefficient that is not 0: constants and the variable itself have few.
std::size_t degreeOf(const Series& a) {
    std::size_t degree = order;
    while (degree > 0 && isZero(a[degree])) --degree;
    return degree;
}

Series multiplied(const Series& a, const Series& b) {
    Series c{};
    const std::size_t ofA = degreeOf(a), ofB = degreeOf(b);
    for (std::size_t n = 0; n <= std::min(order, ofA + ofB); ++n) {
        for (std::size_t j = n > ofB ? n - ofB : 0; j <= std::min(n, ofA); ++j) c[n] = c[n] + a[j] * b[n - j];
    }
    return c;
}

Series squared(const Series& a) {
    Series c = multiplied(a, a);
    c[0] = square(a[0]);
    return c;
}

std::optional<Series> divided(const Series& a, const Series& b) {
    if (b[0].low <= 0 && b[0].high >= 0) return std::nullopt;
    Series c{};
    const std::size_t degree = degreeOf(b);
    for (std::size_t n = 0; n <= order; ++n) {
        Bounds rest = a[n];
        for (std::size_t j = 1; j <= std::min(n, degree); ++j) rest = rest - b[j] * c[n - j];
        c[n] = rest / b[0];
    }
    return c;
}

std::optional<Series> rootOf(const Series& a) {
    const auto value = valueOf(Kernel::Sqrt, a[0]);
    if (!value || !(a[0].low > 0)) return std::nullopt;
    Series c = constantSeries(*value);
    for (std::size_t n = 1; n <= order; ++n) {
        Bounds rest = a[n];
        for (std::size_t j = 1; j < n; ++j) rest = rest - c[j] * c[n - j];
        c[n] = rest / (2 * c[0]);
    }
    return c;
}

std::optional<Series> exponentialOf(const Series& a) {
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
std::optional<Series> fromSlope(const std::optional<Bounds>& c0, const Series& a, const std::optional<Series>& d) {
    if (!c0 || !d || ((*d)[0].low <= 0 && (*d)[0].high >= 0)) return std::nullopt;
    Series c = constantSeries(*c0);
    for (std::size_t n = 1; n <= order; ++n) {
        Bounds rest = times(n, a[n]);
        for (std::size_t j = 1; j < n; ++j) rest = rest - times(j, c[j]) * (*d)[n - j];
        c[n] = over(rest, n) / (*d)[0];
    }
    return c;
}

std::optional<Series> logarithmOf(const Series& a) {
    if (!(a[0].low > 0)) return std::nullopt;
    return fromSlope(valueOf(Kernel::Ln, a[0]), a, a);
}

/// sin and cos together, or sinh and cosh (sign 1).
std::optional<std::array<Series, 2>> waves(Kernel sine, Kernel cosine, double sign, const Series& a) {
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
std::optional<Series> powerFrom(const std::optional<Bounds>& value, const Series& a, const Bounds& exponent) {
    if (!value) return std::nullopt;
    Series c = constantSeries(*value);
    for (std::size_t n = 1; n <= order; ++n) {
        Bounds sum{0, 0};
        for (std::size_t j = 1; j <= n; ++j) {
            const Bounds weight = static_cast<double>(j) * exponent - exactly(static_cast<double>(n - j));
            sum = sum + weight * a[j] * c[n - j];
        }
        c[n] = over(sum, n) / a[0];
    }
    return c;
}

std::optional<Series> powerOf(const Series& a, const Bounds& exponent) {
    const double p = exponent.low;
    if (exponent.low != exponent.high) return std::nullopt;
    if (p == std::floor(p) && p >= 0 && p <= 64) {
        Series result = constantSeries(exactly(1)), base = a;
        for (auto left = static_cast<unsigned>(p); left > 0; left /= 2) {
            if (left % 2 == 1) result = multiplied(result, base);
            if (left > 1) base = squared(base);
        }
        return result;
    }
    if (a[0].low <= 0 && (a[0].high >= 0 || p != std::floor(p))) return std::nullopt;
    return powerFrom(valueOf(Kernel::Power, a[0], exponent), a, exponent);
}

Series shifted(const Series& a, double by) {
    Series c = a;
    c[0] = c[0] + exactly(by);
    return c;
}

std::optional<Series> quotient(const std::optional<std::array<Series, 2>>& parts, bool firstAbove) {
    if (!parts) return std::nullopt;
    return firstAbove ? divided((*parts)[0], (*parts)[1]) : divided((*parts)[1], (*parts)[0]);
}

std::optional<Series> reciprocalOf(const std::optional<Series>& a) {
    return a ? divided(constantSeries(exactly(1)), *a) : std::nullopt;
}

std::optional<Series> scaled(const std::optional<Series>& a, const std::optional<Bounds>& by) {
    if (!a || !by) return std::nullopt;
    return multiplied(*a, constantSeries(*by));
}

/// 2/√π exp(−a²) a' is the derivative of erf(a).
std::optional<Series> errorFunction(Kernel kernel, const Series& a, double sign) {
    const auto bell = exponentialOf(negated(squared(a)));
    const auto value = valueOf(kernel, a[0]);
    if (!bell || !value) return std::nullopt;
    constexpr Bounds factor{1.1283791670955123, 1.1283791670955128}; // 2/√π
    Series c = constantSeries(*value);
    for (std::size_t n = 1; n <= order; ++n) {
        for (std::size_t j = 1; j <= n; ++j) c[n] = c[n] + times(j, a[j]) * (*bell)[n - j];
        c[n] = sign * (factor * over(c[n], n));
    }
    return c;
}

std::optional<Series> ofOne(Kernel kernel, const Series& a) {
    const Bounds& x = a[0];
    switch (kernel) {
    case Kernel::Negate: return negated(a);
    case Kernel::Absolute:
        if (x.low >= 0) return a;
        if (x.high <= 0) return negated(a);
        return std::nullopt;
    case Kernel::Sqrt: return rootOf(a);
    case Kernel::Cbrt:
        if (!(x.low > 0)) return std::nullopt;
        return powerFrom(valueOf(kernel, x), a, outwards(1.0 / 3, 1.0 / 3));
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
    case Kernel::Arctan: return fromSlope(valueOf(kernel, x), a, shifted(squared(a), 1));
    case Kernel::Arccot: return fromSlope(valueOf(kernel, x), negated(a), shifted(squared(a), 1));
    case Kernel::Arcsin: return fromSlope(valueOf(kernel, x), a, rootOf(shifted(negated(squared(a)), 1)));
    case Kernel::Arccos: return fromSlope(valueOf(kernel, x), negated(a), rootOf(shifted(negated(squared(a)), 1)));
    case Kernel::Arsinh: return fromSlope(valueOf(kernel, x), a, rootOf(shifted(squared(a), 1)));
    case Kernel::Arcosh: return fromSlope(valueOf(kernel, x), a, rootOf(shifted(squared(a), -1)));
    case Kernel::Artanh: return fromSlope(valueOf(kernel, x), a, shifted(negated(squared(a)), 1));
    case Kernel::Sinc: {
        const auto sine = ofOne(Kernel::Sin, a);
        return sine ? divided(*sine, a) : std::nullopt;
    }
    case Kernel::Erf: return errorFunction(kernel, a, 1);
    case Kernel::Erfc: return errorFunction(kernel, a, -1);
    case Kernel::Sgn:
    case Kernel::Floor:
    case Kernel::Ceil: {
        const auto value = valueOf(kernel, x);
        return value && value->low == value->high ? std::optional(constantSeries(*value)) : std::nullopt;
    }
    default: return std::nullopt;
    }
}

std::optional<Series> ofTwo(Kernel kernel, const Series& a, const Series& b, bool same, bool varies) {
    switch (kernel) {
    case Kernel::Add: return added(a, b);
    case Kernel::Subtract: return same ? Series{} : added(a, negated(b));
    case Kernel::Multiply: return same ? squared(a) : multiplied(a, b);
    case Kernel::Divide: return divided(a, b);
    case Kernel::Power: {
        bool constant = true;
        for (std::size_t n = 1; n <= order; ++n) constant = constant && isZero(b[n]);
        if (constant && b[0].low == b[0].high) return powerOf(a, b[0]);
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
        if (a[0].high <= b[0].low) return least ? a : b;
        if (b[0].high <= a[0].low) return least ? b : a;
        return std::nullopt;
    }
    case Kernel::Mod: {
        const auto quotient = divided(a, b);
        const auto whole = quotient ? valueOf(Kernel::Floor, (*quotient)[0]) : std::nullopt;
        if (!whole || whole->low != whole->high) return std::nullopt;
        return added(a, negated(multiplied(b, constantSeries(*whole))));
    }
    case Kernel::Less:
    case Kernel::LessEqual:
    case Kernel::Equal: {
        const auto value = valueOf(kernel, a[0], b[0], same);
        return value && value->low == value->high ? std::optional(constantSeries(*value)) : std::nullopt;
    }
    case Kernel::ArctanOfPoint:
        if (!varies)
            if (const auto value = valueOf(kernel, a[0], b[0], same)) return constantSeries(*value);
        return std::nullopt;
    default: return std::nullopt;
    }
}

} // namespace

TaylorEvaluator::TaylorEvaluator(const Program& program) : program_(program), registers_(program.registerCount()) {
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        Register& constant = registers_[program.inputCount + i];
        constant.known = std::isfinite(program.constants[i]);
        constant.c = constantSeries(exactly(program.constants[i]));
    }
}

TaylorEvaluator::Register TaylorEvaluator::apply(const Program::Instruction& step) const {
    Register result;
    const auto operands = program_.operandsOf(step);
    for (const std::uint32_t operand : operands) result.varies = result.varies || registers_[operand].varies;
    if (step.integral >= 0) return result;
    if (step.table >= 0) { // straight within a stretch
        const Register& at = registers_[step.operands[0]];
        const Interpolation& table = *program_.tables[static_cast<std::size_t>(step.table)];
        if (!at.known || at.isUnset || !table.holds(at.c[0].low, at.c[0].high)) return result;
        bool isStraight = false;
        const Bounds slope = table.slopesOver(at.c[0].low, at.c[0].high, isStraight);
        if (!isStraight) return result;
        for (std::size_t n = 1; n <= order; ++n) result.c[n] = slope * at.c[n];
        result.c[0] = table.over(at.c[0].low, at.c[0].high);
        result.known = true;
        return result;
    }
    if (step.field >= 0) { // of places that do not vary alone
        std::vector<Enclosure> place;
        for (const std::uint32_t operand : operands) {
            const Register& each = registers_[operand];
            if (!each.known || each.varies) return result;
            place.push_back({each.c[0].low, each.c[0].high});
        }
        const Enclosure value = enclose(*program_.fields[static_cast<std::size_t>(step.field)], place);
        result.known = value.isProof();
        result.c = constantSeries({value.low, value.high});
        return result;
    }
    if (step.special) {
        std::vector<Enclosure> values;
        for (const std::uint32_t operand : operands) {
            const Register& each = registers_[operand];
            if (!each.known || each.varies) return result;
            values.push_back({each.c[0].low, each.c[0].high});
        }
        const Enclosure value = encloseSpecial(step.special, values);
        result.known = value.isProof();
        result.c = constantSeries({value.low, value.high});
        return result;
    }
    const Register& a = registers_[step.operands[0]];
    const Register& b = registers_[step.operands[step.operandCount > 1 ? 1 : 0]];
    if (step.kernel == Kernel::When) {
        if (!a.known || a.c[0].low != a.c[0].high) return result;
        if (a.c[0].low != 0) return b;
        result.isUnset = result.known = true;
        return result;
    }
    if (step.kernel == Kernel::OrElse) return a.isUnset ? b : a;
    if (step.kernel == Kernel::IfDefined) return a.isUnset ? b : a; // what is defined comes first
    if (!a.known || a.isUnset || (step.operandCount > 1 && (!b.known || b.isUnset))) return result;
    const bool same = step.operandCount > 1 && step.operands[0] == step.operands[1];
    const auto series =
        step.operandCount == 1 ? ofOne(step.kernel, a.c) : ofTwo(step.kernel, a.c, b.c, same, result.varies);
    if (!series) {
        // What does not vary needs a value alone.
        if (result.varies) return result;
        const auto value = valueOf(step.kernel, a.c[0], b.c[0], same);
        result.known = value.has_value();
        if (value) result.c = constantSeries(*value);
        return result;
    }
    result.c = *series;
    result.known = true;
    for (const Bounds& each : result.c) result.known = result.known && !std::isnan(each.low) && !std::isnan(each.high);
    return result;
}

std::optional<TaylorSeries> TaylorEvaluator::operator()(const Bounds& k, std::span<const Bounds> others) {
    Register& first = registers_[0];
    first.known = first.varies = true;
    first.c = constantSeries(k);
    first.c[1] = exactly(1);
    for (std::size_t i = 0; i < others.size(); ++i) {
        registers_[i + 1].known = true;
        registers_[i + 1].c = constantSeries(others[i]);
    }
    for (const Program::Instruction& step : program_.instructions) registers_[step.result] = apply(step);
    const Register& last = registers_[program_.outputs[0]];
    if (!last.known || last.isUnset) return std::nullopt;
    return last.c;
}

} // namespace coulter
