#include "sampling/curve_sampler.h"

#include "formula/text.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

/// More borders than that are too many to be drawn as what they are.
constexpr std::size_t mostBorders = 4'000;

/// An operation of the formula whose result changes its piece, and its operands among the outputs.
struct Switch {
    Kernel kernel = Kernel::Count;
    std::size_t first = 0, second = 0;
};

bool switches(Kernel kernel) {
    switch (kernel) {
    case Kernel::Absolute:
    case Kernel::Sgn:
    case Kernel::Floor:
    case Kernel::Ceil:
    case Kernel::Mod:
    case Kernel::Min:
    case Kernel::Max:
    case Kernel::Less:
    case Kernel::LessEqual:
    case Kernel::ArctanOfPoint: return true;
    default: return false;
    }
}

/// Which piece an operation is in; pieces are told apart by being different numbers.
double pieceOf(Kernel kernel, double a, double b) {
    switch (kernel) {
    case Kernel::Floor: return std::floor(a);
    case Kernel::Ceil: return std::ceil(a);
    case Kernel::Mod: return std::floor(a / b);
    case Kernel::Less:
    case Kernel::Min:
    case Kernel::Max: return a < b ? 1 : 0;
    case Kernel::LessEqual: return a <= b ? 1 : 0;
    default: return a < 0 ? 1 : 0;
    }
}

/// The part of a program that computes the operands of its switches, each step in a register of its own.
struct SwitchProgram {
    Program program;
    std::vector<Switch> switches;
};

SwitchProgram switchProgram(const Program& f) {
    SwitchProgram made;
    Program& all = made.program;
    all.inputCount = f.inputCount;
    all.constants = f.constants;
    all.integrals = f.integrals;
    std::vector<std::uint32_t> now(f.registerCount());
    for (std::uint32_t i = 0; i < now.size(); ++i) now[i] = i;
    const auto firstTemporary = static_cast<std::uint32_t>(f.inputCount + f.constants.size());
    for (Program::Instruction step : f.instructions) {
        if (step.integral >= 0) {
            for (std::uint32_t& operand : all.integrals[static_cast<std::size_t>(step.integral)].operands)
                operand = now[operand];
        }
        for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = now[step.operands[k]];
        const bool isSwitch = step.special == nullptr && step.integral < 0 && switches(step.kernel);
        if (isSwitch) {
            const auto at = all.outputs.size();
            made.switches.push_back({step.kernel, at, at + (step.operandCount > 1 ? 1 : 0)});
            for (std::uint32_t k = 0; k < step.operandCount; ++k) all.outputs.push_back(step.operands[k]);
        }
        const auto fresh = firstTemporary + static_cast<std::uint32_t>(all.instructions.size());
        now[step.result] = fresh;
        step.result = fresh;
        all.instructions.push_back(step);
    }
    all.temporaryCount = all.instructions.size();
    // What no switch depends on is not computed.
    std::vector<bool> needed(all.registerCount(), false);
    for (const std::uint32_t output : all.outputs) needed[output] = true;
    std::vector<Program::Instruction> kept;
    for (auto step = all.instructions.rbegin(); step != all.instructions.rend(); ++step) {
        if (!needed[step->result]) continue;
        for (const std::uint32_t operand : all.operandsOf(*step)) needed[operand] = true;
        kept.push_back(*step);
    }
    all.instructions.assign(kept.rbegin(), kept.rend());
    return made;
}

} // namespace

double simpler(double a, double b) { return shortestNumber(a).size() < shortestNumber(b).size() ? a : b; }

std::vector<PieceBorder> findPieceBorders(const Program& f, std::span<const double> looks,
                                          const std::stop_token& stop) {
    const SwitchProgram made = switchProgram(f);
    if (made.switches.empty() || looks.size() < 2) return {};
    Evaluator evaluator(made.program);
    evaluator.limit(stop, std::numeric_limits<std::int64_t>::max());
    const std::size_t outputs = made.program.outputs.size();
    std::vector<std::vector<double>> seen(outputs, std::vector<double>(looks.size()));
    std::vector<double*> into;
    for (auto& column : seen) into.push_back(column.data());
    const double* in = looks.data();
    evaluator(std::span(&in, 1), into, looks.size());

    std::vector<double> here(outputs);
    std::vector<double*> intoHere;
    for (double& value : here) intoHere.push_back(&value);
    std::vector<PieceBorder> borders;
    for (const Switch& each : made.switches) {
        const auto pieceAt = [&](double t) {
            const double* at = &t;
            evaluator(std::span(&at, 1), intoHere, 1);
            const double a = here[each.first], b = here[each.second];
            return std::isnan(a) || std::isnan(b) ? std::nan("") : pieceOf(each.kernel, a, b);
        };
        for (std::size_t i = 0; i + 1 < looks.size() && borders.size() < mostBorders; ++i) {
            const auto pieceOfLook = [&](std::size_t k) {
                return pieceOf(each.kernel, seen[each.first][k], seen[each.second][k]);
            };
            double left = looks[i], pieceLeft = pieceOfLook(i);
            const double right = looks[i + 1], pieceRight = pieceOfLook(i + 1);
            if (std::isnan(pieceLeft) || std::isnan(pieceRight)) continue;
            // A whole part may pass several numbers between two looks: one after the other.
            for (int more = 0; more < 8 && pieceLeft != pieceRight && !stop.stop_requested(); ++more) {
                double a = left, b = right, pieceB = pieceRight;
                for (int step = 0; step < 1200; ++step) {
                    const double middle = between(a, b);
                    if (!(middle > a && middle < b)) break;
                    const double piece = pieceAt(middle);
                    if (piece == pieceLeft) {
                        a = middle;
                    } else {
                        b = middle;
                        pieceB = piece;
                    }
                }
                borders.push_back({a, b});
                left = b;
                pieceLeft = pieceB;
                if (std::isnan(pieceB)) break;
            }
        }
    }
    std::ranges::sort(borders, {}, &PieceBorder::before);
    borders.erase(std::unique(borders.begin(), borders.end(),
                              [](const PieceBorder& a, const PieceBorder& b) { return a.before == b.before; }),
                  borders.end());
    return borders;
}

} // namespace coulter
