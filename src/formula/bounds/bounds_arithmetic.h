#pragma once
#include "special/bounds.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>

namespace coulter {

/// Arithmetic of bounds, rounded outwards: each operation holds every result that its operands allow. Quick rather than
/// sharp: a result is widened by more than the half unit in the last place that rounding can cost, exact or not; sharp
/// rules for values are in interval_rules.h. A bound of ±inf stands for “however large”, and nothing of it is left when
/// it is multiplied by an exact 0.

inline Bounds everything() { return {-HUGE_VAL, HUGE_VAL}; }
inline Bounds exactly(double x) { return {x, x}; }
inline bool isZero(const Bounds& a) { return a.low == 0 && a.high == 0; }
inline bool isBounded(const Bounds& a) { return std::isfinite(a.low) && std::isfinite(a.high); }
inline bool hasZero(const Bounds& a) { return a.low <= 0 && a.high >= 0; }
inline double width(const Bounds& a) { return a.high - a.low; }
/// The largest absolute value.
inline double magnitude(const Bounds& a) { return std::max(std::abs(a.low), std::abs(a.high)); }

/// Results nearer to 0 than this are not told apart: what rounding costs them is no longer a part of them, and
/// subnormal numbers are slow.
inline constexpr double smallest = 0x1p-960;

/// A double below all results that may have been rounded to x (of a sum, product, quotient or root; 0 is exact), or x
/// itself where it is infinite.
inline double roundedDown(double x) {
    constexpr double largest = 1.7976931348623157e308;
    if (x > 0) return x < 2 * smallest ? 0 : std::min(x, largest) * (1 - 0x1p-52);
    if (x > -smallest) return x == 0 ? 0 : -smallest;
    if (x >= -largest) return x * (1 + 0x1p-51);
    return -HUGE_VAL; // also what is undefined
}
inline double roundedUp(double x) { return -roundedDown(-x); }
inline Bounds outwards(double low, double high) { return {roundedDown(low), roundedUp(high)}; }

inline Bounds operator-(const Bounds& a) { return {-a.high, -a.low}; }
inline Bounds operator+(const Bounds& a, const Bounds& b) {
    if (isZero(a)) return b;
    if (isZero(b)) return a;
    double low = a.low + b.low, high = a.high + b.high;
    low -= std::abs(low) * 0x1p-52;
    high += std::abs(high) * 0x1p-52;
    return {std::isnan(low) ? -HUGE_VAL : low, std::isnan(high) ? HUGE_VAL : high};
}
inline Bounds operator-(const Bounds& a, const Bounds& b) { return a + -b; }

/// At least `smallest` in size unless it is 0, so that no result is lost to underflow.
inline double productOf(double a, double b) {
    const double p = a * b;
    if (std::abs(p) >= smallest) return p;
    if (a == 0 || b == 0) return 0;
    return std::isnan(p) ? p : std::copysign(smallest, p);
}
inline Bounds operator*(const Bounds& a, const Bounds& b) {
    double p = a.low * b.low, q = a.low * b.high, r = a.high * b.low, s = a.high * b.high;
    const double least = std::min(std::min(std::abs(p), std::abs(q)), std::min(std::abs(r), std::abs(s)));
    const double low = std::min(std::min(p, q), std::min(r, s)), high = std::max(std::max(p, q), std::max(r, s));
    if (least >= smallest && low >= -1e308 && high <= 1e308) // the usual case
        return {low - std::abs(low) * 0x1p-52, high + std::abs(high) * 0x1p-52};
    if (isZero(a) || isZero(b)) return {0, 0};
    p = productOf(a.low, b.low), q = productOf(a.low, b.high), r = productOf(a.high, b.low),
    s = productOf(a.high, b.high);
    return outwards(std::min(std::min(p, q), std::min(r, s)), std::max(std::max(p, q), std::max(r, s)));
}
inline Bounds operator*(double k, const Bounds& a) { return exactly(k) * a; }

inline Bounds square(const Bounds& a) {
    if (isZero(a)) return a;
    const double most = magnitude(a),
                 least = a.low <= 0 && a.high >= 0 ? 0 : std::min(std::abs(a.low), std::abs(a.high));
    return {roundedDown(productOf(least, least)), roundedUp(productOf(most, most))};
}

inline Bounds reciprocal(const Bounds& a) {
    if (a.low > 0 || a.high < 0) return outwards(1 / a.high, 1 / a.low);
    // What touches zero from one side only keeps one bound.
    if (a.low == 0 && a.high > 0) return {roundedDown(1 / a.high), HUGE_VAL};
    if (a.high == 0 && a.low < 0) return {-HUGE_VAL, roundedUp(1 / a.low)};
    return everything();
}
inline Bounds operator/(const Bounds& a, const Bounds& b) { return isZero(a) ? a : a * reciprocal(b); }

inline Bounds squareRoot(const Bounds& a) {
    return {a.low > 0 ? std::max(0.0, roundedDown(std::sqrt(a.low))) : 0.0,
            roundedUp(std::sqrt(std::max(0.0, a.high)))};
}

inline Bounds hullOf(const Bounds& a, const Bounds& b) { return {std::min(a.low, b.low), std::max(a.high, b.high)}; }

/// What both allow; a if they contradict each other, as they do where nothing has a value.
inline Bounds common(const Bounds& a, const Bounds& b) {
    const Bounds both{std::max(a.low, b.low), std::min(a.high, b.high)};
    return both.low <= both.high ? both : a;
}

/// The greatest value of b s + d s²/2 for |s| ≤ radius, with b ≥ 0.
inline double greatestOfParabola(double b, double d, double radius) {
    if (d < 0 && b < -d * radius) return productOf(b, b) / (-2 * d) * (1 + 0x1p-50) + smallest; // at its top, s = b/d
    const double first = b * radius, second = d * radius * radius / 2;
    return std::max(0.0, first + second + (first + std::abs(second)) * 0x1p-50 + smallest);
}

/// Bounds of b s + d s²/2 for all |s| ≤ radius.
inline Bounds rangeOfParabola(const Bounds& b, const Bounds& d, double radius) {
    const double steepest = magnitude(b);
    if (!std::isfinite(steepest) || !isBounded(d)) return everything();
    return {-greatestOfParabola(steepest, -d.low, radius), greatestOfParabola(steepest, d.high, radius)};
}

} // namespace coulter
