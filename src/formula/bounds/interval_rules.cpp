#include "formula/bounds/interval_rules.h"

#include "special/bounds.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <numbers>

namespace coulter {
namespace {

using std::numbers::pi;
constexpr double inf = HUGE_VAL;

double down(double x) { return moved(x, -1); }
double up(double x) { return moved(x, 1); }

// Rounded downwards or upwards by the sign of the exact error, so that exact results stay as they are.
double sumError(double a, double b, double s) {
    const double c = s - a;
    return (a - (s - c)) + (b - c);
}
double addDown(double a, double b) {
    const double s = a + b;
    return std::isinf(s)           ? (s > 0 && std::isfinite(a) && std::isfinite(b) ? 1.7976931348623157e308 : s)
           : sumError(a, b, s) < 0 ? down(s)
                                   : s;
}
double addUp(double a, double b) { return -addDown(-a, -b); }
double multiplyDown(double a, double b) {
    if (a == 0 || b == 0) return 0; // also against an infinite bound, which stands for "however large"
    const double p = a * b;
    if (std::isinf(p)) return p > 0 && std::isfinite(a) && std::isfinite(b) ? 1.7976931348623157e308 : p;
    if (std::abs(p) < 1e-290) return down(p); // the error may not be representable
    return std::fma(a, b, -p) < 0 ? down(p) : p;
}
double multiplyUp(double a, double b) { return -multiplyDown(-a, b); }
double divideDown(double a, double b) {
    if (a == 0) return 0;
    if (std::isinf(b)) return std::isinf(a) ? -inf : (a > 0) == (b > 0) ? 0 : -5e-324;
    const double q = a / b;
    if (std::isinf(q)) return q > 0 && std::isfinite(a) ? 1.7976931348623157e308 : q;
    if (std::abs(q) < 1e-290 || std::abs(a) < 1e-290 || std::abs(q * b) > 1e300) return down(q);
    const double rest = std::fma(-q, b, a); // a − q b
    return (b > 0 ? rest : -rest) < 0 ? down(q) : q;
}
double divideUp(double a, double b) { return -divideDown(-a, b); }

double at(Kernel kernel, double x, double y = 0) {
    alignas(64) double a[8], b[8], result[8];
    std::fill_n(a, 8, x);
    std::fill_n(b, 8, y);
    static const InstructionSet best = bestInstructionSet();
    blockKernel(kernel, best)(a, b, result, 8);
    return result[0];
}
/// At both ends of an interval, in one go.
std::pair<double, double> atEnds(Kernel kernel, const Enclosure& a) {
    alignas(64) double x[8], y[8] = {}, result[8];
    std::fill_n(x, 8, a.low);
    x[1] = a.high;
    static const InstructionSet best = bestInstructionSet();
    blockKernel(kernel, best)(x, y, result, 8);
    return {result[0], result[1]};
}
// What overflows lies beyond the largest number, however far.
constexpr double largest = 1.7976931348623157e308;
double lowered(double v) { return std::isinf(v) ? std::min(v, largest) : moved(v, -marginUlps); }
double raised(double v) { return std::isinf(v) ? std::max(v, -largest) : moved(v, marginUlps); }
double lowAt(Kernel kernel, double x, double y = 0) { return lowered(at(kernel, x, y)); }
double highAt(Kernel kernel, double x, double y = 0) { return raised(at(kernel, x, y)); }

Enclosure nowhere() { return {inf, -inf, true, false}; }

Enclosure bounds(double low, double high) { return {low, high}; }

/// a within [least, most]; what lies outside makes the function undefined there.
Enclosure clipped(const Enclosure& a, double least, double most) {
    Enclosure result = a;
    if (a.low < least) result.low = least, result.defined = false;
    if (a.high > most) result.high = most, result.defined = false;
    if (result.low > result.high) return nowhere();
    return result;
}

Enclosure monotone(Kernel kernel, const Enclosure& a, int direction) {
    const auto [atLow, atHigh] = atEnds(kernel, a);
    Enclosure result = a;
    result.low = lowered(direction > 0 ? atLow : atHigh);
    result.high = raised(direction > 0 ? atHigh : atLow);
    return result;
}

Enclosure within(Enclosure a, double least, double most) {
    a.low = std::max(a.low, least);
    a.high = std::min(a.high, most);
    return a;
}

Enclosure discontinuous(Enclosure a) {
    a.continuous = false;
    return a;
}

Enclosure hull(const Enclosure& a, const Enclosure& b) { return {std::min(a.low, b.low), std::max(a.high, b.high)}; }

Enclosure multiply(const Enclosure& a, const Enclosure& b, bool same) {
    if (same) {
        const double most = std::max(std::abs(a.low), std::abs(a.high));
        const double least = a.low <= 0 && a.high >= 0 ? 0 : std::min(std::abs(a.low), std::abs(a.high));
        return bounds(multiplyDown(least, least), multiplyUp(most, most));
    }
    // By their signs, which corners are the extremes; where both hold 0, two corners each.
    if (a.low >= 0) {
        const double x = b.low >= 0 ? a.low : a.high, y = b.high >= 0 ? a.high : a.low;
        return bounds(multiplyDown(x, b.low), multiplyUp(y, b.high));
    }
    if (a.high <= 0) {
        const double x = b.high >= 0 ? a.low : a.high, y = b.low >= 0 ? a.high : a.low;
        return bounds(multiplyDown(x, b.high), multiplyUp(y, b.low));
    }
    if (b.low >= 0) return bounds(multiplyDown(a.low, b.high), multiplyUp(a.high, b.high));
    if (b.high <= 0) return bounds(multiplyDown(a.high, b.low), multiplyUp(a.low, b.low));
    return bounds(std::min(multiplyDown(a.low, b.high), multiplyDown(a.high, b.low)),
                  std::max(multiplyUp(a.low, b.low), multiplyUp(a.high, b.high)));
}

Enclosure divide(const Enclosure& a, const Enclosure& b) {
    if (b.low <= 0 && b.high >= 0) {
        Enclosure result{-inf, inf};
        result.defined = result.continuous = false;
        // A denominator that touches zero from one side only keeps one bound.
        if (b.low == 0 && b.high > 0 && a.low >= 0) result.low = divideDown(a.low, b.high);
        if (b.low == 0 && b.high > 0 && a.high <= 0) result.high = divideUp(a.high, b.high);
        if (b.low == 0 && b.high == 0) return nowhere();
        return result;
    }
    Enclosure result{inf, -inf};
    for (const double x : {a.low, a.high}) {
        for (const double y : {b.low, b.high}) {
            result.low = std::min(result.low, divideDown(x, y));
            result.high = std::max(result.high, divideUp(x, y));
        }
    }
    return result;
}

/// Whether some place phase + kπ may lie in [a.low, a.high]; places within rounding of it count.
bool mayMeet(const Enclosure& a, double phase) {
    const double slack = 1e-9 + 1e-14 * std::max(std::abs(a.low), std::abs(a.high));
    if (!(slack < 0.1) || !(a.width() < 3.1)) return true;
    const double first = std::ceil((a.low - slack - phase) / pi);
    return phase + first * pi <= a.high + slack;
}

/// sin or cos: `phase` is the place of an extremum.
Enclosure wave(Kernel kernel, const Enclosure& a, double phase) {
    if (!std::isfinite(a.low) || !std::isfinite(a.high)) return discontinuous(bounds(-1, 1));
    if (a.width() < 1e-10 && std::abs(a.low) < 1e5) { // no steeper than 1: the width bounds what happens between
        const auto [x, y] = atEnds(kernel, a);
        return within(bounds(moved(std::min(x, y) - a.width(), -marginUlps - 1),
                             moved(std::max(x, y) + a.width(), marginUlps + 1)),
                      -1, 1);
    }
    const bool meets = mayMeet(a, phase);
    const double slack = 1e-9 + 1e-14 * std::max(std::abs(a.low), std::abs(a.high));
    if (meets && (slack >= 1e-3 || a.width() >= 1.5)) return bounds(-1, 1);
    const auto [x, y] = atEnds(kernel, a);
    double low = moved(std::min(x, y), -marginUlps), high = moved(std::max(x, y), marginUlps);
    if (meets) {
        // Over a width below 1.5 there is one extremum at most: a maximum or a minimum by its sign.
        const double place = phase + std::round((a.low + a.width() / 2 - phase) / pi) * pi;
        if (at(kernel, place) > 0)
            high = 1;
        else
            low = -1;
    }
    return within(bounds(low, high), -1, 1);
}

Enclosure reciprocal(const Enclosure& a) { return divide(Enclosure::point(1), a); }

Enclosure gamma(const Enclosure& a) {
    constexpr double least = 1.4616321449683623; // where Γ is least for x > 0
    if (a.low > 0) {
        if (a.high <= least) return monotone(Kernel::Gamma, a, -1);
        if (a.low >= 1.4616321449683625) return monotone(Kernel::Gamma, a, 1);
        return bounds(0.8856031944108886, std::max(highAt(Kernel::Gamma, a.low), highAt(Kernel::Gamma, a.high)));
    }
    // Γ(x) = π/(sin(πx) Γ(1 − x)) (DLMF 5.5.3), between two poles
    if (std::floor(a.low) != std::floor(a.high) || a.low == std::floor(a.low)) {
        Enclosure result{-inf, inf};
        result.defined = result.continuous = false;
        return result;
    }
    const Enclosure constant{3.141592653589793, 3.1415926535897936};
    const Enclosure sine = enclose(Kernel::Sin, multiply(constant, a, false), {}, false);
    const Enclosure other = gamma({addDown(1, -a.high), addUp(1, -a.low)});
    return divide(constant, multiply(sine, other, false));
}

Enclosure lnGamma(const Enclosure& a) {
    if (!(a.low > 0)) return Enclosure::unknown();
    if (a.high <= 1.4616321449683623) return monotone(Kernel::LnGamma, a, -1);
    if (a.low >= 1.4616321449683625) return monotone(Kernel::LnGamma, a, 1);
    return bounds(-0.12148629053584962, std::max(highAt(Kernel::LnGamma, a.low), highAt(Kernel::LnGamma, a.high)));
}

Enclosure power(const Enclosure& base, const Enclosure& exponent) {
    const double n = exponent.low;
    if (exponent.isPoint() && n == std::floor(n) && std::abs(n) < 1e15) {
        if (n == 0) return Enclosure::point(1);
        if (n < 0) return reciprocal(power(base, Enclosure::point(-n)));
        const bool even = std::fmod(n, 2) == 0;
        if (!even) return bounds(lowAt(Kernel::Power, base.low, n), highAt(Kernel::Power, base.high, n));
        const double most = std::max(std::abs(base.low), std::abs(base.high));
        const double least = base.low <= 0 && base.high >= 0 ? 0 : std::min(std::abs(base.low), std::abs(base.high));
        return bounds(least == 0 ? 0 : lowAt(Kernel::Power, least, n), highAt(Kernel::Power, most, n));
    }
    // A negative base has a power only for whole exponents, which single places of the exponent may be.
    if (base.low < 0) {
        if (exponent.isPoint()) {
            Enclosure result = power(clipped(base, 0, inf), exponent);
            result.defined = false;
            return result;
        }
        return Enclosure::unknown();
    }
    if (base.low > base.high) return nowhere();
    // Monotone in each of both, so the extremes are at corners.
    Enclosure result{inf, -inf};
    for (const double x : {base.low, base.high}) {
        for (const double y : {exponent.low, exponent.high}) {
            const double v = at(Kernel::Power, x, y);
            if (std::isnan(v)) return Enclosure::unknown();
            result.low = std::min(result.low, lowAt(Kernel::Power, x, y));
            result.high = std::max(result.high, highAt(Kernel::Power, x, y));
        }
    }
    result.low = std::max(result.low, 0.0);
    if (base.low == 0 && exponent.low <= 0) {
        result.high = inf;
        result.defined = result.continuous = false;
    }
    return result;
}

Enclosure angle(const Enclosure& y, const Enclosure& x) {
    const bool cut = x.low <= 0 && y.low <= 0 && y.high >= 0;
    if (cut) {
        Enclosure result{-3.1415926535897936, 3.1415926535897936};
        result.continuous = false;
        result.defined = !(x.high >= 0);
        return result;
    }
    Enclosure result{inf, -inf};
    for (const double v : {y.low, y.high}) {
        for (const double u : {x.low, x.high}) {
            result.low = std::min(result.low, lowAt(Kernel::ArctanOfPoint, v, u));
            result.high = std::max(result.high, highAt(Kernel::ArctanOfPoint, v, u));
        }
    }
    return result;
}

Enclosure modulo(const Enclosure& x, const Enclosure& y) {
    if (!y.isPoint() || y.low == 0) return Enclosure::unknown();
    const double p = y.low;
    const double first = std::floor(x.low / p), last = std::floor(x.high / p);
    const double a = at(Kernel::Mod, x.low, p), b = at(Kernel::Mod, x.high, p);
    // mod is rounded at most once, so both ends tell whether a whole multiple lies between; not at all where x has the
    // sign of p.
    const int units = (p > 0 ? x.low >= 0 : x.high <= 0) ? 0 : 1;
    if (std::abs(first - last) <= 1 && x.width() < std::abs(p) && a <= b && std::abs(x.low / p) < 1e15)
        return bounds(moved(a, -units), moved(b, units));
    return discontinuous(p > 0 ? bounds(0, p) : bounds(p, 0));
}

Enclosure truth(bool certainlyTrue, bool certainlyFalse) {
    if (certainlyTrue) return Enclosure::point(1);
    if (certainlyFalse) return Enclosure::point(0);
    return discontinuous(bounds(0, 1));
}

Enclosure when(const Enclosure& condition, const Enclosure& value) {
    if (condition.isPoint() && condition.low != 0) {
        Enclosure result = value;
        result.defined = result.defined && condition.defined;
        result.known = result.known && condition.known;
        return result;
    }
    if (condition.isPoint()) {
        Enclosure result = nowhere();
        result.defined = true; // there is nothing to be undefined: another piece holds here
        result.mayBeUnset = result.isUnset = true;
        result.known = condition.known;
        return result;
    }
    Enclosure result = value;
    result.mayBeUnset = true;
    result.continuous = false;
    result.known = value.known && condition.known;
    return result;
}

Enclosure orElse(const Enclosure& first, const Enclosure& second) {
    if (!first.mayBeUnset) return first;
    if (first.isUnset) return second;
    Enclosure result = hull(first, second);
    result.known = first.known && second.known;
    result.defined = first.defined && second.defined;
    result.continuous = false;
    result.estimated = first.estimated || second.estimated;
    result.mayBeUnset = second.mayBeUnset;
    return result;
}

Enclosure ifDefined(const Enclosure& first, const Enclosure& second) {
    if (first.known && first.defined && !first.mayBeUnset) return first;
    if (first.low > first.high && first.known) return second;
    Enclosure result = hull(first, second);
    result.known = first.known && second.known;
    result.defined = second.defined;
    result.continuous = false;
    result.estimated = first.estimated || second.estimated;
    return result;
}

/// The result for operands that are known, not empty and, together, free of other doubts.
Enclosure raw(Kernel kernel, const Enclosure& a, const Enclosure& b, bool same) {
    switch (kernel) {
    case Kernel::Negate: return bounds(-a.high, -a.low);
    case Kernel::Absolute:
        if (a.low >= 0) return bounds(a.low, a.high);
        if (a.high <= 0) return bounds(-a.high, -a.low);
        return bounds(0, std::max(-a.low, a.high));
    case Kernel::Sqrt: {
        const Enclosure x = clipped(a, 0, inf);
        if (x.low > x.high) return x;
        Enclosure result = monotone(kernel, x, 1);
        result.low = std::max(result.low, 0.0);
        return result;
    }
    case Kernel::Cbrt:
    case Kernel::Sinh:
    case Kernel::Arsinh: return monotone(kernel, a, 1);
    case Kernel::Exp: {
        Enclosure result = monotone(kernel, a, 1);
        result.low = std::max(result.low, 0.0);
        return result;
    }
    case Kernel::Ln:
    case Kernel::Lg:
    case Kernel::Lb: {
        Enclosure x = clipped(a, 0, inf);
        if (x.low > x.high) return x;
        if (x.low == 0) x.defined = x.continuous = false;
        return monotone(kernel, x, 1);
    }
    case Kernel::Sin: return wave(kernel, a, pi / 2);
    case Kernel::Cos: return wave(kernel, a, 0);
    case Kernel::Tan:
    case Kernel::Cot: {
        if (mayMeet(a, kernel == Kernel::Tan ? pi / 2 : 0)) {
            Enclosure result{-inf, inf};
            result.defined = result.continuous = false;
            return result;
        }
        return monotone(kernel, a, kernel == Kernel::Tan ? 1 : -1);
    }
    case Kernel::Sec: return reciprocal(wave(Kernel::Cos, a, 0));
    case Kernel::Csc: return reciprocal(wave(Kernel::Sin, a, pi / 2));
    case Kernel::Arcsin:
    case Kernel::Arccos: {
        const Enclosure x = clipped(a, -1, 1);
        return x.low > x.high ? x : monotone(kernel, x, kernel == Kernel::Arcsin ? 1 : -1);
    }
    case Kernel::Arctan: return within(monotone(kernel, a, 1), -1.5707963267948968, 1.5707963267948968);
    case Kernel::Arccot: return monotone(kernel, a, -1);
    case Kernel::Arcsec: return raw(Kernel::Arccos, reciprocal(a), b, same);
    case Kernel::Arccsc: return raw(Kernel::Arcsin, reciprocal(a), b, same);
    case Kernel::Cosh: {
        const Enclosure x = raw(Kernel::Absolute, a, b, same);
        Enclosure result = monotone(kernel, x, 1);
        result.low = std::max(result.low, 1.0);
        return result;
    }
    case Kernel::Tanh: return within(monotone(kernel, a, 1), -1, 1);
    case Kernel::Coth: return reciprocal(raw(Kernel::Tanh, a, b, same));
    case Kernel::Sech: return within(monotone(kernel, raw(Kernel::Absolute, a, b, same), -1), 0, 1);
    case Kernel::Csch: return reciprocal(monotone(Kernel::Sinh, a, 1));
    case Kernel::Arcosh: {
        const Enclosure x = clipped(a, 1, inf);
        return x.low > x.high ? x : monotone(kernel, x, 1);
    }
    case Kernel::Artanh: {
        Enclosure x = clipped(a, -1, 1);
        if (x.low > x.high) return x;
        if (x.low == -1 || x.high == 1) x.defined = x.continuous = false;
        return monotone(kernel, x, 1);
    }
    case Kernel::Arcoth: return raw(Kernel::Artanh, reciprocal(a), b, same);
    case Kernel::Arsech: {
        Enclosure x = clipped(a, 0, 1);
        if (x.low > x.high) return x;
        if (x.low == 0) x.defined = x.continuous = false;
        return monotone(kernel, x, -1);
    }
    case Kernel::Arcsch:
        if (a.low <= 0 && a.high >= 0) return divide(Enclosure::point(1), a);
        return monotone(kernel, a, -1);
    case Kernel::Sgn: {
        if (a.low > 0 || a.high < 0 || a.isPoint()) return Enclosure::point(a.low > 0 ? 1 : a.high < 0 ? -1 : 0);
        return discontinuous(bounds(a.low == 0 ? 0 : -1, a.high == 0 ? 0 : 1));
    }
    case Kernel::Floor:
    case Kernel::Ceil: {
        const bool floor = kernel == Kernel::Floor;
        const Enclosure result =
            bounds(floor ? std::floor(a.low) : std::ceil(a.low), floor ? std::floor(a.high) : std::ceil(a.high));
        return result.isPoint() ? result : discontinuous(result);
    }
    case Kernel::Sinc: { // |sinc′| < 0.4363, and −0.2173 < sinc ≤ 1
        const double middle = a.low + a.width() / 2;
        const double reach = 0.4363 * up(std::max(a.high - middle, middle - a.low));
        if (!std::isfinite(reach)) return bounds(-0.2173, 1);
        return within(bounds(addDown(lowAt(kernel, middle), -reach), addUp(highAt(kernel, middle), reach)), -0.2173, 1);
    }
    case Kernel::Factorial: return gamma({addDown(a.low, 1), addUp(a.high, 1)});
    case Kernel::Gamma: return gamma(a);
    case Kernel::LnGamma: return lnGamma(a);
    case Kernel::Erf: return within(monotone(kernel, a, 1), -1, 1);
    case Kernel::Erfc: return within(monotone(kernel, a, -1), 0, 2);
    case Kernel::Add: return bounds(addDown(a.low, b.low), addUp(a.high, b.high));
    case Kernel::Subtract:
        if (same) return Enclosure::point(0);
        return bounds(addDown(a.low, -b.high), addUp(a.high, -b.low));
    case Kernel::Multiply: return multiply(a, b, same);
    case Kernel::Divide: return divide(a, b);
    case Kernel::Power: return power(a, b);
    case Kernel::ArctanOfPoint: return angle(a, b);
    case Kernel::Mod: return modulo(a, b);
    case Kernel::Min: return bounds(std::min(a.low, b.low), std::min(a.high, b.high));
    case Kernel::Max: return bounds(std::max(a.low, b.low), std::max(a.high, b.high));
    case Kernel::LogToBase: {
        const Enclosure number = raw(Kernel::Ln, b, b, false), base = raw(Kernel::Ln, a, a, false);
        if (number.low > number.high || base.low > base.high) return nowhere();
        Enclosure result = divide(number, base);
        inherit(result, number);
        inherit(result, base);
        return result;
    }
    case Kernel::Less: return truth(a.high < b.low, a.low >= b.high);
    case Kernel::LessEqual: return truth(a.high <= b.low, a.low > b.high);
    case Kernel::Equal: return truth(a.isPoint() && b.isPoint() && a.low == b.low, a.high < b.low || b.high < a.low);
    case Kernel::When:
    case Kernel::OrElse:
    case Kernel::IfDefined:
    case Kernel::Count: break;
    }
    return Enclosure::unknown();
}

} // namespace

Enclosure enclose(Kernel kernel, const Enclosure& a, const Enclosure& b, bool same) {
    if (kernel == Kernel::When) return when(a, b);
    if (kernel == Kernel::OrElse) return orElse(a, b);
    if (kernel == Kernel::IfDefined) return ifDefined(a, b);
    const bool two = operandCount(kernel) == 2;
    if (!a.known || (two && !b.known)) return Enclosure::unknown();
    if (a.low > a.high || (two && b.low > b.high)) return nowhere();
    if (std::isnan(a.low) || std::isnan(a.high) || (two && (std::isnan(b.low) || std::isnan(b.high))))
        return Enclosure::unknown();
    Enclosure result = raw(kernel, a, b, same && two);
    if (std::isnan(result.low) || std::isnan(result.high)) return Enclosure::unknown();
    inherit(result, a);
    if (two) inherit(result, b);
    return result;
}

} // namespace coulter
