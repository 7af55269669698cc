#include "formula/proofs/jet_evaluator.h"

#include "formula/bounds/jet_rules.h"
#include "formula/measured/measured_enclosures.h"
#include "formula/proofs/catalogue_slopes.h"
#include "formula/proofs/endless_jet.h"
#include "formula/proofs/integral_jet.h"

#include <algorithm>
#include <optional>

namespace coulter {

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
        std::unique_ptr<IntegralJet> jet;    ///< along one variable; null where there is none
        std::unique_ptr<EndlessJet> endless; ///< where that one has none
    };

    explicit Working(const Program& given) : program(given), registers(given.registerCount()) {
        std::vector<bool> depends(given.registerCount(), false);
        for (std::size_t i = 0; i < given.inputCount; ++i) depends[i] = true;
        for (std::size_t i = 0; i < given.constants.size(); ++i) {
            Enclosure constant = Enclosure::point(given.constants[i]);
            if (std::isnan(given.constants[i])) constant = Enclosure{HUGE_VAL, -HUGE_VAL, true, false};
            Jet<N>& jet = registers[given.inputCount + i] = JetRules<N>::constant(constant);
            if (!holds(constant)) JetRules<N>::forget(jet);
        }
        for (const Program::Integral& integral : given.integrals)
            integrals.push_back({integralAlone(integral), nullptr, nullptr, nullptr});
        for (Integral& integral : integrals) {
            integral.evaluator = std::make_unique<IntervalEvaluator>(integral.program);
            const Program::Integral& alone = integral.program.integrals[0];
            if (N == 1 && IntegralJet::fits(alone)) integral.jet = std::make_unique<IntegralJet>(alone);
            if (N == 1 && EndlessJet::fits(alone)) integral.endless = std::make_unique<EndlessJet>(alone);
        }
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

    Jet<N> specialJet(const Program::Instruction& step, Special& special, const JetRules<N>& rules) {
        std::array<Enclosure, 4> over, at;
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            over[k] = registers[step.operands[k]].value;
            at[k] = registers[step.operands[k]].centre;
        }
        Jet<N> r = JetRules<N>::constant(encloseSpecial(step.special, {over.data(), step.operandCount}));
        if (!special.varies) return r;
        r.centre = encloseSpecial(step.special, {at.data(), step.operandCount});
        if (!special.slopes) {
            JetRules<N>::forget(r);
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

    /// Straight between its points, with corners there.
    Jet<N> tableJet(const Program::Instruction& step, const JetRules<N>& rules) {
        const Interpolation& table = *program.tables[static_cast<std::size_t>(step.table)];
        const Jet<N>& at = registers[step.operands[0]];
        Jet<N> r = JetRules<N>::constant(enclose(table, at.value));
        r.centre = enclose(table, at.centre);
        if (!holds(r.value) || !holds(r.centre)) {
            JetRules<N>::forget(r);
            return r;
        }
        bool isStraight = true, isStraightAtCentre = true;
        const Bounds slope = table.slopesOver(at.value.low, at.value.high, isStraight);
        const Bounds atCentre = table.slopesOver(at.centre.low, at.centre.high, isStraightAtCentre);
        rules.chain(r, at, {slope, isStraight ? exactly(0) : everything()},
                    isStraightAtCentre ? atCentre : everything());
        rules.settle(r);
        return r;
    }

    /// Of a grid along one variable: straight between its places, or constant within a cell.
    Jet<N> fieldJet(const Program::Instruction& step, const JetRules<N>& rules) {
        const MeasuredField& field = *program.fields[static_cast<std::size_t>(step.field)];
        std::array<Enclosure, 3> over, at;
        std::array<Bounds, 3> box{}, middle{};
        std::size_t varying = 0, count = 0;
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            const Jet<N>& operand = registers[step.operands[k]];
            over[k] = operand.value;
            at[k] = operand.centre;
            box[k] = {over[k].low, over[k].high};
            middle[k] = {at[k].low, at[k].high};
            if (over[k].isPoint()) continue;
            varying = k;
            ++count;
        }
        Jet<N> r = JetRules<N>::constant(enclose(field, {over.data(), step.operandCount}));
        r.centre = enclose(field, {at.data(), step.operandCount});
        const bool isKnown = holds(r.value) && holds(r.centre);
        if (isKnown && field.over({box.data(), step.operandCount}).isConstant) return r;
        if (!isKnown || count != 1) {
            JetRules<N>::forget(r);
            return r;
        }
        bool isStraight = false, isStraightAtCentre = false;
        const Bounds slope = field.slopeOver(varying, {box.data(), step.operandCount}, isStraight);
        const Bounds atCentre = field.slopeOver(varying, {middle.data(), step.operandCount}, isStraightAtCentre);
        rules.chain(r, registers[step.operands[varying]], {slope, isStraight ? exactly(0) : everything()},
                    isStraightAtCentre ? atCentre : everything());
        rules.settle(r);
        return r;
    }

    Jet<N> integralJet(std::size_t index, const std::array<double, N>& radius) {
        std::vector<Enclosure> operands;
        for (const std::uint32_t operand : program.integrals[index].operands)
            operands.push_back(registers[operand].value);
        if constexpr (N == 1) {
            if (integralVaries[index]) {
                std::vector<Jet<1>> jets;
                for (const std::uint32_t operand : program.integrals[index].operands)
                    jets.push_back(registers[operand]);
                if (integrals[index].jet) {
                    const Jet<1> jet = (*integrals[index].jet)(jets, radius[0]);
                    if (holds(jet.value)) return jet;
                }
                if (integrals[index].endless) {
                    const auto jet = (*integrals[index].endless)(jets, radius[0]);
                    if (jet && holds(jet->value)) return *jet;
                }
            }
        }
        Jet<N> r = JetRules<N>::constant((*integrals[index].evaluator)(operands)[0]);
        if (!integralVaries[index]) return r;
        r.centre = Enclosure::unknown();
        JetRules<N>::forget(r);
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
        inputs[k] = JetRules<N>::constant({box[k].low, box[k].high});
        inputs[k].centre = Enclosure::point(part.middle);
        inputs[k].first[k] = inputs[k].centreFirst[k] = exactly(1);
    }
    return (*this)(std::span<const Jet<N>>(inputs), radius);
}

template <std::size_t N>
std::span<const Jet<N>> JetEvaluator<N>::operator()(std::span<const Jet<N>> inputs,
                                                    const std::array<double, N>& radius) {
    Working& w = *working_;
    std::copy(inputs.begin(), inputs.end(), w.registers.begin());
    const JetRules<N> rules(radius);
    for (std::size_t i = 0; i < w.program.instructions.size(); ++i) {
        const Program::Instruction& step = w.program.instructions[i];
        Jet<N> result;
        if (step.table >= 0) {
            result = w.tableJet(step, rules);
        } else if (step.field >= 0) {
            result = w.fieldJet(step, rules);
        } else if (step.special) {
            result = w.specialJet(step, w.specials[i], rules);
        } else if (step.integral >= 0) {
            result = w.integralJet(static_cast<std::size_t>(step.integral), radius);
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
        JetRules<N>::forget(last);
    }
    return w.outputs;
}

template <std::size_t N> Jet<N> applied(Kernel kernel, const Jet<N>& operand, const std::array<double, N>& radius) {
    return JetRules<N>(radius).apply(kernel, operand, {}, false);
}

template class JetEvaluator<1>;
template class JetEvaluator<2>;
template Jet<1> applied(Kernel, const Jet<1>&, const std::array<double, 1>&);
template Jet<2> applied(Kernel, const Jet<2>&, const std::array<double, 2>&);

bool hasJets(const Program& program) {
    return std::ranges::all_of(program.integrals, [](const Program::Integral& integral) {
        return IntegralJet::fits(integral) || EndlessJet::fits(integral);
    });
}

double costOf(const Program& program) {
    double cost = 1;
    for (const Program::Instruction& step : program.instructions) {
        if (step.special)
            cost += 40;
        else if (step.integral >= 0)
            cost += 3000 * costOf(*program.integrals[static_cast<std::size_t>(step.integral)].integrand);
        else
            cost += slopeRule(step.kernel) ? 3 : 1;
    }
    return cost;
}

} // namespace coulter
