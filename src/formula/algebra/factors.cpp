#include "formula/algebra/factors.h"

#include "formula/notation/expr_build.h"

#include <cmath>

namespace coulter {
namespace {

/// Deepest call of functions of the page that is written out.
constexpr int deepestFactor = 20;

/// above / below; no `below` stands for 1.
struct Quotient {
    ExprPtr above, below;
};

ExprPtr product(const ExprPtr& a, const ExprPtr& b) { return !a ? b : !b ? a : a * b; }

class FactorReader {
public:
    explicit FactorReader(const Page& page) : page_(page) {}

    Quotient fraction(const ExprPtr& e, int depth = 0) {
        const auto operand = [&](std::size_t i) { return fraction(e->operands[i], depth); };
        switch (e->kind) {
        case ExprKind::Group: return operand(0);
        case ExprKind::Negate: {
            Quotient inner = operand(0);
            return inner.below ? Quotient{negated(inner.above), inner.below} : Quotient{e, nullptr};
        }
        case ExprKind::Divide: {
            const Quotient a = operand(0), b = operand(1);
            return {product(a.above, b.below), product(a.below, b.above)};
        }
        case ExprKind::Multiply: {
            const Quotient a = operand(0), b = operand(1);
            return {product(a.above, b.above), product(a.below, b.below)};
        }
        case ExprKind::Add:
        case ExprKind::Subtract: {
            const Quotient a = operand(0), b = operand(1);
            if (!a.below && !b.below) return {e, nullptr};
            const ExprPtr left = product(a.above, b.below), right = product(b.above, a.below);
            return {e->kind == ExprKind::Add ? left + right : left - right, product(a.below, b.below)};
        }
        case ExprKind::Power: {
            const Expr* inner = e->operands[1].get();
            while (inner->kind == ExprKind::Group) inner = inner->operands[0].get();
            const Expr& exponent = *inner;
            const bool negative = exponent.kind == ExprKind::Negate;
            const Expr& number = negative ? *exponent.operands[0] : exponent;
            if (number.kind != ExprKind::Number || number.number != std::floor(number.number)) return {e, nullptr};
            const Quotient base = operand(0);
            const auto raised = [&](const ExprPtr& part) {
                return part ? powerExpr(part, numberExpr(number.number)) : part;
            };
            if (negative) return {base.below ? raised(base.below) : numberExpr(1), raised(base.above)};
            return {raised(base.above), raised(base.below)};
        }
        case ExprKind::Call: return call(e, depth);
        default: return {e, nullptr};
        }
    }

private:
    Quotient call(const ExprPtr& e, int depth) {
        const Line* line = page_.find(e->text, LineKind::Function);
        if (line && e->below == 0 && e->above == 0) {
            const bool plain = e->orders.empty() && !page_.periods.contains(e->text) && line->body;
            if (!plain || depth == deepestFactor || line->parameters.size() != 1) return {e, nullptr};
            const Quotient inner = fraction(substitute(line->body, line->parameters[0], e->operands[0]), depth + 1);
            return inner;
        }
        if (e->orders.empty() && e->operands.size() == 1) {
            if (e->text == "tan") return {callExpr("sin", e->operands), callExpr("cos", e->operands)};
            if (e->text == "cot") return {callExpr("cos", e->operands), callExpr("sin", e->operands)};
        }
        return {e, nullptr};
    }

    const Page& page_;
};

} // namespace

namespace {

void collect(const ExprPtr& e, bool repeated, std::vector<Factor>& factors) {
    switch (e->kind) {
    case ExprKind::Group:
    case ExprKind::Negate:
    case ExprKind::Absolute: return collect(e->operands[0], repeated, factors);
    case ExprKind::Multiply:
        for (const ExprPtr& each : e->operands) collect(each, repeated, factors);
        return;
    case ExprKind::Power: {
        const Expr& exponent = *e->operands[1];
        if (exponent.kind != ExprKind::Number || !(exponent.number > 0)) break;
        return collect(e->operands[0], repeated || exponent.number != 1, factors);
    }
    case ExprKind::Call:
        if ((e->text != "sqrt" && e->text != "abs") || !e->orders.empty()) break;
        return collect(e->operands[0], repeated, factors);
    default: break;
    }
    const std::string text = spelled(*withBrackets(e));
    for (Factor& known : factors) {
        if (spelled(*known.base) != text) continue;
        known.isRepeated = true;
        return;
    }
    factors.push_back({withBrackets(e), repeated});
}

} // namespace

std::vector<Factor> factorsOf(const Page& page, const ExprPtr& e) {
    std::vector<Factor> factors;
    collect(FactorReader(page).fraction(e).above, false, factors);
    return factors;
}

} // namespace coulter
