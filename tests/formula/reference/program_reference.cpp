#include "program_reference.h"

#include "references.h"
#include "special/catalogue.h"

#include <cmath>

using namespace coulter;

namespace oracle {
namespace {

const Reference* referenceOf(const Program::Instruction& instruction) {
    for (const FunctionEntry& entry : catalogue()) {
        const bool same = instruction.special ? entry.implementation.scalar == instruction.special
                                              : !entry.isSpecial() && entry.implementation.kernel == instruction.kernel;
        if (same) return &references().at(entry.form);
    }
    return nullptr;
}

/// Values that pieces mark as not chosen are kept apart from undefined ones.
struct Value {
    Ball ball;
    bool defined = true;
    bool unset = false;
};

bool certainly(const Ball& ball) { return arb_is_finite(ball.v) && arb_rel_accuracy_bits(ball.v) > 60; }

bool basic(const Program::Instruction& in, const Value& a, const Value& b, Value& out) {
    switch (in.kernel) {
    case Kernel::Add: arb_add(out.ball.v, a.ball.v, b.ball.v, precision); return true;
    case Kernel::Subtract: arb_sub(out.ball.v, a.ball.v, b.ball.v, precision); return true;
    case Kernel::Multiply: arb_mul(out.ball.v, a.ball.v, b.ball.v, precision); return true;
    case Kernel::Divide: arb_div(out.ball.v, a.ball.v, b.ball.v, precision); return true;
    case Kernel::Negate: arb_neg(out.ball.v, a.ball.v); return true;
    case Kernel::Power:
        if (arb_is_exact(b.ball.v) && arb_is_int(b.ball.v)) {
            fmpz_t n;
            fmpz_init(n);
            arf_get_fmpz(n, arb_midref(b.ball.v), ARF_RND_NEAR);
            arb_pow_fmpz(out.ball.v, a.ball.v, n, precision);
            fmpz_clear(n);
        } else {
            arb_pow(out.ball.v, a.ball.v, b.ball.v, precision);
        }
        return true;
    case Kernel::Factorial: {
        Ball next;
        arb_add_ui(next.v, a.ball.v, 1, precision);
        arb_gamma(out.ball.v, next.v, precision);
        return true;
    }
    case Kernel::Less:
    case Kernel::LessEqual:
    case Kernel::Equal: {
        const bool less = arb_lt(a.ball.v, b.ball.v), greater = arb_gt(a.ball.v, b.ball.v);
        const bool equal = arb_equal(a.ball.v, b.ball.v) && arb_is_exact(a.ball.v);
        if (!less && !greater && !equal) return false;
        const bool holds = in.kernel == Kernel::Less ? less : in.kernel == Kernel::Equal ? equal : !greater;
        arb_set_ui(out.ball.v, holds ? 1 : 0);
        return true;
    }
    default: return false;
    }
}

std::optional<Ball> evaluate(const Program& program, const std::vector<Ball>& inputs) {
    std::vector<Value> registers(program.registerCount());
    for (std::size_t i = 0; i < inputs.size(); ++i) registers[i].ball = inputs[i];
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        Value& constant = registers[inputs.size() + i];
        constant.defined = !std::isnan(program.constants[i]);
        if (constant.defined) constant.ball = Ball(program.constants[i]);
    }
    for (const Program::Instruction& instruction : program.instructions) {
        if (instruction.integral >= 0) return std::nullopt;
        const Value a = registers[instruction.operands[0]], b = registers[instruction.operands[1]];
        Value out;
        if (instruction.kernel == Kernel::When) {
            if (!a.defined) return std::nullopt;
            out = b;
            out.unset = arb_is_zero(a.ball.v);
        } else if (instruction.kernel == Kernel::OrElse) {
            out = a.unset ? b : a;
        } else if (instruction.kernel == Kernel::IfDefined) {
            out = a.defined && certainly(a.ball) ? a : b;
        } else {
            std::vector<Ball> operands;
            for (const std::uint32_t operand : program.operandsOf(instruction)) {
                out.defined = out.defined && registers[operand].defined;
                operands.push_back(registers[operand].ball);
            }
            if (out.defined && !basic(instruction, a, b, out)) {
                const Reference* reference = referenceOf(instruction);
                if (!reference) return std::nullopt;
                (*reference)(out.ball, operands);
            }
            if (!arb_is_finite(out.ball.v)) out.defined = false;
        }
        registers[instruction.result] = out;
    }
    const Value& result = registers[program.outputs[0]];
    if (!result.defined || result.unset || !arb_is_finite(result.ball.v)) return std::nullopt;
    return result.ball;
}

std::vector<Ball> balls(const std::vector<double>& inputs) {
    std::vector<Ball> all;
    for (const double x : inputs) all.emplace_back(x);
    return all;
}

} // namespace

std::optional<std::pair<double, double>> ProgramReference::at(const std::vector<double>& inputs) const {
    const auto value = evaluate(program, balls(inputs));
    if (!value) return std::nullopt;
    arf_t low, high;
    arf_init(low);
    arf_init(high);
    arb_get_interval_arf(low, high, value->v, precision);
    const std::pair<double, double> found{arf_get_d(low, ARF_RND_FLOOR), arf_get_d(high, ARF_RND_CEIL)};
    arf_clear(low);
    arf_clear(high);
    if (!(found.second - found.first <= 1e-9 * (1 + std::abs(found.first)))) return std::nullopt;
    return found;
}

std::optional<double> ProgramReference::slope(const std::vector<double>& inputs) const {
    std::vector<Ball> left = balls(inputs), right = left;
    Ball h(std::ldexp(1, -100));
    arb_sub(left[0].v, left[0].v, h.v, precision);
    arb_add(right[0].v, right[0].v, h.v, precision);
    const auto a = evaluate(program, left), b = evaluate(program, right);
    if (!a || !b) return std::nullopt;
    Ball difference;
    arb_sub(difference.v, b->v, a->v, precision);
    arb_div(difference.v, difference.v, h.v, precision);
    arb_mul_2exp_si(difference.v, difference.v, -1);
    if (!arb_is_finite(difference.v)) return std::nullopt;
    Ball tolerance(1e-20);
    const double value = arf_get_d(arb_midref(difference.v), ARF_RND_NEAR);
    if (mag_get_d(arb_radref(difference.v)) > 1e-14 * (1e-3 + std::abs(value))) return std::nullopt;
    return value;
}

namespace {

std::optional<Ball> difference(const Program& program, const std::vector<double>& inputs, std::size_t j,
                               std::optional<std::size_t> k, int exponent) {
    const Ball h(std::ldexp(1, exponent));
    const auto moved = [&](int alongJ, int alongK) {
        std::vector<Ball> at = balls(inputs);
        arb_addmul_si(at[j].v, h.v, alongJ, precision);
        if (k) arb_addmul_si(at[*k].v, h.v, alongK, precision);
        return evaluate(program, at);
    };
    Ball sum;
    const auto add = [&](int alongJ, int alongK, int weight) {
        const auto value = moved(alongJ, alongK);
        if (!value) return false;
        arb_addmul_si(sum.v, value->v, weight, precision);
        return true;
    };
    if (!k) {
        if (!add(1, 0, 1) || !add(-1, 0, -1)) return std::nullopt;
        arb_mul_2exp_si(sum.v, sum.v, -exponent - 1);
    } else if (*k == j) {
        if (!add(1, 0, 1) || !add(0, 0, -2) || !add(-1, 0, 1)) return std::nullopt;
        arb_mul_2exp_si(sum.v, sum.v, -2 * exponent);
    } else {
        if (!add(1, 1, 1) || !add(1, -1, -1) || !add(-1, 1, -1) || !add(-1, -1, 1)) return std::nullopt;
        arb_mul_2exp_si(sum.v, sum.v, -2 * exponent - 2);
    }
    return sum;
}

} // namespace

std::optional<std::pair<double, double>> ProgramReference::derivative(const std::vector<double>& inputs, std::size_t j,
                                                                      std::optional<std::size_t> k) const {
    const auto wide = difference(program, inputs, j, k, -60), narrow = difference(program, inputs, j, k, -61);
    if (!wide || !narrow) return std::nullopt;
    Ball apart, found = *narrow;
    arb_sub(apart.v, wide->v, narrow->v, precision);
    arb_mul_2exp_si(apart.v, apart.v, 1);
    arb_get_mag(arb_radref(apart.v), apart.v); // twice the difference of both, as an error
    arb_add_error_mag(found.v, arb_radref(apart.v));
    const double value = arf_get_d(arb_midref(found.v), ARF_RND_NEAR), error = mag_get_d(arb_radref(found.v));
    if (!std::isfinite(value) || !(error <= 1e-14 * (1e-6 + std::abs(value)))) return std::nullopt;
    arf_t low, high;
    arf_init(low);
    arf_init(high);
    arb_get_interval_arf(low, high, found.v, precision);
    const std::pair<double, double> ends{arf_get_d(low, ARF_RND_FLOOR), arf_get_d(high, ARF_RND_CEIL)};
    arf_clear(low);
    arf_clear(high);
    return ends;
}

} // namespace oracle
