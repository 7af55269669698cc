#include "formula/algebra/fourier_series.h"

#include "formula/algebra/exact_form.h"
#include "formula/algebra/exact_pieces.h"
#include "formula/notation/expr_build.h"

#include <cmath>
#include <map>
#include <tuple>

namespace coulter {
namespace {

using Fraction = ExactValue::Fraction;

constexpr std::size_t mostTermsOfCoefficient = 40; // of one coefficient

/// factor · n · above/below, as one fraction.
/// @param n  null: it is not there
ExprPtr termOf(const ExactValue& factor, ExprPtr above, ExprPtr below, const ExprPtr& n = nullptr) {
    const ExprPtr spelling = exprOf(factor);
    ExprPtr times = spelling;
    if (spelling->kind == ExprKind::Divide) {
        times = spelling->operands[0];
        const ExprPtr& under = spelling->operands[1];
        const ExprPtr number = under->kind == ExprKind::Group ? under->operands[0] : under;
        below = isNumber(*below, 1) ? number : number * below;
    }
    if (n) times = isNumber(*times, 1) ? n : times * n;
    if (!isNumber(*times, 1)) above = isNumber(*above, 1) ? times : times * above;
    return isNumber(*below, 1) ? above : above / below;
}

/// A sum with signs.
ExprPtr joined(const ExprPtr& sum, bool isNegative, const ExprPtr& term) {
    if (!sum) return isNegative ? negated(term) : term;
    return isNegative ? sum - term : sum + term;
}

/// Numbers factor · e^exponent, added up by their exponents.
class Exponentials {
public:
    void add(const ExactValue& exponent, const ExactValue& factor) {
        Part& part = parts_[exponent.text()];
        part.exponent = exponent;
        part.factor = part.factor + factor;
    }
    /// Null if it is too long.
    ExprPtr formula() const {
        ExprPtr sum;
        for (const auto& [text, part] : parts_) {
            if (part.factor.isZero()) continue;
            if (!part.factor.isShort() || !part.exponent.isShort()) return nullptr;
            const bool isNegative = part.factor.sign() < 0;
            const ExprPtr above = part.exponent.isZero() ? numberExpr(1) : callExpr("exp", {exprOf(part.exponent)});
            sum = joined(sum, isNegative, termOf(isNegative ? -part.factor : part.factor, above, numberExpr(1)));
        }
        return sum ? sum : numberExpr(0);
    }

private:
    struct Part {
        ExactValue exponent, factor;
    };
    std::map<std::string, Part> parts_;
};

/// What a term stands over, and under: n^power; or n² + shift, with n^−power above it, where the power is 0 or −1.
struct Order {
    int power = 0;
    std::optional<ExactValue> shift;
    std::string key() const { return shift ? "s" + shift->text() : ""; }
};

/// A sum of terms factor · e^exponent · cos(π q n), or with sin, over what their order says.
class TermsByOrder {
public:
    /// @param angle  q, of 2π q n: a part of the period, from 0 to 1
    void add(const Order& order, bool isSine, Fraction angle, const ExactValue& factor,
             const ExactValue& exponent = {}) {
        // Of both halves of the period only the first is written: cos is even about its middle, and sin is odd.
        const bool mirrored = angle > Fraction(1, 2);
        if (mirrored) angle = 1 - angle;
        if (isSine && (angle == 0 || angle == Fraction(1, 2))) return;
        Term& term = groups_[{order.key(), order.power}].terms[{isSine, angle * 2, exponent.text()}];
        groups_[{order.key(), order.power}].order = order;
        term.exponent = exponent;
        term.factor = term.factor + (mirrored && isSine ? -factor : factor);
    }
    /// The coefficient of this order, whose terms over n² − order² have no value there, is so much in their place.
    void resonate(int order, const ExactValue& value) {
        ExactValue& all = resonances_[order];
        all = all + value;
    }

    /// Null if it is too long.
    ExprPtr formula(const std::string& order) const {
        const ExprPtr n = nameExpr(order);
        ExprPtr all;
        std::size_t count = 0;
        std::map<int, ExprPtr> resonant; // terms over n² − m²
        for (const auto& [key, group] : groups_) {
            bool isNegative = false;
            ExprPtr term = termOfGroup(group, n, count, isNegative);
            if (count > mostTermsOfCoefficient) return nullptr;
            if (!term) continue;
            const auto m = resonanceOf(group.order);
            if (m && resonances_.contains(*m))
                resonant[*m] = joined(resonant[*m], isNegative, term);
            else
                all = joined(all, isNegative, term);
        }
        for (const auto& [m, value] : resonances_) {
            const ExprPtr otherwise = resonant[m] ? resonant[m] : numberExpr(0);
            if (!resonant[m] && value.isZero()) continue;
            if (!value.isShort()) return nullptr;
            all = joined(all, false, choice(n, m, exprOf(value), otherwise));
        }
        return all ? all : numberExpr(0);
    }

private:
    struct Term {
        ExactValue factor, exponent;
    };
    struct Group {
        Order order;
        std::map<std::tuple<bool, Fraction, std::string>, Term> terms;
    };

    /// What stands over one thing, as one fraction, less a factor that all of it has; `count` is too large if it is too
    /// long.
    static ExprPtr termOfGroup(const Group& group, const ExprPtr& n, std::size_t& count, bool& isNegative) {
        std::vector<std::pair<ExactValue, ExprPtr>> over;
        const auto tooLong = [&]() -> ExprPtr {
            count = mostTermsOfCoefficient + 1;
            return nullptr;
        };
        for (const auto& [key, term] : group.terms) {
            if (term.factor.isZero()) continue;
            if (++count > mostTermsOfCoefficient || !term.factor.isShort() || !term.exponent.isShort())
                return tooLong();
            over.emplace_back(term.factor, waveOf(std::get<0>(key), std::get<1>(key), n, term.exponent));
        }
        if (over.empty()) return nullptr;
        ExactValue common = over.front().first;
        const auto inverted = common.inverse();
        if (!inverted) return tooLong();
        ExprPtr together;
        for (const auto& [factor, wave] : over) {
            const ExactValue ratio = factor * *inverted, size = ratio.sign() < 0 ? -ratio : ratio;
            if (!ratio.isShort()) return tooLong();
            const ExprPtr term = !wave ? exprOf(size) : size == wholeValue(1) ? wave : exprOf(size) * wave;
            together = joined(together, ratio.sign() < 0, term);
        }
        isNegative = common.sign() < 0;
        if (isNegative) common = -common;
        if (!group.order.shift)
            return termOf(common, together, group.order.power == 1 ? n : powerExpr(n, numberExpr(group.order.power)));
        // q n² + p for the shift p/q, and π² q n² + p for p/(π² q).
        const ExactValue& shift = *group.order.shift;
        if (!shift.isShort()) return tooLong();
        const ExactValue squaredPi = ExactValue::pi() * ExactValue::pi();
        ExactValue times = wholeValue(1);
        if (const auto fraction = shift.fraction())
            times = ExactValue(Fraction(denominator(*fraction)));
        else if (const auto overPi = (shift * squaredPi).fraction())
            times = squaredPi * ExactValue(Fraction(denominator(*overPi)));
        const ExactValue size = (shift.sign() < 0 ? -shift : shift) * times;
        const ExprPtr squared = powerExpr(n, numberExpr(2)),
                      many = times == wholeValue(1) ? squared : exprOf(times) * squared;
        return termOf(common * times, together, joined(many, shift.sign() < 0, exprOf(size)),
                      group.order.power < 0 ? n : nullptr);
    }

    /// m ≥ 1 where the order is n² − m².
    static std::optional<int> resonanceOf(const Order& order) {
        const auto square = order.shift ? (-*order.shift).fraction() : std::nullopt;
        if (!square || denominator(*square) != 1 || *square < 1) return std::nullopt;
        const int m = static_cast<int>(std::lround(std::sqrt(square->convert_to<double>())));
        return *square == m * m ? std::optional(m) : std::nullopt;
    }

    /// { value for n = m; other otherwise }
    static ExprPtr choice(const ExprPtr& n, int m, const ExprPtr& value, const ExprPtr& other) {
        const auto same = std::make_shared<Expr>();
        same->kind = ExprKind::Compare;
        same->relations = {"="};
        setOperands(*same, {n, numberExpr(m)});
        return nodeExpr(ExprKind::Pieces, {value, same, other});
    }

    /// cos(π q n) or sin(π q n), times e^exponent; null for cos 0 and e⁰.
    static ExprPtr waveOf(bool isSine, const Fraction& angle, const ExprPtr& n, const ExactValue& exponent) {
        const ExprPtr grown = exponent.isZero() ? nullptr : callExpr("exp", {exprOf(exponent)});
        if (angle == 0) return grown;
        const auto number = [](const ExactValue::Whole& value) { return numberExpr(value.convert_to<double>()); };
        const ExprPtr pi = nameExpr("π");
        ExprPtr phase = (numerator(angle) == 1 ? pi : number(numerator(angle)) * pi) * n;
        if (denominator(angle) != 1) phase = phase / number(denominator(angle));
        const ExprPtr wave = callExpr(isSine ? "sin" : "cos", {phase});
        return grown ? grown * wave : wave;
    }

    std::map<std::pair<std::string, int>, Group> groups_;
    std::map<int, ExactValue> resonances_;
};

std::vector<ExactValue> derivativeOf(const std::vector<ExactValue>& polynomial) {
    std::vector<ExactValue> slope;
    for (std::size_t k = 1; k < polynomial.size(); ++k)
        slope.push_back(polynomial[k] * wholeValue(static_cast<int>(k)));
    return slope;
}

/// What has no formula of numbers that are known exactly. It never leaves this file.
struct NotExact {};

ExactValue exact(const std::optional<ExactValue>& value) {
    if (!value) throw NotExact{};
    return *value;
}

/// A wave, its slope over its rate, and the wave of twice the angle, at a place.
struct WaveAt {
    WaveAt(const ExactMode& mode, const ExactValue& t) {
        const ExactValue angle = mode.rate * t, sine = exact(exactWave(true, angle)),
                         cosine = exact(exactWave(false, angle));
        value = mode.cosine * cosine + mode.sine * sine;
        slope = mode.sine * cosine + -(mode.cosine * sine);
        doubleSine = wholeValue(2) * sine * cosine;
        doubleCosine = cosine * cosine + -(sine * sine);
    }
    ExactValue value, slope, doubleSine, doubleCosine;
};

/// Adds up the coefficients of all pieces.
class Coefficients {
public:
    Coefficients(const ExactValue& period, const ExactValue& perPeriod)
        : period_(period), perPeriod_(perPeriod),
          angular_(period * exact((ExactValue::pi() * wholeValue(2)).inverse())) {}

    void add(const ExactPiece& piece) {
        std::vector<ExactValue> grown{ExactValue()};
        const std::vector<ExactValue>& polynomial = piece.function.polynomial;
        for (std::size_t k = 0; k < polynomial.size(); ++k)
            grown.push_back(polynomial[k] * ExactValue(Fraction(1, static_cast<int>(k) + 1)));
        mean.add({}, perPeriod_ * (polynomialAt(grown, piece.end) + -polynomialAt(grown, piece.begin)));
        addEnd(piece, piece.begin, -1);
        addEnd(piece, piece.end, 1);
    }

    Exponentials mean;
    TermsByOrder cosine, sine;

private:
    /// What a piece adds at one of its ends: +1 at the upper one.
    void addEnd(const ExactPiece& piece, const ExactValue& t, int sign) {
        Fraction angle = *exactFraction(t * perPeriod_);
        if (angle == 1) angle = 0;
        std::vector<ExactValue> derivative = piece.function.polynomial;
        ExactValue factor = wholeValue(2) * perPeriod_; // 2/P · (P/2π)^power
        for (int power = 1; !derivative.empty(); ++power) {
            factor = factor * angular_;
            const ExactValue jump = wholeValue(-sign) * polynomialAt(derivative, t);
            const int j = power - 1;
            const int cosineSign = j % 4 < 2 ? -1 : 1, sineSign = j % 4 == 0 || j % 4 == 3 ? 1 : -1;
            cosine.add({power, {}}, j % 2 == 0, angle, wholeValue(cosineSign) * factor * jump);
            sine.add({power, {}}, j % 2 == 1, angle, wholeValue(sineSign) * factor * jump);
            derivative = derivativeOf(derivative);
        }
        for (const ExactMode& mode : piece.function.modes) {
            if (mode.isWave)
                addWave(mode, t, angle, sign);
            else
                addExponential(mode, t, angle, sign);
        }
    }

    /// ∫ f e^(−ikt) dt = (i k [f e^(−ikt)] + [f′ e^(−ikt)])/(k² − b²) for f″ = −b² f.
    void addWave(const ExactMode& mode, const ExactValue& t, const Fraction& angle, int sign) {
        const WaveAt at(mode, t);
        const ExactValue m = mode.rate * angular_, side = wholeValue(sign), overRate = exact(mode.rate.inverse());
        mean.add({}, -(side * perPeriod_ * overRate * at.slope));
        const ExactValue shift = -(m * m), factor = side * wholeValue(2) * perPeriod_ * angular_;
        const ExactValue ofSlope = factor * m * at.slope;
        cosine.add({-1, shift}, true, angle, factor * at.value);
        cosine.add({0, shift}, false, angle, ofSlope);
        sine.add({-1, shift}, false, angle, -(factor * at.value));
        sine.add({0, shift}, true, angle, ofSlope);
        const auto order = m.fraction();
        if (!order || denominator(*order) != 1) return;
        // ∫ f cos(b t) dt and ∫ f sin(b t) dt
        const ExactValue half = ExactValue(Fraction(1, 2)) * t, quarter = ExactValue(Fraction(1, 4)) * overRate;
        const ExactValue byCosine =
                             mode.cosine * (half + quarter * at.doubleSine) + -(mode.sine * quarter * at.doubleCosine),
                         bySine = mode.sine * (half + -(quarter * at.doubleSine)) +
                                  -(mode.cosine * quarter * at.doubleCosine);
        const int n = numerator(*order).convert_to<int>();
        cosine.resonate(n, side * wholeValue(2) * perPeriod_ * byCosine);
        sine.resonate(n, side * wholeValue(2) * perPeriod_ * bySine);
    }

    /// ∫ f e^(−ikt) dt = (r + i k) [f e^(−ikt)]/(r² + k²) for f′ = r f.
    void addExponential(const ExactMode& mode, const ExactValue& t, const Fraction& angle, int sign) {
        const ExactValue exponent = mode.rate * t + mode.shift, r = mode.rate * angular_, side = wholeValue(sign);
        mean.add(exponent, side * perPeriod_ * exact(mode.rate.inverse()) * mode.cosine);
        const ExactValue factor = side * wholeValue(2) * perPeriod_ * angular_ * mode.cosine, shift = r * r;
        cosine.add({0, shift}, false, angle, factor * r, exponent);
        cosine.add({-1, shift}, true, angle, factor, exponent);
        sine.add({-1, shift}, false, angle, -factor, exponent);
        sine.add({0, shift}, true, angle, factor * r, exponent);
    }

    static std::optional<Fraction> exactFraction(const ExactValue& value) {
        const auto fraction = value.fraction();
        if (!fraction) throw NotExact{};
        return fraction;
    }

    ExactValue period_, perPeriod_, angular_; ///< P, 1/P, P/2π
};

} // namespace

std::optional<FourierFormulas> fourierFormulas(const Page& page, const ExprPtr& body, const std::string& variable,
                                               const ExprPtr& period, const std::string& order) {
    // The formulas say π and exp and mean these.
    if (page.defined.contains("π") || page.defined.contains("exp")) return std::nullopt;
    const auto length = exactForm(page, period);
    const auto inverted = length ? length->inverse() : std::nullopt;
    if (!inverted || length->sign() <= 0) return std::nullopt;
    const auto pieces = exactPieces(page, body, variable, ExactValue(), *length);
    if (!pieces) return std::nullopt;
    try {
        Coefficients all(*length, *inverted);
        for (const ExactPiece& piece : *pieces) all.add(piece);
        const ExprPtr mean = all.mean.formula();
        const ExprPtr both[]{all.cosine.formula(order), all.sine.formula(order)};
        if (!mean || !both[0] || !both[1]) return std::nullopt;
        return FourierFormulas{withBrackets(mean), withBrackets(both[0]), withBrackets(both[1])};
    } catch (const NotExact&) {
        return std::nullopt;
    }
}

} // namespace coulter
