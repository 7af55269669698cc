
#include "formula/proofs/taylor_evaluator.h"

#include "formula/bounds/enclosure.h"
#include "formula/bounds/taylor_rules.h"
#include "formula/measured/measured_enclosures.h"

#include <cmath>
#include <type_traits>
#include <vector>

namespace coulter {
namespace {

/// Follows a program's series, step by step, with coefficients that are bounds, or series of another variable.
template <class R> class Walker {
public:
    using Rules = TaylorRules<R>;
    using Series = typename Rules::Series;
    static constexpr bool isTwofold = std::is_same_v<R, SeriesNumber>;

    explicit Walker(const Program& program) : program_(program), registers_(program.registerCount()) {
        for (std::size_t i = 0; i < program.constants.size(); ++i) {
            Register& constant = registers_[program.inputCount + i];
            constant.known = std::isfinite(program.constants[i]);
            constant.c = Rules::constantSeries(R(exactly(program.constants[i])));
        }
        inner_.resize(program.integrals.size());
    }

    /// @param first  the series of the first input
    std::optional<Series> run(const Series& first, std::span<const R> others) {
        registers_[0].known = registers_[0].varies = true;
        registers_[0].c = first;
        for (std::size_t i = 0; i < others.size(); ++i) {
            registers_[i + 1].known = true;
            registers_[i + 1].c = Rules::constantSeries(others[i]);
            registers_[i + 1].varies = !isStill(others[i]);
        }
        for (const Program::Instruction& step : program_.instructions) registers_[step.result] = apply(step);
        const Register& last = registers_[program_.outputs[0]];
        if (!last.known || last.isUnset) return std::nullopt;
        return last.c;
    }

private:
    struct Register {
        bool known = false;
        bool isUnset = false; ///< of pieces: certainly none of those looked at so far
        bool varies = false;  ///< with any variable
        Series c{};
    };

    static bool isStill(const Bounds&) { return true; }
    static bool isStill(const SeriesNumber& a) { return isConstant(a); }

    Register apply(const Program::Instruction& step) {
        Register result;
        const auto operands = program_.operandsOf(step);
        for (const std::uint32_t operand : operands) result.varies = result.varies || registers_[operand].varies;
        if (step.integral >= 0) {
            if constexpr (!isTwofold) integrate(step, result);
            return result;
        }
        if (step.table >= 0) {
            if constexpr (!isTwofold) interpolate(step, result);
            return result;
        }
        if (step.special || step.field >= 0) { // of what does not vary alone
            std::vector<Enclosure> values;
            for (const std::uint32_t operand : operands) {
                const Register& each = registers_[operand];
                if (!each.known || each.varies) return result;
                values.push_back({baseOf(each.c[0]).low, baseOf(each.c[0]).high});
            }
            const Enclosure value = step.special
                                        ? encloseSpecial(step.special, values)
                                        : enclose(*program_.fields[static_cast<std::size_t>(step.field)], values);
            result.known = value.isProof();
            result.c = Rules::constantSeries(R(Bounds{value.low, value.high}));
            return result;
        }
        const Register& a = registers_[step.operands[0]];
        const Register& b = registers_[step.operands[step.operandCount > 1 ? 1 : 0]];
        if (step.kernel == Kernel::When) {
            const auto truth = a.known ? numberOf(a.c[0]) : std::nullopt;
            if (!truth) return result;
            if (*truth != 0) return b;
            result.isUnset = result.known = true;
            return result;
        }
        if (step.kernel == Kernel::OrElse) return a.isUnset ? b : a;
        if (step.kernel == Kernel::IfDefined) return a.isUnset ? b : a; // what is defined comes first
        if (!a.known || a.isUnset || (step.operandCount > 1 && (!b.known || b.isUnset))) return result;
        const bool same = step.operandCount > 1 && step.operands[0] == step.operands[1];
        const auto series = step.operandCount == 1 ? Rules::ofOne(step.kernel, a.c)
                                                   : Rules::ofTwo(step.kernel, a.c, b.c, same, result.varies);
        if (!series) {
            // What does not vary needs a value alone.
            if (result.varies) return result;
            const auto value = valueOf(step.kernel, a.c[0], b.c[0], same);
            result.known = value.has_value();
            if (value) result.c = Rules::constantSeries(*value);
            return result;
        }
        result.c = *series;
        result.known = true;
        for (const R& each : result.c) result.known = result.known && isNumber(each);
        return result;
    }

    static bool isNumber(const Bounds& a) { return !std::isnan(a.low) && !std::isnan(a.high); }
    static bool isNumber(const SeriesNumber& a) {
        return std::ranges::all_of(a.c, [](const Bounds& each) { return isNumber(each); });
    }

    /// Straight within a stretch.
    void interpolate(const Program::Instruction& step, Register& result) const {
        const Register& at = registers_[step.operands[0]];
        const Interpolation& table = *program_.tables[static_cast<std::size_t>(step.table)];
        if (!at.known || at.isUnset || !table.holds(at.c[0].low, at.c[0].high)) return;
        bool isStraight = false;
        const Bounds slope = table.slopesOver(at.c[0].low, at.c[0].high, isStraight);
        if (!isStraight) return;
        for (std::size_t n = 1; n <= taylorOrder; ++n) result.c[n] = slope * at.c[n];
        result.c[0] = table.over(at.c[0].low, at.c[0].high);
        result.known = true;
    }

    /// ∫ g(k, x) dk from a(x) to b(x) is ∫ g(a + (b − a) u, x) (b − a) du from 0 to 1.
    void integrate(const Program::Instruction& step, Register& result) {
        const auto index = static_cast<std::size_t>(step.integral);
        const Program::Integral& integral = program_.integrals[index];
        if (integral.over != Program::Over::Interval || !integral.integrand->integrals.empty()) return;
        std::vector<SeriesNumber> others;
        for (std::size_t k = 0; k < integral.operands.size(); ++k) {
            const Register& each = registers_[integral.operands[k]];
            if (!each.known || each.isUnset || !isBounded(each.c[0])) return;
            result.varies = result.varies || each.varies;
            if (k >= 2) others.emplace_back(each.c);
        }
        const SeriesNumber low(registers_[integral.operands[0]].c),
            length = SeriesNumber(registers_[integral.operands[1]].c) - low;
        Inner& inner = inner_[index];
        if (!inner.walker) inner.walker = std::make_unique<Walker<SeriesNumber>>(*integral.integrand);
        // Over so many parts that more make it no sharper; beside there it is about as many.
        constexpr int mostParts = 16;
        std::optional<SeriesNumber> best;
        int found = 1;
        for (int parts = std::max(1, inner.parts / 2); parts <= mostParts; parts *= 2) {
            auto sum = innerIntegral(*inner.walker, low, length, others, parts);
            const double before = best ? width(best->c[0]) : HUGE_VAL;
            if (sum && width(sum->c[0]) < before) best = std::move(sum);
            if (best && !(width(best->c[0]) < before / 2)) break;
            if (best) found = parts;
        }
        if (!best) return;
        inner.parts = found;
        result.c = best->c;
        result.known = isNumber(*best) && isBounded(result.c[0]);
    }

    static std::optional<SeriesNumber> innerIntegral(Walker<SeriesNumber>& inner, const SeriesNumber& low,
                                                     const SeriesNumber& length, std::span<const SeriesNumber> others,
                                                     int parts) {
        SeriesNumber sum(exactly(0));
        const double half = 0.5 / parts; // exactly, as the parts' ends and middles are
        for (int i = 0; i < parts; ++i) {
            const double middle = (2 * i + 1) * half;
            const auto from = [&](const Bounds& u) {
                typename Walker<SeriesNumber>::Series first{};
                first[0] = low + SeriesNumber(u) * length;
                first[1] = length;
                return first;
            };
            const auto at = inner.run(from(exactly(middle)), others),
                       along = at ? inner.run(from({middle - half, middle + half}), others) : std::nullopt;
            if (!along) return std::nullopt;
            // ∫ s^j from −h to h
            for (std::size_t j = 0; j <= taylorOrder; j += 2) {
                const SeriesNumber& c = j == taylorOrder ? (*along)[j] : (*at)[j];
                const double size = 2 * std::pow(half, static_cast<double>(j + 1)); // a power of two
                sum = sum + SeriesNumber(exactly(size) / exactly(static_cast<double>(j + 1))) * c;
            }
        }
        return sum * length;
    }

    const Program& program_;
    std::vector<Register> registers_;
    struct Inner {
        std::unique_ptr<Walker<SeriesNumber>> walker; ///< made when it is first asked for
        int parts = 0;                                ///< that make it sharp; 0: not known yet
    };
    std::vector<Inner> inner_; ///< of each integral
};

} // namespace

struct TaylorEvaluator::Working {
    Walker<Bounds> walker;
};

TaylorEvaluator::TaylorEvaluator(const Program& program) : working_(new Working{Walker<Bounds>(program)}) {}
TaylorEvaluator::~TaylorEvaluator() = default;
TaylorEvaluator::TaylorEvaluator(TaylorEvaluator&&) noexcept = default;

std::optional<TaylorSeries> TaylorEvaluator::operator()(const Bounds& k, std::span<const Bounds> others) {
    TaylorSeries first{};
    first[0] = k;
    first[1] = exactly(1);
    return working_->walker.run(first, others);
}

} // namespace coulter
