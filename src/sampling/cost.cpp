#include "sampling/cost.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

/// An elementary and a special function, and the rule of an integral for each value of its integrand, in additions.
constexpr double elementary = 4, special = 300, rule = 50;
/// Where integrals are tried, as parts of each interval.
constexpr std::array<std::array<double, 2>, 3> trials{{{0.5, 0.5}, {0.22, 0.71}, {0.83, 0.13}}};

bool isArithmetic(Kernel kernel) {
    switch (kernel) {
    case Kernel::Negate:
    case Kernel::Absolute:
    case Kernel::Add:
    case Kernel::Subtract:
    case Kernel::Multiply:
    case Kernel::Divide:
    case Kernel::Min:
    case Kernel::Max: return true;
    default: return false;
    }
}

/// Of the instructions themselves, without what stands under integrals.
double costOfInstructions(const Program& program) {
    double cost = 1;
    for (const Program::Instruction& step : program.instructions)
        cost += step.special ? special : step.integral >= 0 || isArithmetic(step.kernel) ? 1 : elementary;
    return cost;
}

/// The dearest integrand, of all levels.
double dearestIntegrand(const Program& program) {
    double most = 0;
    for (const Program::Integral& integral : program.integrals)
        most = std::max({most, rule + costOfInstructions(*integral.integrand), dearestIntegrand(*integral.integrand)});
    return most;
}

double within(const Interval& interval, double part) {
    if (interval.low > 0 && interval.high / interval.low > 1000) // nearer to how a logarithmic scale sees it
        return interval.low * std::pow(interval.high / interval.low, part);
    return interval.low + (interval.high - interval.low) * part;
}

} // namespace

double costOfValue(const Program& program, std::span<const Interval> intervals, double most,
                   const std::stop_token& stop) {
    const double own = costOfInstructions(program), each = dearestIntegrand(program);
    if (own > most) return HUGE_VAL;
    if (program.integrals.empty() || std::isinf(most)) return own;
    const auto allowed = static_cast<std::int64_t>(std::min(1e15, most / each));
    Evaluator evaluator(program);
    std::vector<double> values(program.outputs.size());
    double sum = 0;
    for (const auto& trial : trials) {
        std::array<double, 2> at{};
        std::vector<const double*> in;
        std::vector<double*> out;
        for (std::size_t k = 0; k < program.inputCount; ++k) {
            at[k] = within(intervals[k], trial[k]);
            in.push_back(&at[k]);
        }
        for (double& value : values) out.push_back(&value);
        evaluator.limit(stop, allowed);
        evaluator(in, out, 1);
        if (evaluator.exhausted()) return HUGE_VAL;
        sum += static_cast<double>(allowed - evaluator.valuesLeft()) * each;
    }
    return own + sum / trials.size();
}

} // namespace coulter
