#include "formula/fourier_series.h"

#include "formula/exact_form.h"
#include "formula/exact_pieces.h"
#include "formula/expr_build.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <map>
#include <tuple>

namespace coulter {
namespace {

using Fraction = ExactValue::Fraction;

constexpr std::size_t mostTerms = 40; // of one coefficient

ExactValue whole(int number) { return ExactValue(Fraction(number)); }

ExprPtr exprOf(const ExactValue& value) { return parseExpression(decodeUtf8(value.text()), KnownNames{}).expression; }

/// A sum of terms factor · cos(π q n)/n^power, or with sin.
class TermsByOrder {
public:
    /// @param angle  q, of 2π q n: a part of the period, from 0 to 1
    void add(int power, bool isSine, Fraction angle, const ExactValue& factor) {
        // Of both halves of the period only the first is written: cos is even about its middle, and sin is odd.
        const bool mirrored = angle > Fraction(1, 2);
        if (mirrored) angle = 1 - angle;
        if (isSine && (angle == 0 || angle == Fraction(1, 2))) return;
        ExactValue& sum = terms_[{power, isSine, angle * 2}];
        sum = sum + (mirrored && isSine ? -factor : factor);
    }

    /// Null if it is too long.
    ExprPtr formula(const std::string& order) const {
        const ExprPtr n = nameExpr(order);
        ExprPtr all;
        std::size_t count = 0;
        for (auto at = terms_.begin(); at != terms_.end();) {
            const int power = std::get<0>(at->first);
            // What has one power of n stands over it together, less a factor that all of it has.
            std::vector<std::pair<ExactValue, ExprPtr>> over;
            for (; at != terms_.end() && std::get<0>(at->first) == power; ++at) {
                if (at->second.isZero()) continue;
                if (++count > mostTerms || !at->second.isShort()) return nullptr;
                over.emplace_back(at->second, waveOf(std::get<1>(at->first), std::get<2>(at->first), n));
            }
            if (over.empty()) continue;
            const ExactValue common = over.front().first;
            const auto inverted = common.inverse();
            if (!inverted) return nullptr;
            ExprPtr together;
            for (const auto& [factor, wave] : over) {
                const ExactValue ratio = factor * *inverted, size = ratio.sign() < 0 ? -ratio : ratio;
                if (!ratio.isShort()) return nullptr;
                const ExprPtr term = !wave ? exprOf(size) : size == whole(1) ? wave : exprOf(size) * wave;
                together = !together ? term : ratio.sign() < 0 ? together - term : together + term;
            }
            const bool isNegative = common.sign() < 0;
            const ExprPtr term =
                termOf(isNegative ? -common : common, together, power == 1 ? n : powerExpr(n, numberExpr(power)));
            all = !all ? (isNegative ? negated(term) : term) : isNegative ? all - term : all + term;
        }
        return all ? all : numberExpr(0);
    }

private:
    /// factor · above/below, as one fraction.
    static ExprPtr termOf(const ExactValue& factor, ExprPtr above, ExprPtr below) {
        const ExprPtr spelling = exprOf(factor);
        ExprPtr times = spelling;
        if (spelling->kind == ExprKind::Divide) {
            times = spelling->operands[0];
            below = spelling->operands[1] * below;
        }
        if (!isNumber(*times, 1)) above = isNumber(*above, 1) ? times : times * above;
        return above / below;
    }

    /// cos(π q n) or sin(π q n); null for cos 0.
    static ExprPtr waveOf(bool isSine, const Fraction& angle, const ExprPtr& n) {
        if (angle == 0) return nullptr;
        const auto number = [](const ExactValue::Whole& value) { return numberExpr(value.convert_to<double>()); };
        const ExprPtr pi = nameExpr("π");
        ExprPtr phase = (numerator(angle) == 1 ? pi : number(numerator(angle)) * pi) * n;
        if (denominator(angle) != 1) phase = phase / number(denominator(angle));
        return callExpr(isSine ? "sin" : "cos", {phase});
    }

    std::map<std::tuple<int, bool, Fraction>, ExactValue> terms_;
};

std::vector<ExactValue> derivativeOf(const std::vector<ExactValue>& polynomial) {
    std::vector<ExactValue> slope;
    for (std::size_t k = 1; k < polynomial.size(); ++k) slope.push_back(polynomial[k] * whole(static_cast<int>(k)));
    return slope;
}

ExactValue valueAt(const std::vector<ExactValue>& polynomial, const ExactValue& t) {
    ExactValue value;
    for (std::size_t k = polynomial.size(); k-- > 0;) value = value * t + polynomial[k];
    return value;
}

ExactValue integralOf(const ExactPiece& piece) {
    std::vector<ExactValue> grown{ExactValue()};
    for (std::size_t k = 0; k < piece.coefficients.size(); ++k)
        grown.push_back(piece.coefficients[k] * ExactValue(Fraction(1, static_cast<int>(k) + 1)));
    return valueAt(grown, piece.end) + -valueAt(grown, piece.begin);
}

} // namespace

std::optional<FourierFormulas> fourierFormulas(const Page& page, const ExprPtr& body, const std::string& variable,
                                               const ExprPtr& period, const std::string& order) {
    if (page.defined.contains("π")) return std::nullopt; // the formulas say π and mean the number
    const auto length = exactForm(page, period);
    const auto inverted = length ? length->inverse() : std::nullopt;
    if (!inverted || length->sign() <= 0) return std::nullopt;
    const auto pieces = exactPieces(page, body, variable, ExactValue(), *length);
    if (!pieces) return std::nullopt;
    const auto angular = (ExactValue::pi() * whole(2)).inverse(); // 1/k = P/(2πn)
    ExactValue mean;
    for (const ExactPiece& piece : *pieces) mean = mean + integralOf(piece);
    mean = mean * *inverted;
    if (!mean.isShort()) return std::nullopt;
    TermsByOrder cosine, sine;
    for (std::size_t i = 0; i < pieces->size(); ++i) {
        const ExactPiece& after = (*pieces)[i];
        const ExactPiece& before = i > 0 ? (*pieces)[i - 1] : pieces->back();
        const auto angle = (after.begin * *inverted).fraction();
        if (!angle) return std::nullopt;
        std::vector<ExactValue> left = before.coefficients, right = after.coefficients;
        ExactValue factor = whole(2) * *inverted; // 2/P · (P/2π)^power
        for (int power = 1; !left.empty() || !right.empty(); ++power) {
            factor = factor * *length * *angular;
            const ExactValue jump = valueAt(right, after.begin) + -valueAt(left, before.end);
            const int j = power - 1;
            const int cosineSign = j % 4 < 2 ? -1 : 1, sineSign = j % 4 == 0 || j % 4 == 3 ? 1 : -1;
            cosine.add(power, j % 2 == 0, *angle, whole(cosineSign) * factor * jump);
            sine.add(power, j % 2 == 1, *angle, whole(sineSign) * factor * jump);
            left = derivativeOf(left);
            right = derivativeOf(right);
        }
    }
    const ExprPtr both[]{cosine.formula(order), sine.formula(order)};
    if (!both[0] || !both[1]) return std::nullopt;
    return FourierFormulas{exprOf(mean), withBrackets(both[0]), withBrackets(both[1])};
}

} // namespace coulter
