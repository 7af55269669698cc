#include "formula/exact_pieces.h"

#include "formula/exact_form.h"
#include "formula/expr_build.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace coulter {
namespace {

constexpr int deepest = 60;             // functions within functions
constexpr int mostSteps = 50'000;       // of all pieces
constexpr std::size_t mostPieces = 200; // between both ends
constexpr std::size_t mostDegree = 12;

using Fraction = ExactValue::Fraction;
using Polynomial = std::vector<ExactValue>; // from the constant one up

/// What is not made of polynomials; and where the function has no value. They never leave this file.
struct Unknown {};
struct Undefined {};

ExactValue whole(int number) { return ExactValue(Fraction(number)); }

Polynomial sumOf(const Polynomial& a, const Polynomial& b) {
    Polynomial sum(std::max(a.size(), b.size()));
    for (std::size_t k = 0; k < sum.size(); ++k)
        sum[k] = (k < a.size() ? a[k] : ExactValue()) + (k < b.size() ? b[k] : ExactValue());
    while (sum.size() > 1 && sum.back().isZero()) sum.pop_back();
    return sum;
}

Polynomial negatedOf(Polynomial a) {
    for (ExactValue& each : a) each = -each;
    return a;
}

Polynomial productOf(const Polynomial& a, const Polynomial& b) {
    if (a.size() + b.size() > mostDegree + 2) throw Unknown{};
    Polynomial product(a.size() + b.size() - 1);
    for (std::size_t i = 0; i < a.size(); ++i) {
        for (std::size_t k = 0; k < b.size(); ++k) product[i + k] = product[i + k] + a[i] * b[k];
    }
    for (const ExactValue& each : product) {
        if (!each.isShort() && !each.fraction()) throw Unknown{};
    }
    return product;
}

ExactValue valueAt(const Polynomial& of, const ExactValue& t) {
    ExactValue value;
    for (std::size_t k = of.size(); k-- > 0;) value = value * t + of[k];
    return value;
}

/// Reads an expression as the polynomial that it is around one place, and notes where it may become another one.
class PieceReader {
public:
    PieceReader(const Page& page, const ExactValue& at, int& steps) : page_(page), at_(at), steps_(steps) {}

    using Names = std::map<std::string, Polynomial>; ///< what depends on the variable

    Polynomial read(const ExprPtr& expression, const Names& names, int depth) {
        const Expr& e = *expression;
        if (depth > deepest || ++steps_ > mostSteps) throw Unknown{};
        const auto of = [&](std::size_t i) { return read(e.operands[i], names, depth); };
        if (std::ranges::none_of(names, [&](const auto& each) { return mentions(e, each.first); })) {
            if (const auto value = exactForm(page_, expression)) return {*value};
        }
        switch (e.kind) {
        case ExprKind::Name:
            if (const auto at = names.find(e.text); at != names.end()) return at->second;
            break;
        case ExprKind::Group: return of(0);
        case ExprKind::Negate: return negatedOf(of(0));
        case ExprKind::Add: return sumOf(of(0), of(1));
        case ExprKind::Subtract: return sumOf(of(0), negatedOf(of(1)));
        case ExprKind::Multiply: return productOf(of(0), of(1));
        case ExprKind::Divide: {
            const Polynomial below = of(1);
            const auto inverted = below.size() == 1 ? below[0].inverse() : std::nullopt;
            if (!inverted) throw Unknown{};
            return productOf(of(0), {*inverted});
        }
        case ExprKind::Power: {
            const Polynomial exponent = of(1), base = of(0);
            const auto power = exponent.size() == 1 ? exponent[0].fraction() : std::nullopt;
            if (e.onFunction || !power || denominator(*power) != 1 || *power < 0 || *power > int{mostDegree})
                throw Unknown{};
            Polynomial product{whole(1)};
            for (int i = 0; i < numerator(*power).convert_to<int>(); ++i) product = productOf(product, base);
            return product;
        }
        case ExprKind::Absolute: {
            const Polynomial inner = of(0);
            return signAt(inner) < 0 ? negatedOf(inner) : inner;
        }
        case ExprKind::Iverson: return {whole(holds(*e.operands[0], names, depth) ? 1 : 0)};
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

    std::vector<ExactValue> borders; ///< among them all at which what was read becomes another polynomial

private:
    /// The sign at the place; where it may change is a border.
    int signAt(const Polynomial& of) {
        if (of.size() > 2) throw Unknown{};
        if (of.size() == 2) {
            const auto inverted = of[1].inverse();
            if (!inverted) throw Unknown{};
            borders.push_back(-of[0] * *inverted);
        }
        return valueAt(of, at_).sign();
    }

    bool holds(const Expr& e, const Names& names, int depth) {
        if (depth > deepest || ++steps_ > mostSteps) throw Unknown{};
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
                const int sign =
                    signAt(sumOf(read(e.operands[i], names, depth), negatedOf(read(e.operands[i + 1], names, depth))));
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

    Polynomial call(const Expr& e, const Names& names, int depth) {
        if (e.below + e.above > 0 || !e.orders.empty()) throw Unknown{};
        if (e.text == "abs" && e.operands.size() == 1 && !page_.defined.contains(e.text)) {
            const Polynomial inner = read(e.operands[0], names, depth);
            return signAt(inner) < 0 ? negatedOf(inner) : inner;
        }
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
        Polynomial& argument = inside.begin()->second;
        const double turns = std::floor((valueAt(argument, at_) * *inverted).number());
        if (!(std::abs(turns) < 1e6)) throw Unknown{};
        argument = sumOf(argument, {*period * whole(-static_cast<int>(turns))});
        if (signAt(argument) < 0 || signAt(sumOf(argument, {-*period})) >= 0) throw Unknown{};
        try {
            return read(line->body, inside, depth + 1);
        } catch (const Undefined&) {
            argument = sumOf(argument, {-*period});
            return read(line->body, inside, depth + 1);
        }
    }

    const Page& page_;
    ExactValue at_;
    int& steps_;
};

} // namespace

ExactValue ExactPiece::value(const ExactValue& t) const { return valueAt(coefficients, t); }

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
            const Polynomial coefficients = reader.read(expression, {{variable, {ExactValue(), whole(1)}}}, 0);
            const auto inside = std::ranges::find_if(reader.borders, [&](const ExactValue& border) {
                return (border + -begin).sign() > 0 && (end + -border).sign() > 0;
            });
            if (inside != reader.borders.end()) {
                ends.push_back(*inside);
                continue;
            }
            pieces.push_back({begin, end, coefficients});
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
