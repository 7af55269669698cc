#include "formula/jet.h"

#include "formula/bounds_arithmetic.h"
#include "formula/catalogue_slopes.h"
#include "formula/interval_rules.h"
#include "formula/slope_rules.h"

#include <optional>

namespace coulter {
namespace {

constexpr Bounds none{0, 0};

/// Whether the bounds are those of a function that is defined and continuous on the whole box.
bool holds(const Enclosure& e) {
    return e.known && e.defined && e.continuous && !e.estimated && !e.mayBeUnset && e.low <= e.high;
}
Bounds boundsOf(const Enclosure& e) { return e.known && e.low <= e.high ? Bounds{e.low, e.high} : everything(); }

/// Operations on jets over one box.
template <std::size_t N> class Rules {
public:
    using J = Jet<N>;
    using Radius = std::array<double, N>;

    explicit Rules(const Radius& radius) : radius_(radius) {
        for (const double r : radius) thin_ = thin_ && r == 0;
    }

    static J constant(const Enclosure& value) {
        J jet;
        jet.value = jet.centre = value;
        setSlopes(jet, none);
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
        setSlopes(r, none);
        switch (kernel) {
        case Kernel::Absolute: absolute(r, a); break;
        case Kernel::Add: linear(r, a, b, exactly(1)); break;
        case Kernel::Subtract:
            if (!same) linear(r, a, b, exactly(-1));
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
        default: break; // of whole numbers and truths only constants have bounds that hold
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
                if (order == 2 && n.low == 1) return none;
                const double lower = n.low - order; // what was rounded away lies within its neighbours
                Enclosure exponent = Enclosure::point(lower);
                if (lower + order != n.low) exponent = {roundedDown(lower), roundedUp(lower)};
                const Enclosure e = enclose(Kernel::Power, x, exponent, false);
                return holds(e) ? (order == 1 ? n : n * less) * boundsOf(e) : everything();
            };
            if (n.low == 0) return;
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

} // namespace

MiddleAndRadius middleAndRadius(const Bounds& interval) {
    const double middle = interval.low / 2 + interval.high / 2;
    if (interval.low == interval.high) return {interval.low, 0};
    return {middle, roundedUp(std::max(roundedUp(interval.high - middle), roundedUp(middle - interval.low)))};
}

template <std::size_t N> struct JetEvaluator<N>::Working {
    /// A special function's derivatives by its one operand that varies.
    struct Special {
        std::optional<CatalogueSlopes> slopes; ///< none: several operands vary, or none does
        std::size_t varying = 0;
        bool varies = false;
    };
    struct Integral {
        Program program; ///< the integral alone, of its operands
        std::unique_ptr<IntervalEvaluator> evaluator;
    };

    explicit Working(const Program& given) : program(given), registers(given.registerCount()) {
        std::vector<bool> depends(given.registerCount(), false);
        for (std::size_t i = 0; i < given.inputCount; ++i) depends[i] = true;
        for (std::size_t i = 0; i < given.constants.size(); ++i) {
            Enclosure constant = Enclosure::point(given.constants[i]);
            if (std::isnan(given.constants[i])) constant = Enclosure{HUGE_VAL, -HUGE_VAL, true, false};
            Jet<N>& jet = registers[given.inputCount + i] = Rules<N>::constant(constant);
            if (!holds(constant)) Rules<N>::forget(jet);
        }
        for (const Program::Integral& integral : given.integrals)
            integrals.push_back({integralAlone(integral), nullptr});
        for (Integral& integral : integrals) integral.evaluator = std::make_unique<IntervalEvaluator>(integral.program);
        specials.resize(given.instructions.size());
        integralVaries.resize(given.integrals.size());
        for (std::size_t i = 0; i < given.instructions.size(); ++i) {
            const Program::Instruction& step = given.instructions[i];
            bool any = false;
            for (const std::uint32_t operand : given.operandsOf(step)) any = any || depends[operand];
            depends[step.result] = any;
            if (step.integral >= 0) integralVaries[static_cast<std::size_t>(step.integral)] = any;
            if (step.special) specials[i] = prepared(step, depends, any);
        }
    }

    Special prepared(const Program::Instruction& step, const std::vector<bool>& depends, bool any) const {
        Special special;
        special.varies = any;
        std::vector<double> operands;
        std::size_t count = 0;
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            const std::uint32_t operand = step.operands[k];
            const bool known = operand >= program.inputCount && operand < program.inputCount + program.constants.size();
            operands.push_back(known ? program.constants[operand - program.inputCount] : 0);
            if (known || !depends[operand]) continue;
            special.varying = k;
            ++count;
        }
        if (count == 1) special.slopes.emplace(step.special, operands, special.varying);
        return special;
    }

    Jet<N> specialJet(const Program::Instruction& step, Special& special, const Rules<N>& rules) {
        std::array<Enclosure, 4> over, at;
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            over[k] = registers[step.operands[k]].value;
            at[k] = registers[step.operands[k]].centre;
        }
        Jet<N> r = Rules<N>::constant(encloseSpecial(step.special, {over.data(), step.operandCount}));
        if (!special.varies) return r;
        r.centre = encloseSpecial(step.special, {at.data(), step.operandCount});
        if (!special.slopes) {
            Rules<N>::forget(r);
            return r;
        }
        const Jet<N>& operand = registers[step.operands[special.varying]];
        const Slopes slopes =
            holds(r.value) ? (*special.slopes)(boundsOf(operand.value)) : Slopes{everything(), everything()};
        const Bounds atCentre = holds(r.centre) ? special.slopes->first(boundsOf(operand.centre)) : everything();
        rules.chain(r, operand, slopes, atCentre);
        rules.settle(r);
        return r;
    }

    Jet<N> integralJet(std::size_t index) {
        std::vector<Enclosure> operands;
        for (const std::uint32_t operand : program.integrals[index].operands)
            operands.push_back(registers[operand].value);
        Jet<N> r = Rules<N>::constant((*integrals[index].evaluator)(operands)[0]);
        if (!integralVaries[index]) return r;
        r.centre = Enclosure::unknown();
        Rules<N>::forget(r);
        return r;
    }

    const Program& program;
    std::vector<Jet<N>> registers;
    std::vector<Special> specials; ///< of each instruction
    std::vector<Integral> integrals;
    std::vector<bool> integralVaries;
    std::vector<Jet<N>> outputs;
};

template <std::size_t N>
JetEvaluator<N>::JetEvaluator(const Program& program) : working_(std::make_unique<Working>(program)) {}
template <std::size_t N> JetEvaluator<N>::~JetEvaluator() = default;
template <std::size_t N> JetEvaluator<N>::JetEvaluator(JetEvaluator&&) noexcept = default;

template <std::size_t N> std::span<const Jet<N>> JetEvaluator<N>::operator()(const std::array<Bounds, N>& box) {
    std::array<double, N> radius{};
    std::array<Jet<N>, N> inputs;
    for (std::size_t k = 0; k < N; ++k) {
        const MiddleAndRadius part = middleAndRadius(box[k]);
        radius[k] = part.radius;
        inputs[k] = Rules<N>::constant({box[k].low, box[k].high});
        inputs[k].centre = Enclosure::point(part.middle);
        inputs[k].first[k] = inputs[k].centreFirst[k] = exactly(1);
    }
    return (*this)(inputs, radius);
}

template <std::size_t N>
std::span<const Jet<N>> JetEvaluator<N>::operator()(const std::array<Jet<N>, N>& inputs,
                                                    const std::array<double, N>& radius) {
    Working& w = *working_;
    std::copy(inputs.begin(), inputs.end(), w.registers.begin());
    const Rules<N> rules(radius);
    for (std::size_t i = 0; i < w.program.instructions.size(); ++i) {
        const Program::Instruction& step = w.program.instructions[i];
        Jet<N> result;
        if (step.special) {
            result = w.specialJet(step, w.specials[i], rules);
        } else if (step.integral >= 0) {
            result = w.integralJet(static_cast<std::size_t>(step.integral));
        } else {
            result = rules.apply(step.kernel, w.registers[step.operands[0]], w.registers[step.operands[1]],
                                 step.operands[0] == step.operands[1]);
        }
        w.registers[step.result] = result;
    }
    w.outputs.clear();
    for (const std::uint32_t output : w.program.outputs) {
        Jet<N>& last = w.outputs.emplace_back(w.registers[output]);
        if (last.centre.mayBeUnset) last.centre.defined = false;
        if (!last.value.mayBeUnset) continue;
        last.value.defined = false;
        Rules<N>::forget(last);
    }
    return w.outputs;
}

template <std::size_t N> Jet<N> applied(Kernel kernel, const Jet<N>& operand, const std::array<double, N>& radius) {
    return Rules<N>(radius).apply(kernel, operand, {}, false);
}

template class JetEvaluator<1>;
template class JetEvaluator<2>;
template Jet<1> applied(Kernel, const Jet<1>&, const std::array<double, 1>&);
template Jet<2> applied(Kernel, const Jet<2>&, const std::array<double, 2>&);

double costOf(const Program& program) {
    double cost = 1;
    for (const Program::Instruction& step : program.instructions) {
        if (step.special)
            cost += 40;
        else if (step.integral >= 0)
            cost += 32 * costOf(*program.integrals[static_cast<std::size_t>(step.integral)].integrand);
        else
            cost += slopeRule(step.kernel) ? 3 : 1;
    }
    return cost;
}

} // namespace coulter
