#include "formula/zeros/corners.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "formula/proofs/jet_evaluator.h"

#include <cmath>
#include <optional>
#include <utility>
#include <vector>

namespace coulter {
namespace {

/// The operation's result is one of its operands, or one of two numbers, by the sign of their difference.
bool switches(Kernel kernel) {
    return kernel == Kernel::Absolute || kernel == Kernel::Min || kernel == Kernel::Max || kernel == Kernel::Less ||
           kernel == Kernel::LessEqual;
}

/// Others that jump or bend; a part in which one of them may is left alone.
bool isOtherSwitch(const Program::Instruction& step) {
    return step.table >= 0 || step.field >= 0 ||
           (step.special == nullptr && step.integral < 0 &&
            (step.kernel == Kernel::Sgn || step.kernel == Kernel::Floor || step.kernel == Kernel::Ceil ||
             step.kernel == Kernel::Mod || step.kernel == Kernel::ArctanOfPoint));
}

struct Operands {
    std::uint32_t first = 0, second = 0; ///< registers; of |u| the second is that of 0
};

/// A program whose every step has a register of its own, with the numbers 0 and 1 among its constants.
Program stepByRegister(const Program& f) {
    Program all = f;
    all.constants.push_back(0);
    all.constants.push_back(1);
    const auto constants = static_cast<std::uint32_t>(f.inputCount + f.constants.size());
    std::vector<std::uint32_t> now(f.registerCount());
    for (std::uint32_t i = 0; i < now.size(); ++i) now[i] = i < constants ? i : i + 2;
    const auto first = constants + 2;
    all.instructions.clear();
    for (Program::Instruction step : f.instructions) {
        if (step.integral >= 0) {
            for (std::uint32_t& operand : all.integrals[static_cast<std::size_t>(step.integral)].operands)
                operand = now[operand];
        }
        for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = now[step.operands[k]];
        now[step.result] = first + static_cast<std::uint32_t>(all.instructions.size());
        step.result = now[step.result];
        all.instructions.push_back(step);
    }
    all.temporaryCount = all.instructions.size();
    for (std::uint32_t& output : all.outputs) output = now[output];
    return all;
}

/// The same program with some of its steps decided: those whose operands are these, for one sign of their difference.
class Decided {
public:
    Decided(const Program& all, const Operands& of, int sign) : program_(all) {
        const auto zero = static_cast<std::uint32_t>(all.inputCount + all.constants.size() - 2);
        std::vector<std::uint32_t> now(all.registerCount());
        for (std::uint32_t i = 0; i < now.size(); ++i) now[i] = i;
        program_.instructions.clear();
        for (Program::Instruction step : all.instructions) {
            const int itsSign = signOf(step, of, sign, zero);
            for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = now[step.operands[k]];
            if (step.integral >= 0) {
                for (std::uint32_t& operand : program_.integrals[static_cast<std::size_t>(step.integral)].operands)
                    operand = now[operand];
            }
            if (itsSign == 0) {
                program_.instructions.push_back(step);
            } else if (step.kernel == Kernel::Absolute && itsSign < 0) {
                step.kernel = Kernel::Negate;
                program_.instructions.push_back(step);
            } else if (step.kernel == Kernel::Absolute) {
                now[step.result] = step.operands[0];
            } else if (step.kernel == Kernel::Min || step.kernel == Kernel::Max) {
                now[step.result] = step.operands[(itsSign < 0) == (step.kernel == Kernel::Min) ? 0 : 1];
            } else {
                now[step.result] = itsSign < 0 ? zero + 1 : zero;
            }
        }
        for (std::uint32_t& output : program_.outputs) output = now[output];
    }

    const Program& program() const { return program_; }

    /// The sign of a step's first operand less its second, if it is decided by these; else 0.
    static int signOf(const Program::Instruction& step, const Operands& of, int sign, std::uint32_t zero) {
        if (step.special || step.integral >= 0 || step.table >= 0 || step.field >= 0 || !switches(step.kernel))
            return 0;
        const std::uint32_t second = step.kernel == Kernel::Absolute ? zero : step.operands[1];
        if (step.operands[0] == of.first && second == of.second) return sign;
        return step.operands[0] == of.second && second == of.first ? -sign : 0;
    }

private:
    Program program_;
};

/// The sign of a function's slope along a part, 0 where it is level; none if that is not known.
std::optional<int> slopeSign(const Program& f, const Bounds& part) {
    JetEvaluator<1> jets(f);
    const Jet<1>& jet = jets({part})[0];
    const Bounds& slope = jet.first[0];
    if (!jet.value.isProof() || !isBounded(slope)) return std::nullopt;
    if (isZero(slope)) return 0;
    return slope.low > 0 ? std::optional(1) : slope.high < 0 ? std::optional(-1) : std::nullopt;
}

} // namespace

Corner cornerWithin(const Program& f, const Bounds& part) {
    if (f.outputs.size() != 1) return Corner::Unknown;
    const Program all = stepByRegister(f);
    const auto zero = static_cast<std::uint32_t>(all.inputCount + all.constants.size() - 2);
    // What each operation that changes its piece goes by, over the part.
    Program looked = all;
    looked.outputs.clear();
    std::vector<Operands> switched;
    for (const Program::Instruction& step : all.instructions) {
        if (isOtherSwitch(step)) return Corner::Unknown;
        if (step.special || step.integral >= 0 || !switches(step.kernel)) continue;
        switched.push_back({step.operands[0], step.kernel == Kernel::Absolute ? zero : step.operands[1]});
        looked.outputs.push_back(switched.back().first);
        looked.outputs.push_back(switched.back().second);
    }
    if (switched.empty()) return Corner::Unknown;
    std::optional<Operands> open;
    Bounds slope{0, 0};
    JetEvaluator<1> jets(looked);
    const auto seen = jets({part});
    for (std::size_t i = 0; i < switched.size(); ++i) {
        const Jet<1>&a = seen[2 * i], &b = seen[2 * i + 1];
        if (a.value.known && b.value.known && (a.value.high < b.value.low || a.value.low > b.value.high)) continue;
        const bool isSame = open && ((open->first == switched[i].first && open->second == switched[i].second) ||
                                     (open->first == switched[i].second && open->second == switched[i].first));
        if (isSame) continue;
        if (open || !a.value.isProof() || !b.value.isProof()) return Corner::Unknown;
        open = switched[i];
        slope = a.first[0] - b.first[0];
    }
    if (!open || !isBounded(slope) || (slope.low <= 0 && slope.high >= 0)) return Corner::Unknown;
    const int after = slope.low > 0 ? 1 : -1; // the sign of the difference beyond the corner
    const auto left = slopeSign(Decided(all, *open, -after).program(), part),
               right = slopeSign(Decided(all, *open, after).program(), part);
    if (!left || !right) return Corner::Unknown;
    // What is level on one side is no extremum: the level stretch is.
    if (*left * *right >= 0) return Corner::None;
    return *left > 0 ? Corner::Maximum : Corner::Minimum;
}

} // namespace coulter
