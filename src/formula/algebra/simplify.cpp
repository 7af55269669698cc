#include "formula/algebra/simplify.h"

#include "formula/notation/expr_build.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>

namespace coulter {
namespace {

/// A number in front of a term: a fraction of whole numbers as long as these stay small, else a double.
struct Coefficient {
    double value = 1;
    long long above = 1, below = 1; ///< below = 0: not a fraction of whole numbers

    static Coefficient of(double v) {
        if (v == std::floor(v) && std::abs(v) < 1e9) return {v, static_cast<long long>(v), 1};
        return {v, 0, 0};
    }
    static Coefficient fraction(long long a, long long b) {
        const long long common = std::max(1LL, std::gcd(a, b));
        if (b < 0) a = -a, b = -b;
        a /= common, b /= common;
        if (std::abs(a) > 1'000'000'000 || b > 1'000'000'000)
            return of(static_cast<double>(a) / static_cast<double>(b));
        return {static_cast<double>(a) / static_cast<double>(b), a, b};
    }
    bool exact() const { return below != 0; }
    friend Coefficient operator*(const Coefficient& a, const Coefficient& b) {
        if (a.exact() && b.exact()) return fraction(a.above * b.above, a.below * b.below);
        return of(a.value * b.value);
    }
    friend Coefficient operator+(const Coefficient& a, const Coefficient& b) {
        if (a.exact() && b.exact()) return fraction(a.above * b.below + b.above * a.below, a.below * b.below);
        return of(a.value + b.value);
    }
    Coefficient inverse() const { return exact() ? fraction(below, above) : of(1 / value); }
};

/// Whether a sum of two numbers has both of them in it: 1e16 + 1 has not, as doubles.
bool keepsBoth(const Coefficient& a, const Coefficient& b) {
    const double sum = a.value + b.value, part = sum - a.value,
                 lost = (a.value - (sum - part)) + (b.value - part); // D. E. Knuth's exact error of a sum
    return std::abs(lost) <= 1e-12 * std::min(std::abs(a.value), std::abs(b.value));
}

/// Most products of two terms that are written out.
constexpr std::size_t mostMultiplied = 64;

struct Factor {
    ExprPtr base;
    ExprPtr exponent; ///< simplified
    std::string key;  ///< of the base
};

struct Term {
    Coefficient coefficient;
    std::vector<Factor> factors;
    std::string known = {}; ///< its key, once it stands in a sum

    std::string key() const {
        std::vector<std::string> parts;
        for (const Factor& factor : factors) parts.push_back(factor.key + "^" + spelled(*factor.exponent));
        std::ranges::sort(parts);
        std::string all;
        for (const std::string& part : parts) all += part + "|";
        return all;
    }
};

using Terms = std::vector<Term>;

/// Whether a product with a sum is multiplied out; both ways are tried and the shorter result is kept.
enum class Sums { Kept, MultipliedOut };

Terms termsOf(const ExprPtr& e, Sums sums);
ExprPtr exprOf(const Terms& terms);

std::optional<double> numberOf(const Expr& e) {
    if (e.kind == ExprKind::Number) return e.number;
    if (e.kind == ExprKind::Group) return numberOf(*e.operands[0]);
    if (e.kind == ExprKind::Negate) {
        const auto inner = numberOf(*e.operands[0]);
        return inner ? std::optional(-*inner) : std::nullopt;
    }
    if (e.kind == ExprKind::Divide) {
        const auto a = numberOf(*e.operands[0]), b = numberOf(*e.operands[1]);
        return a && b && *b != 0 ? std::optional(*a / *b) : std::nullopt;
    }
    return std::nullopt;
}

bool isWhole(const Expr& e) {
    const auto number = numberOf(e);
    return number && *number == std::floor(*number);
}

ExprPtr plain(const ExprPtr& e, Sums sums = Sums::Kept) { return exprOf(termsOf(e, sums)); }

void joinTerm(Terms& terms, Term term) {
    if (term.coefficient.value == 0) return;
    term.known = term.key();
    for (std::size_t i = 0; i < terms.size(); ++i) {
        if (terms[i].known.empty()) terms[i].known = terms[i].key();
        if (terms[i].known != term.known || !keepsBoth(terms[i].coefficient, term.coefficient)) continue;
        terms[i].coefficient = terms[i].coefficient + term.coefficient;
        if (terms[i].coefficient.value == 0) terms.erase(terms.begin() + static_cast<std::ptrdiff_t>(i));
        return;
    }
    terms.push_back(std::move(term));
}

/// Joins equal bases where one of the exponents is whole: x^n x^{−1} = x^{n−1}.
void joinFactor(std::vector<Factor>& factors, Factor factor) {
    for (std::size_t i = 0; i < factors.size(); ++i) {
        Factor& known = factors[i];
        if (known.key != factor.key || !(isWhole(*known.exponent) || isWhole(*factor.exponent))) continue;
        known.exponent = plain(known.exponent + factor.exponent);
        if (isNumber(*known.exponent, 0)) factors.erase(factors.begin() + static_cast<std::ptrdiff_t>(i));
        return;
    }
    factors.push_back(std::move(factor));
}

Term product(const Term& a, const Term& b) {
    Term result{a.coefficient * b.coefficient, a.factors, {}};
    for (const Factor& factor : b.factors) joinFactor(result.factors, factor);
    return result;
}

Term single(const ExprPtr& base, const ExprPtr& exponent) {
    return {{}, {{base, exponent, spelled(*withBrackets(base))}}};
}

/// Terms as one: a sum becomes a factor in brackets.
Term asTerm(const Terms& terms) {
    if (terms.empty()) return {Coefficient::of(0), {}};
    if (terms.size() == 1) return terms[0];
    return single(exprOf(terms), numberExpr(1));
}

Term toPower(const Term& term, const ExprPtr& exponent) {
    const auto number = numberOf(*exponent);
    if (number && *number == std::floor(*number) && std::abs(*number) <= 64) {
        Term result;
        const Coefficient factor = *number < 0 ? term.coefficient.inverse() : term.coefficient;
        for (int i = 0; i < static_cast<int>(std::abs(*number)); ++i) result.coefficient = result.coefficient * factor;
        for (const Factor& each : term.factors)
            joinFactor(result.factors, {each.base, plain(each.exponent * numberExpr(*number)), each.key});
        return result;
    }
    if (term.coefficient.value == 1 && term.factors.size() == 1 && isNumber(*term.factors[0].exponent, 1))
        return single(term.factors[0].base, exponent);
    return single(exprOf({term}), exponent);
}

ExprPtr simplifiedParts(const ExprPtr& e, Sums sums) {
    std::vector<ExprPtr> parts;
    for (const ExprPtr& operand : e->operands) parts.push_back(plain(operand, sums));
    return withOperands(*e, std::move(parts));
}

/// Values at 0 that everybody writes at once.
std::optional<double> atZero(const std::string& name) {
    for (const char* vanishing :
         {"sin", "tan", "sinh", "tanh", "arcsin", "arctan", "arsinh", "artanh", "erf", "sqrt"}) {
        if (name == vanishing) return 0;
    }
    for (const char* one : {"exp", "cos", "cosh", "sec", "sech", "erfc", "sinc"}) {
        if (name == one) return 1;
    }
    return std::nullopt;
}

/// Whole negative orders are written with positive ones (DLMF 10.4.1, 10.27.1, 10.27.3).
Term callTerm(const ExprPtr& e, Sums sums) {
    const ExprPtr call = simplifiedParts(e, sums);
    if (call->operands.size() == 1 && call->orders.empty()) {
        const auto known = atZero(call->text);
        if (known && isNumber(*call->operands[0], 0)) return {Coefficient::of(*known), {}};
        if (call->text == "ln" && isNumber(*call->operands[0], 1)) return {Coefficient::of(0), {}};
    }
    if (call->below == 1 && call->operands.size() == 2) {
        const auto order = numberOf(*call->operands[0]);
        const bool cylinder = call->text == "J" || call->text == "Y", modified = call->text == "I" || call->text == "K";
        if (order && *order < 0 && *order == std::floor(*order) && (cylinder || modified)) {
            const bool odd = std::fmod(*order, 2) != 0;
            Term term = single(withOperands(*call, {numberExpr(-*order), call->operands[1]}), numberExpr(1));
            if (odd && cylinder) term.coefficient = Coefficient::of(-1);
            return term;
        }
    }
    return single(call, numberExpr(1));
}

/// A number in front of all that is summed or integrated stands before the sign.
Terms runningTerms(const ExprPtr& e, Sums sums) {
    Terms inner = termsOf(e->operands[2], sums);
    if (inner.empty()) return {};
    Coefficient front;
    if (inner.size() == 1) std::swap(front, inner[0].coefficient);
    Term term = single(withOperands(*e, {plain(e->operands[0]), plain(e->operands[1]), exprOf(inner)}), numberExpr(1));
    term.coefficient = front;
    return {term};
}

Terms termsOf(const ExprPtr& e, Sums sums) {
    switch (e->kind) {
    case ExprKind::Number: return e->number == 0 ? Terms{} : Terms{{Coefficient::of(e->number), {}}};
    case ExprKind::Group: return termsOf(e->operands[0], sums);
    case ExprKind::Call: {
        Term term = callTerm(e, sums);
        return term.coefficient.value == 0 ? Terms{} : Terms{std::move(term)};
    }
    case ExprKind::Negate: {
        Terms terms = termsOf(e->operands[0], sums);
        for (Term& term : terms) term.coefficient = term.coefficient * Coefficient::of(-1);
        return terms;
    }
    case ExprKind::Add:
    case ExprKind::Subtract: {
        Terms terms = termsOf(e->operands[0], sums);
        for (Term term : termsOf(e->operands[1], sums)) {
            if (e->kind == ExprKind::Subtract) term.coefficient = term.coefficient * Coefficient::of(-1);
            joinTerm(terms, std::move(term));
        }
        return terms;
    }
    case ExprKind::Multiply:
    case ExprKind::Divide: {
        Terms a = termsOf(e->operands[0], sums), b = termsOf(e->operands[1], sums);
        if (a.empty()) return {};
        if (e->kind == ExprKind::Divide) {
            if (b.empty()) return {single(nodeExpr(ExprKind::Divide, {exprOf(a), numberExpr(0)}), numberExpr(1))};
            b = {toPower(asTerm(b), numberExpr(-1))};
        }
        if (b.empty()) return {};
        // A plain number goes into a sum; anything else stays in front of it.
        if (a.size() == 1 && a[0].factors.empty()) std::swap(a, b);
        if (b.size() == 1 && b[0].factors.empty()) {
            for (Term& term : a) term.coefficient = term.coefficient * b[0].coefficient;
            return a;
        }
        if (sums == Sums::MultipliedOut && a.size() * b.size() <= mostMultiplied) {
            Terms all;
            for (const Term& first : a) {
                for (const Term& second : b) joinTerm(all, product(first, second));
            }
            return all;
        }
        return {product(asTerm(a), asTerm(b))};
    }
    case ExprKind::Power: {
        const ExprPtr exponent = plain(e->operands[1]);
        const Terms base = termsOf(e->operands[0], sums);
        if (isNumber(*exponent, 0)) return {{Coefficient::of(1), {}}};
        if (base.empty()) return {single(nodeExpr(ExprKind::Power, {numberExpr(0), exponent}), numberExpr(1))};
        return {toPower(asTerm(base), exponent)};
    }
    case ExprKind::Sum:
    case ExprKind::Integral: return runningTerms(e, sums);
    default: return {single(simplifiedParts(e, sums), numberExpr(1))};
    }
}

/// Names first, then sums in brackets, then functions; as people write them.
int rank(const Factor& factor) {
    switch (factor.base->kind) {
    case ExprKind::Name: return 0;
    case ExprKind::Call: return 2;
    case ExprKind::Number: return -1;
    default: return 1;
    }
}

ExprPtr termExpr(const Term& term, bool& negative) {
    std::vector<Factor> factors = term.factors;
    std::ranges::stable_sort(factors, {}, rank);
    const Coefficient& c = term.coefficient;
    negative = c.value < 0;
    ExprPtr above = c.exact() ? numberExpr(std::abs(static_cast<double>(c.above))) : numberExpr(std::abs(c.value));
    ExprPtr below = numberExpr(c.exact() ? static_cast<double>(c.below) : 1);
    for (const Factor& factor : factors) {
        const auto number = numberOf(*factor.exponent);
        if (number && *number < 0)
            below = below * powerExpr(factor.base, numberExpr(-*number));
        else
            above = above * powerExpr(factor.base, factor.exponent);
    }
    return above / below;
}

ExprPtr exprOf(const Terms& terms) {
    ExprPtr sum;
    for (const Term& term : terms) {
        bool negative = false;
        const ExprPtr part = termExpr(term, negative);
        if (!sum)
            sum = negative ? negated(part) : part;
        else
            sum = nodeExpr(negative ? ExprKind::Subtract : ExprKind::Add, {sum, part});
    }
    return sum ? sum : numberExpr(0);
}

} // namespace

ExprPtr simplified(const ExprPtr& e) {
    const ExprPtr kept = withBrackets(plain(e, Sums::Kept));
    const ExprPtr multiplied = withBrackets(plain(e, Sums::MultipliedOut));
    return spelled(*multiplied).size() < spelled(*kept).size() ? multiplied : kept;
}

} // namespace coulter
