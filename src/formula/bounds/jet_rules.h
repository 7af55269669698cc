#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/bounds/interval_rules.h"
#include "formula/bounds/jet.h"
#include "formula/bounds/slope_rules.h"
#include "special/operations.h"

namespace coulter {

inline constexpr Bounds noSlope{0, 0};

/// Whether the bounds are those of a function that is defined and continuous on the whole box.
inline bool holds(const Enclosure& e) {
    return e.known && e.defined && e.continuous && !e.estimated && !e.mayBeUnset && e.low <= e.high;
}
inline Bounds boundsOf(const Enclosure& e) { return e.known && e.low <= e.high ? Bounds{e.low, e.high} : everything(); }

/// Operations on jets over one box: the rules by which value, first and second derivatives of a result follow from
/// those of its operands.
template <std::size_t N> class JetRules {
public:
    using J = Jet<N>;
    using Radius = std::array<double, N>;

    explicit JetRules(const Radius& radius) : radius_(radius) {
        for (const double r : radius) thin_ = thin_ && r == 0;
    }

    static J constant(const Enclosure& value) {
        J jet;
        jet.value = jet.centre = value;
        setSlopes(jet, noSlope);
        return jet;
    }

    J apply(Kernel kernel, const J& a, const J& b, bool same) const {
        if (kernel == Kernel::When) return when(a, b);
        if (kernel == Kernel::OrElse) return orElse(a, b);
        if (kernel == Kernel::IfDefined) return ifDefined(a, b);
        J r;
        // Sums of the box itself are sharp: a border at its very edge must not seem to lie inside.
        r.value = kernel == Kernel::Multiply ? quickly(kernel, a.value, b.value, same)
                                             : enclose(kernel, a.value, b.value, same);
        r.centre = quickly(kernel, a.centre, b.centre, same);
        if (const SlopeRule rule = slopeRule(kernel)) {
            smooth(rule, r, a);
            return r;
        }
        const Shape shape = operationOf(kernel).shape;
        // Of whole numbers and truths only constants have bounds that hold.
        setSlopes(r, shape == Shape::Stepped || shape == Shape::Truth ? noSlope : everything());
        switch (kernel) {
        case Kernel::Absolute: absolute(r, a); break;
        case Kernel::Add: linear(r, a, b, exactly(1)); break;
        case Kernel::Subtract:
            if (same)
                setSlopes(r, noSlope);
            else
                linear(r, a, b, exactly(-1));
            break;
        case Kernel::Multiply: multiply(r, a, b, same); break;
        case Kernel::Divide: divide(r, a, b); break;
        case Kernel::Power: power(r, a, b); break;
        case Kernel::ArctanOfPoint: angle(r, a, b); break;
        case Kernel::Mod: modulo(r, a, b); break;
        case Kernel::Min: extreme(r, a, b, a.value.high <= b.value.low, b.value.high <= a.value.low); break;
        case Kernel::Max: extreme(r, a, b, a.value.low >= b.value.high, b.value.low >= a.value.high); break;
        case Kernel::LogToBase: {
            const J base = apply(Kernel::Ln, a, {}, false), number = apply(Kernel::Ln, b, {}, false);
            divide(r, number, base);
            break;
        }
        default: break;
        }
        settle(r);
        return r;
    }

    /// A function of one operand with these slopes over the box and at its middle.
    void chain(J& r, const J& a, const Slopes& slopes, const Bounds& atCentre) const {
        for (std::size_t k = 0; k < N; ++k) {
            r.first[k] = slopes.first * a.first[k];
            r.centreFirst[k] = atCentre * a.centreFirst[k];
            for (std::size_t j = 0; j <= k; ++j) {
                const Bounds both = j == k ? square(a.first[k]) : a.first[j] * a.first[k];
                r.second[J::pair(j, k)] = slopes.second * both + slopes.first * a.second[J::pair(j, k)];
            }
        }
    }

    static void setSlopes(J& r, const Bounds& all) {
        r.first.fill(all);
        r.second.fill(all);
        r.centreFirst.fill(all);
    }
    static void forget(J& r) { setSlopes(r, everything()); }

    /// What does not hold is forgotten; the rest is intersected with the forms about the middle of the box.
    void settle(J& r) const {
        const bool over = holds(r.value), at = holds(r.centre);
        if (!over) {
            r.first.fill(everything());
            r.second.fill(everything());
        }
        if (!at) r.centreFirst.fill(everything());
        if (!over || !at || thin_) return;
        Bounds mean = boundsOf(r.centre), taylor = mean;
        for (std::size_t k = 0; k < N; ++k) {
            const Bounds reach{-radius_[k], radius_[k]};
            Bounds near = r.centreFirst[k];
            for (std::size_t l = 0; l < N; ++l)
                near = near + r.second[J::pair(std::min(k, l), std::max(k, l))] * Bounds{-radius_[l], radius_[l]};
            r.first[k] = common(r.first[k], near);
            mean = mean + r.first[k] * reach;
            taylor = taylor + rangeOfParabola(r.centreFirst[k], r.second[J::pair(k, k)], radius_[k]);
            for (std::size_t j = 0; j < k; ++j) {
                const double product = roundedUp(radius_[j] * radius_[k]);
                taylor = taylor + r.second[J::pair(j, k)] * Bounds{-product, product};
            }
        }
        const Bounds value = common(boundsOf(r.value), common(mean, taylor));
        r.value.low = value.low;
        r.value.high = value.high;
    }

private:
    /// As `enclose`, which is sharper and slower, and knows all the operations.
    static Enclosure quickly(Kernel kernel, const Enclosure& a, const Enclosure& b, bool same) {
        if (!same && holds(a) && holds(b)) {
            const Bounds x{a.low, a.high}, y{b.low, b.high};
            if (kernel == Kernel::Add) return enclosureOf(x + y);
            if (kernel == Kernel::Subtract) return enclosureOf(x - y);
            if (kernel == Kernel::Multiply) return enclosureOf(x * y);
        }
        return enclose(kernel, a, b, same);
    }
    static Enclosure enclosureOf(const Bounds& bounds) { return {bounds.low, bounds.high}; }

    void smooth(SlopeRule rule, J& r, const J& a) const {
        if (!holds(r.value) && !holds(r.centre)) return forget(r);
        const Slopes slopes =
            holds(r.value) ? rule(boundsOf(r.value), boundsOf(a.value)) : Slopes{everything(), everything()};
        const Bounds atCentre = holds(r.centre) ? rule(boundsOf(r.centre), boundsOf(a.centre)).first : everything();
        chain(r, a, slopes, atCentre);
        settle(r);
    }

    static void linear(J& r, const J& a, const J& b, const Bounds& sign) {
        for (std::size_t k = 0; k < N; ++k) {
            r.first[k] = a.first[k] + sign * b.first[k];
            r.centreFirst[k] = a.centreFirst[k] + sign * b.centreFirst[k];
        }
        for (std::size_t p = 0; p < J::pairs; ++p) r.second[p] = a.second[p] + sign * b.second[p];
    }

    static void multiply(J& r, const J& a, const J& b, bool same) {
        const Bounds x = boundsOf(a.value), y = boundsOf(b.value), xc = boundsOf(a.centre), yc = boundsOf(b.centre);
        for (std::size_t k = 0; k < N; ++k) {
            r.first[k] = a.first[k] * y + x * b.first[k];
            r.centreFirst[k] = a.centreFirst[k] * yc + xc * b.centreFirst[k];
            for (std::size_t j = 0; j <= k; ++j) {
                const std::size_t p = J::pair(j, k);
                const Bounds mixed = j != k ? a.first[j] * b.first[k] + a.first[k] * b.first[j]
                                     : same ? 2 * square(a.first[k])
                                            : 2 * (a.first[k] * b.first[k]);
                r.second[p] = a.second[p] * y + mixed + x * b.second[p];
            }
        }
    }

    /// q = a/b: b q′ = a′ − q b′, and b q″ = a″ − 2 q′ b′ − q b″.
    static void divide(J& r, const J& a, const J& b) {
        const Bounds over = reciprocal(boundsOf(b.value)), overCentre = reciprocal(boundsOf(b.centre)),
                     q = boundsOf(r.value), qc = boundsOf(r.centre);
        for (std::size_t k = 0; k < N; ++k) {
            r.first[k] = (a.first[k] - q * b.first[k]) * over;
            r.centreFirst[k] = (a.centreFirst[k] - qc * b.centreFirst[k]) * overCentre;
        }
        for (std::size_t k = 0; k < N; ++k) {
            for (std::size_t j = 0; j <= k; ++j) {
                const std::size_t p = J::pair(j, k);
                const Bounds mixed =
                    j == k ? 2 * (r.first[k] * b.first[k]) : r.first[j] * b.first[k] + r.first[k] * b.first[j];
                r.second[p] = (a.second[p] - mixed - q * b.second[p]) * over;
            }
        }
    }

    static bool isConstant(const J& a) {
        for (const Bounds& each : a.first) {
            if (!isZero(each)) return false;
        }
        return a.value.isPoint();
    }

    void power(J& r, const J& a, const J& b) const {
        if (isConstant(b)) {
            const Bounds n = exactly(b.value.low), less = n - exactly(1);
            const auto slope = [&](const Enclosure& x, int order) {
                if (order == 2 && n.low == 1) return noSlope;
                const double lower = n.low - order; // what was rounded away lies within its neighbours
                Enclosure exponent = Enclosure::point(lower);
                if (lower + order != n.low) exponent = {roundedDown(lower), roundedUp(lower)};
                const Enclosure e = enclose(Kernel::Power, x, exponent, false);
                return holds(e) ? (order == 1 ? n : n * less) * boundsOf(e) : everything();
            };
            if (n.low == 0) return setSlopes(r, noSlope);
            chain(r, a, {slope(a.value, 1), slope(a.value, 2)}, slope(a.centre, 1));
            return;
        }
        if (!(a.value.low > 0)) return forget(r); // a^b = exp(b ln a)
        J exponent = constant({});
        const J logarithm = apply(Kernel::Ln, a, {}, false);
        multiply(exponent, b, logarithm, false);
        const Bounds value = boundsOf(r.value);
        chain(r, exponent, {value, value}, boundsOf(r.centre));
    }

    void angle(J& r, const J& y, const J& x) const {
        const bool right = x.value.low > 0, beside = y.value.low > 0 || y.value.high < 0;
        if (!right && !beside) return forget(r);
        // arctan(y/x), or ±π/2 − arctan(x/y)
        const J quotient = right ? apply(Kernel::Divide, y, x, false) : apply(Kernel::Divide, x, y, false);
        const SlopeRule rule = slopeRule(right ? Kernel::Arctan : Kernel::Arccot);
        chain(r, quotient, rule({}, boundsOf(quotient.value)), rule({}, boundsOf(quotient.centre)).first);
    }

    static void modulo(J& r, const J& a, const J& b) {
        if (!isConstant(b)) return forget(r);
        r.first = a.first;
        r.second = a.second;
        r.centreFirst = a.centreFirst;
    }

    static void copySlopes(J& r, const J& a, double sign) {
        for (std::size_t k = 0; k < N; ++k) {
            r.first[k] = sign * a.first[k];
            r.centreFirst[k] = sign * a.centreFirst[k];
        }
        for (std::size_t p = 0; p < J::pairs; ++p) r.second[p] = sign * a.second[p];
    }

    static void absolute(J& r, const J& a) {
        if (a.value.low >= 0 || a.value.high <= 0) return copySlopes(r, a, a.value.low >= 0 ? 1 : -1);
        forget(r);
        for (std::size_t k = 0; k < N; ++k) r.first[k] = hullOf(a.first[k], -a.first[k]);
    }

    /// Minimum or maximum: one of both where that is certain, else a function whose slopes lie between theirs.
    static void extreme(J& r, const J& a, const J& b, bool isFirst, bool isSecond) {
        if (isFirst || isSecond) return copySlopes(r, isFirst ? a : b, 1);
        forget(r);
        for (std::size_t k = 0; k < N; ++k) r.first[k] = hullOf(a.first[k], b.first[k]);
    }

    static J withEnclosures(const J& slopes, const Enclosure& value, const Enclosure& centre) {
        J r = slopes;
        r.value = value;
        r.centre = centre;
        if (!holds(value)) forget(r);
        return r;
    }

    /// Pieces: what holds on the whole box keeps its slopes, what holds on a part of it is no function of its own.
    static J when(const J& condition, const J& value) {
        return withEnclosures(value, enclose(Kernel::When, condition.value, value.value, false),
                              enclose(Kernel::When, condition.centre, value.centre, false));
    }
    static J orElse(const J& first, const J& second) {
        return withEnclosures(first.value.isUnset ? second : first,
                              enclose(Kernel::OrElse, first.value, second.value, false),
                              enclose(Kernel::OrElse, first.centre, second.centre, false));
    }
    static J ifDefined(const J& first, const J& second) {
        const bool isSecond = first.value.known && first.value.low > first.value.high;
        return withEnclosures(isSecond ? second : first, enclose(Kernel::IfDefined, first.value, second.value, false),
                              enclose(Kernel::IfDefined, first.centre, second.centre, false));
    }

    Radius radius_;
    bool thin_ = true;
};

} // namespace coulter
