#include "formula/algebra/exact_pieces.h"

#include "formula/algebra/exact_form.h"
#include "formula/notation/expr_build.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace coulter {
namespace {

constexpr int deepestPiece = 60;          // functions within functions
constexpr int mostStepsOfPieces = 50'000; // of all pieces
constexpr std::size_t mostPieces = 200;   // between both ends
constexpr int mostPowerOfPiece = 12;

using Fraction = ExactValue::Fraction;

/// What is not made of such functions; and where the function has no value. They never leave this file.
struct Unknown {};
struct Undefined {};

ExactFunction constant(const ExactValue& value) { return {{value}, {}}; }

/// Where there is one.
ExactFunction known(const std::optional<ExactFunction>& found) {
    if (!found) throw Unknown{};
    return *found;
}

/// The number that it is, if it is one.
std::optional<ExactValue> numberOf(const ExactFunction& f) {
    return f.isPolynomial() && f.polynomial.size() == 1 ? std::optional(f.polynomial[0]) : std::nullopt;
}

/// Reads an expression as the function that it is around one place, and notes where it may become another one.
class PieceReader {
public:
    PieceReader(const Page& page, const ExactValue& at, int& steps) : page_(page), at_(at), steps_(steps) {}

    using Names = std::map<std::string, ExactFunction>; ///< what depends on the variable

    ExactFunction read(const ExprPtr& expression, const Names& names, int depth) {
        const Expr& e = *expression;
        if (depth > deepestPiece || ++steps_ > mostStepsOfPieces) throw Unknown{};
        const auto of = [&](std::size_t i) { return read(e.operands[i], names, depth); };
        if (std::ranges::none_of(names, [&](const auto& each) { return mentions(e, each.first); })) {
            if (const auto value = exactForm(page_, expression)) return constant(*value);
        }
        switch (e.kind) {
        case ExprKind::Name:
            if (const auto at = names.find(e.text); at != names.end()) return at->second;
            break;
        case ExprKind::Group: return of(0);
        case ExprKind::Negate: return -of(0);
        case ExprKind::Add: return of(0) + of(1);
        case ExprKind::Subtract: return of(0) + -of(1);
        case ExprKind::Multiply: return known(productOf(of(0), of(1)));
        case ExprKind::Divide: {
            const auto below = numberOf(of(1));
            const auto inverted = below ? below->inverse() : std::nullopt;
            if (!inverted) throw Unknown{};
            return known(productOf(of(0), constant(*inverted)));
        }
        case ExprKind::Power: {
            if (e.onFunction) throw Unknown{};
            const Expr& base = *e.operands[0];
            const bool isOfE = base.kind == ExprKind::Name && base.text == "e" && !page_.defined.contains("e");
            if (isOfE) return known(exponentialOf(of(1)));
            const auto exponent = numberOf(of(1));
            const auto power = exponent ? exponent->fraction() : std::nullopt;
            if (!power || denominator(*power) != 1 || *power < 0 || *power > mostPowerOfPiece) throw Unknown{};
            const ExactFunction factor = of(0);
            ExactFunction product = constant(wholeValue(1));
            for (int i = 0; i < numerator(*power).convert_to<int>(); ++i) product = known(productOf(product, factor));
            return product;
        }
        case ExprKind::Absolute: {
            const ExactFunction inner = of(0);
            return signAt(inner) < 0 ? -inner : inner;
        }
        case ExprKind::Iverson: return constant(wholeValue(holds(*e.operands[0], names, depth) ? 1 : 0));
        case ExprKind::Pieces: {
            std::size_t i = 0;
            for (; i + 1 < e.operands.size(); i += 2) {
                if (holds(*e.operands[i + 1], names, depth)) return of(i);
            }
            if (i < e.operands.size()) return of(i);
            throw Undefined{};
        }
        case ExprKind::Call: return call(e, names, depth);
        default: break;
        }
        throw Unknown{};
    }

    std::vector<ExactValue> borders; ///< among them all at which what was read becomes another function

private:
    /// The sign at the place; where it may change is a border.
    int signAt(const ExactFunction& of) {
        const std::vector<ExactValue>& line = of.polynomial;
        if (!of.isPolynomial() || line.size() > 2) throw Unknown{};
        if (line.size() == 2) {
            const auto inverted = line[1].inverse();
            if (!inverted) throw Unknown{};
            borders.push_back(-line[0] * *inverted);
        }
        return polynomialAt(line, at_).sign();
    }

    bool holds(const Expr& e, const Names& names, int depth) {
        if (depth > deepestPiece || ++steps_ > mostStepsOfPieces) throw Unknown{};
        switch (e.kind) {
        case ExprKind::Group: return holds(*e.operands[0], names, depth);
        case ExprKind::Not: return !holds(*e.operands[0], names, depth);
        case ExprKind::And:
        case ExprKind::Or: {
            // Both sides are looked at, for their borders.
            bool all = true, any = false;
            for (const ExprPtr& each : e.operands) {
                const bool one = holds(*each, names, depth);
                all = all && one;
                any = any || one;
            }
            return e.kind == ExprKind::And ? all : any;
        }
        case ExprKind::Compare: {
            bool all = true;
            for (std::size_t i = 0; i + 1 < e.operands.size(); ++i) {
                const int sign = signAt(read(e.operands[i], names, depth) + -read(e.operands[i + 1], names, depth));
                const std::string& relation = e.relations[i];
                const bool one = relation == "<"    ? sign < 0
                                 : relation == "<=" ? sign <= 0
                                 : relation == ">"  ? sign > 0
                                 : relation == ">=" ? sign >= 0
                                 : relation == "="  ? sign == 0
                                                    : sign != 0;
                all = all && one;
            }
            return all;
        }
        default: throw Unknown{};
        }
    }

    ExactFunction call(const Expr& e, const Names& names, int depth) {
        if (e.below + e.above > 0 || !e.orders.empty()) throw Unknown{};
        if (e.operands.size() == 1 && !page_.defined.contains(e.text)) return ofOne(e, names, depth);
        const Line* line = page_.find(e.text, LineKind::Function);
        if (!line || !line->body || line->isMeasured() || line->parameters.size() != e.operands.size()) throw Unknown{};
        Names inside;
        for (std::size_t i = 0; i < e.operands.size(); ++i)
            inside[line->parameters[i]] = read(e.operands[i], names, depth);
        const auto periodic = page_.periods.find(e.text);
        if (periodic == page_.periods.end()) return read(line->body, inside, depth + 1);
        // As it is computed: at the place within one period that is whole periods away, or one before that.
        const auto period = exactForm(page_, page_.lines[periodic->second].body);
        const auto inverted = period ? period->inverse() : std::nullopt;
        if (!inverted) throw Unknown{};
        ExactFunction& argument = inside.begin()->second;
        if (!argument.isPolynomial()) throw Unknown{};
        const double turns = std::floor((polynomialAt(argument.polynomial, at_) * *inverted).number());
        if (!(std::abs(turns) < 1e6)) throw Unknown{};
        argument = argument + constant(*period * wholeValue(-static_cast<int>(turns)));
        if (signAt(argument) < 0 || signAt(argument + constant(-*period)) >= 0) throw Unknown{};
        try {
            return read(line->body, inside, depth + 1);
        } catch (const Undefined&) {
            argument = argument + constant(-*period);
            return read(line->body, inside, depth + 1);
        }
    }

    /// A function of the catalogue.
    ExactFunction ofOne(const Expr& e, const Names& names, int depth) {
        const ExactFunction inner = read(e.operands[0], names, depth);
        if (e.text == "abs") return signAt(inner) < 0 ? -inner : inner;
        if (e.text == "sin" || e.text == "cos") return known(waveOf(e.text == "sin", inner));
        if (e.text == "exp") return known(exponentialOf(inner));
        if (e.text != "sinh" && e.text != "cosh") throw Unknown{};
        const ExactFunction up = known(exponentialOf(inner)), down = known(exponentialOf(-inner));
        return known(productOf(up + (e.text == "sinh" ? -down : down), constant(ExactValue(Fraction(1, 2)))));
    }

    const Page& page_;
    ExactValue at_;
    int& steps_;
};

} // namespace

std::optional<std::vector<ExactPiece>> exactPieces(const Page& page, const ExprPtr& expression,
                                                   const std::string& variable, const ExactValue& low,
                                                   const ExactValue& high) {
    std::vector<ExactPiece> pieces;
    std::vector<ExactValue> ends{high}; // of the stretches that are left, the next one last
    ExactValue begin = low;
    int steps = 0;
    try {
        while (!ends.empty()) {
            if (pieces.size() + ends.size() > mostPieces) return std::nullopt;
            const ExactValue end = ends.back(), middle = (begin + end) * ExactValue(Fraction(1, 2));
            PieceReader reader(page, middle, steps);
            const ExactFunction function =
                reader.read(expression, {{variable, {{ExactValue(), wholeValue(1)}, {}}}}, 0);
            const auto inside = std::ranges::find_if(reader.borders, [&](const ExactValue& border) {
                return (border + -begin).sign() > 0 && (end + -border).sign() > 0;
            });
            if (inside != reader.borders.end()) {
                ends.push_back(*inside);
                continue;
            }
            pieces.push_back({begin, end, function});
            begin = end;
            ends.pop_back();
        }
    } catch (const Unknown&) {
        return std::nullopt;
    } catch (const Undefined&) {
        return std::nullopt;
    }
    return pieces;
}

} // namespace coulter
