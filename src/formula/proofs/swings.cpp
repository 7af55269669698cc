#include "formula/proofs/swings.h"

#include "formula/bounds/interval_rules.h"
#include "formula/program/program_edit.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

using Place = ProgramEdit::Place;

/// A register that is ω k + φ.
struct Affine {
    Bounds slope, offset;
    bool isConstant() const { return isZero(slope); }
};

std::optional<Affine> affineOf(Kernel kernel, const std::optional<Affine>& a, const std::optional<Affine>& b) {
    if (!a || !b) return std::nullopt;
    switch (kernel) {
    case Kernel::Negate: return Affine{-a->slope, -a->offset};
    case Kernel::Add: return Affine{a->slope + b->slope, a->offset + b->offset};
    case Kernel::Subtract: return Affine{a->slope - b->slope, a->offset - b->offset};
    case Kernel::Multiply:
        if (a->isConstant()) return Affine{a->offset * b->slope, a->offset * b->offset};
        if (b->isConstant()) return Affine{a->slope * b->offset, a->offset * b->offset};
        return std::nullopt;
    case Kernel::Divide:
        if (b->isConstant() && (b->offset.low > 0 || b->offset.high < 0))
            return Affine{a->slope / b->offset, a->offset / b->offset};
        return std::nullopt;
    default: {
        if (!a->isConstant() || !b->isConstant()) return std::nullopt;
        const Enclosure value =
            enclose(kernel, {a->offset.low, a->offset.high}, {b->offset.low, b->offset.high}, false);
        if (!value.isProof() || value.mayBeUnset) return std::nullopt;
        return Affine{{0, 0}, {value.low, value.high}};
    }
    }
}

bool isOdd(double whole) { return std::fmod(whole, 2) != 0; }

/// The step's sign for even k, if it is ± (−1)^k for whole k.
std::optional<double> signOf(const Program::Instruction& step, const std::optional<Affine>& base,
                             const std::optional<Affine>& exponent) {
    if (step.kernel != Kernel::Power || !base || !exponent || !base->isConstant()) return std::nullopt;
    if (base->offset.low != -1 || base->offset.high != -1) return std::nullopt;
    // Their bounds are those of small whole numbers, widened by rounding.
    const double slope = std::round(exponent->slope.low), offset = std::round(exponent->offset.low);
    const bool isWhole = magnitude(exponent->slope - exactly(slope)) < 1e-9 &&
                         magnitude(exponent->offset - exactly(offset)) < 1e-9 && std::abs(offset) < 1e9;
    if (!isWhole || !isOdd(slope)) return std::nullopt;
    return isOdd(offset) ? -1 : 1;
}

constexpr std::size_t mostWaves = 4, mostTerms = 12;

/// What one term of a sum swings as: sin(Σ m θ + q π/2), with a factor (−1)^k or without; 1 if it does not.
struct Turning {
    std::array<int, mostWaves> multiples{}; ///< m, of the angles θ that the formula has
    int quarters = 0;                       ///< q, from 0 to 3
    bool isForWholes = false;
    bool swings = false;

    bool operator==(const Turning&) const = default;
    bool hasAngle() const {
        return std::ranges::any_of(multiples, [](int m) { return m != 0; });
    }
    Turning turnedBy(int more) const {
        Turning result = *this;
        result.quarters = (quarters + more) & 3;
        return result;
    }
    /// The sum of both angles, or their difference, and so many quarters of a turn.
    Turning with(const Turning& other, int sign, int more) const {
        Turning result = *this;
        for (std::size_t i = 0; i < mostWaves; ++i) result.multiples[i] += sign * other.multiples[i];
        result.quarters = (quarters + sign * other.quarters + more) & 3;
        result.isForWholes = isForWholes != other.isForWholes;
        // sin(−θ + q π/2) = sin(θ + (2 − q) π/2), so that each angle has one sign.
        const auto first = std::ranges::find_if(result.multiples, [](int m) { return m != 0; });
        if (first != result.multiples.end() && *first < 0) {
            for (int& m : result.multiples) m = -m;
            result.quarters = (2 - result.quarters) & 3;
        }
        return result;
    }
};

struct Term {
    std::optional<Place> factor; ///< none: 1
    Turning turning;
};
using Terms = std::vector<Term>;

/// Writes a program as a sum of such terms.
class Expansion {
public:
    explicit Expansion(ProgramEdit& edit) : edit_(edit) {}

    Place placeOf(const std::optional<Place>& factor) { return factor ? *factor : edit_.constant(1); }

    std::optional<Place> product(const std::optional<Place>& a, const std::optional<Place>& b) {
        return a && b ? std::optional(edit_.apply(Kernel::Multiply, *a, *b)) : a ? a : b;
    }

    std::optional<Terms> sum(const Terms& a, const Terms& b, bool isDifference) {
        Terms all = a;
        for (const Term& term : b) {
            const auto same = std::ranges::find_if(all, [&](const Term& other) {
                return other.turning == term.turning || isOpposite(other.turning, term.turning);
            });
            if (same == all.end()) {
                all.push_back(isDifference ? negated(term) : term);
                continue;
            }
            const bool subtracts = isDifference != isOpposite(same->turning, term.turning);
            same->factor =
                edit_.apply(subtracts ? Kernel::Subtract : Kernel::Add, placeOf(same->factor), placeOf(term.factor));
        }
        return all.size() <= mostTerms ? std::optional(all) : std::nullopt;
    }

    std::optional<Terms> product(const Terms& a, const Terms& b) {
        std::optional<Terms> all = Terms{};
        for (const Term& one : a) {
            for (const Term& other : b) {
                if (all) all = sum(*all, product(one, other), false);
            }
        }
        return all;
    }

    Term negated(const Term& term) {
        if (term.turning.swings) return {term.factor, term.turning.turnedBy(2)};
        return {edit_.apply(Kernel::Negate, placeOf(term.factor)), term.turning};
    }

    std::optional<Terms> quotient(const Terms& a, const Term& b) {
        if (b.turning.swings) return std::nullopt;
        Terms all = a;
        for (Term& term : all) term.factor = edit_.apply(Kernel::Divide, placeOf(term.factor), placeOf(b.factor));
        return all;
    }

private:
    static bool isOpposite(const Turning& a, const Turning& b) { return a.swings && a == b.turnedBy(2); }

    Terms product(const Term& a, const Term& b) {
        const auto factor = product(a.factor, b.factor);
        if (!a.turning.swings || !b.turning.swings) return {{factor, a.turning.swings ? a.turning : b.turning}};
        if (!a.turning.hasAngle()) return {timesSign(factor, b.turning, a.turning)};
        if (!b.turning.hasAngle()) return {timesSign(factor, a.turning, b.turning)};
        // sin A sin B = ½ sin(A − B + π/2) − ½ sin(A + B + π/2)
        const Place half = *product(factor, edit_.constant(0.5));
        Terms all;
        for (const int sign : {-1, 1}) {
            const Turning turning = a.turning.with(b.turning, sign, sign < 0 ? 1 : 3);
            if (turning.hasAngle() || turning.quarters % 2 == 1) all.push_back(settled({half, turning}));
        }
        return all;
    }

    /// Times (−1)^k or its negative.
    Term timesSign(const std::optional<Place>& factor, Turning turning, const Turning& sign) {
        turning.isForWholes = turning.isForWholes != sign.isForWholes;
        return settled({factor, turning.turnedBy(sign.quarters - 1)});
    }

    /// The sine of a quarter turn or of three is a number.
    Term settled(const Term& term) {
        if (term.turning.hasAngle() || term.turning.isForWholes) return term;
        return term.turning.quarters == 1 ? Term{term.factor, {}} : negated({term.factor, {}});
    }

    ProgramEdit& edit_;
};

/// Reads the terms of each step.
class SwingReader {
public:
    SwingReader(const Program& f, std::span<const Bounds> others)
        : f_(f), edit_(f.inputCount), expansion_(edit_), lines_(f.registerCount()), terms_(f.registerCount()) {
        lines_[0] = Affine{{1, 1}, {0, 0}};
        for (std::size_t i = 0; i < others.size(); ++i) lines_[1 + i] = Affine{{0, 0}, others[i]};
        for (std::size_t i = 0; i < f.inputCount; ++i) terms_[i] = plain(edit_.input(i));
        for (std::size_t i = 0; i < f.constants.size(); ++i) {
            terms_[f.inputCount + i] = plain(edit_.constant(f.constants[i]));
            if (std::isfinite(f.constants[i])) lines_[f.inputCount + i] = Affine{{0, 0}, exactly(f.constants[i])};
        }
    }

    std::optional<Swings> operator()() {
        for (const Program::Instruction& step : f_.instructions) {
            // A result may take the register of an operand.
            auto terms = termsOf(step);
            lines_[step.result] = lineOf(step);
            terms_[step.result] = std::move(terms);
        }
        const auto& all = terms_[f_.outputs[0]];
        if (!all) return std::nullopt;
        Swings found;
        for (const Term& term : *all) {
            const Place place = expansion_.placeOf(term.factor); // of which a copy has to know
            Program factor = ProgramEdit(edit_).finish(place);
            if (!term.turning.swings) {
                found.plain = std::move(factor);
                continue;
            }
            auto swing = swingOf(std::move(factor), term.turning);
            if (!swing) return std::nullopt;
            found.parts.push_back(std::move(*swing));
        }
        return found.parts.empty() ? std::nullopt : std::optional(std::move(found));
    }

private:
    struct Angle {
        Place place;
        Affine line;
    };

    static Terms plain(Place place) { return {{place, {}}}; }

    static bool isKernel(const Program::Instruction& step) { return !step.special && step.table < 0 && step.field < 0; }

    std::optional<Affine> lineOf(const Program::Instruction& step) const {
        if (!isKernel(step)) return std::nullopt;
        return affineOf(step.kernel, lines_[step.operands[0]], lines_[step.operands[step.operandCount > 1 ? 1 : 0]]);
    }

    std::optional<Terms> termsOf(const Program::Instruction& step) {
        const auto operands = f_.operandsOf(step);
        std::vector<Place> places; // of what does not swing
        for (const std::uint32_t operand : operands) {
            if (!terms_[operand]) return std::nullopt;
            const Terms& terms = *terms_[operand];
            if (terms.size() == 1 && !terms.front().turning.swings)
                places.push_back(expansion_.placeOf(terms.front().factor));
        }
        const std::uint32_t first = operands[0], second = operands[operands.size() > 1 ? 1 : 0];
        if (places.size() < operands.size())
            return isKernel(step) ? combined(step.kernel, *terms_[first], *terms_[second], second) : std::nullopt;
        if (!isKernel(step)) return plain(edit_.copy(f_, step, places));
        const auto &a = lines_[first], &b = lines_[second];
        const bool isWave = step.kernel == Kernel::Sin || step.kernel == Kernel::Cos;
        if (isWave && a && (a->slope.low > 0 || a->slope.high < 0)) return wave(step.kernel, {places[0], *a});
        if (const auto sign = signOf(step, a, b)) // (−1)^k = (−1)^k sin(π/2)
            return Terms{{std::nullopt, {{}, *sign > 0 ? 1 : 3, true, true}}};
        return plain(edit_.copy(f_, step, places));
    }

    std::optional<Terms> combined(Kernel kernel, const Terms& a, const Terms& b, std::uint32_t second) {
        switch (kernel) {
        case Kernel::Add:
        case Kernel::Subtract: return expansion_.sum(a, b, kernel == Kernel::Subtract);
        case Kernel::Multiply: return expansion_.product(a, b);
        case Kernel::Divide: return b.size() == 1 ? expansion_.quotient(a, b.front()) : std::nullopt;
        case Kernel::Negate: {
            Terms all;
            for (const Term& term : a) all.push_back(expansion_.negated(term));
            return all;
        }
        case Kernel::Power: {
            constexpr double mostPower = 6;
            if (second < f_.inputCount || second >= f_.inputCount + f_.constants.size()) return std::nullopt;
            const double n = f_.constants[second - f_.inputCount];
            if (!(n >= 1 && n <= mostPower && n == std::floor(n))) return std::nullopt;
            std::optional<Terms> all = a;
            for (int i = 1; i < static_cast<int>(n) && all; ++i) all = expansion_.product(*all, a);
            return all;
        }
        default: return std::nullopt;
        }
    }

    /// An angle that is written several times is the same one where its bounds have no width, or where it is computed
    /// once.
    std::optional<Terms> wave(Kernel kernel, const Angle& angle) {
        const auto isSame = [](const Bounds& a, const Bounds& b) {
            return a.low == a.high && a.low == b.low && a.high == b.high;
        };
        const auto at = std::ranges::find_if(angles_, [&](const Angle& other) {
            return other.place == angle.place ||
                   (isSame(other.line.slope, angle.line.slope) && isSame(other.line.offset, angle.line.offset));
        });
        const auto index = static_cast<std::size_t>(at - angles_.begin());
        if (at == angles_.end()) {
            if (angles_.size() == mostWaves) return std::nullopt;
            angles_.push_back(angle);
        }
        Turning turning;
        turning.multiples[index] = 1;
        turning.quarters = kernel == Kernel::Cos ? 1 : 0;
        turning.swings = true;
        return Terms{{std::nullopt, turning}};
    }

    std::optional<Swing> swingOf(Program factor, const Turning& turning) const {
        Swing swing;
        Bounds offset{0, 0};
        for (std::size_t i = 0; i < angles_.size(); ++i) {
            if (turning.multiples[i] == 0) continue;
            const Bounds times = exactly(turning.multiples[i]);
            // The bounds of a sum of one are its own.
            swing.rate =
                swing.rate + (turning.multiples[i] == 1 ? angles_[i].line.slope : times * angles_[i].line.slope);
            offset = offset + (turning.multiples[i] == 1 ? angles_[i].line.offset : times * angles_[i].line.offset);
        }
        if (turning.isForWholes) swing.rate = swing.rate + halfTurn;
        const auto sine = boundsOf(Kernel::Sin, offset), cosine = boundsOf(Kernel::Cos, offset);
        if (!sine || !cosine || (swing.rate.low <= 0 && swing.rate.high >= 0)) return std::nullopt;
        swing.sine = *sine;
        swing.cosine = *cosine;
        for (int i = 0; i < turning.quarters; ++i) { // sin(φ + π/2) = cos φ
            const Bounds before = swing.sine;
            swing.sine = swing.cosine;
            swing.cosine = -before;
        }
        swing.rest = std::move(factor);
        swing.isForWholes = turning.isForWholes;
        return swing;
    }

    const Program& f_;
    ProgramEdit edit_;
    Expansion expansion_;
    std::vector<std::optional<Affine>> lines_;
    std::vector<std::optional<Terms>> terms_;
    std::vector<Angle> angles_;
};

} // namespace

std::optional<Swings> swingsOf(const Program& f, std::span<const Bounds> others) {
    if (!f.integrals.empty() || f.inputCount != 1 + others.size()) return std::nullopt;
    return SwingReader(f, others)();
}

} // namespace coulter
