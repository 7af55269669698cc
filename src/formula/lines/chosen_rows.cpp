#include "formula/lines/chosen_rows.h"

#include "formula/notation/expr_build.h"

#include <algorithm>

namespace coulter {
namespace {

/// The columns of the page that an expression names.
void columnsIn(const Page& page, const Expr& e, std::vector<std::string>& names) {
    if (e.kind == ExprKind::Name && page.columnOf(e.text) && std::ranges::find(names, e.text) == names.end())
        names.push_back(e.text);
    for (const ExprPtr& each : e.operands) columnsIn(page, *each, names);
}

ExprPtr chosen(const Expr& name, const ExprPtr& condition) {
    auto pieces = std::make_shared<Expr>(*nodeExpr(ExprKind::Pieces, {std::make_shared<Expr>(name), condition}));
    pieces->span = name.span;
    pieces->choosesRows = true;
    return pieces;
}

/// The expression with each column in it chosen by rows, every node at its place.
ExprPtr withRows(const Page& page, const ExprPtr& e, const ExprPtr& condition) {
    if (e->kind == ExprKind::Name) return page.columnOf(e->text) ? chosen(*e, condition) : e;
    if (e->operands.empty()) return e;
    std::vector<ExprPtr> operands;
    for (std::size_t i = 0; i < e->operands.size(); ++i) {
        const bool isBound = bindsName(e->kind) && i == 2 && page.columnOf(e->text); // another thing of that name
        operands.push_back(isBound ? e->operands[i] : withRows(page, e->operands[i], condition));
    }
    return withOperands(*e, std::move(operands));
}

} // namespace

std::optional<Problem> chooseRows(const Page& page, Line& line) {
    std::vector<ExprPtr*> formulas;
    if (line.body) formulas.push_back(&line.body);
    for (ExprPtr& equation : line.equations) formulas.push_back(&equation);
    std::vector<std::string> names;
    for (const ExprPtr* formula : formulas) columnsIn(page, **formula, names);
    if (names.empty())
        return Problem{-1, line.where->span.first, line.where->span.last,
                       "There is no column in this line whose rows could be chosen.",
                       "a condition for a function is written with pieces: { f(x) for x > 0 }"};
    for (ExprPtr* formula : formulas) *formula = withRows(page, *formula, line.where);
    return std::nullopt;
}

} // namespace coulter
