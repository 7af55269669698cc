#include "formula/algebra/margin.h"

#include "formula/notation/expr_build.h"

namespace coulter {
namespace {

ExprPtr extreme(const char* which, const ExprPtr& a, const ExprPtr& b) { return callExpr(which, {a, b}); }

ExprPtr bracketed(const ExprPtr& e) { return nodeExpr(ExprKind::Group, {e}); }

ExprPtr ofRelation(const std::string& relation, const ExprPtr& a, const ExprPtr& b) {
    if (relation == "<" || relation == "<=") return bracketed(b) - bracketed(a);
    const ExprPtr difference = bracketed(a) - bracketed(b);
    return relation == "!=" ? nodeExpr(ExprKind::Absolute, {difference}) : difference;
}

} // namespace

ExprPtr marginOf(const ExprPtr& condition) {
    const auto& parts = condition->operands;
    switch (condition->kind) {
    case ExprKind::Group: return marginOf(parts[0]);
    case ExprKind::Not: return negated(bracketed(marginOf(parts[0])));
    case ExprKind::And: return extreme("min", marginOf(parts[0]), marginOf(parts[1]));
    case ExprKind::Or: return extreme("max", marginOf(parts[0]), marginOf(parts[1]));
    default: break;
    }
    ExprPtr margin = ofRelation(condition->relations[0], parts[0], parts[1]);
    for (std::size_t i = 1; i < condition->relations.size(); ++i)
        margin = extreme("min", margin, ofRelation(condition->relations[i], parts[i], parts[i + 1]));
    return margin;
}

} // namespace coulter
