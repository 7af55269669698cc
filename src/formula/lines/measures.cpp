#include "formula/lines/measures.h"

#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "formula/page/line_parser.h"

namespace coulter {
namespace {

ExprPtr slopeOf(const Line& line) {
    const Expr& e = *line.body;
    const std::string& x = line.parameters[0];
    const bool plainCall = e.kind == ExprKind::Call && e.operands.size() == 1 && e.orders.empty() && e.below == 0 &&
                           e.operands[0]->kind == ExprKind::Name && e.operands[0]->text == x;
    auto node = std::make_shared<Expr>(plainCall ? e : *nodeExpr(ExprKind::Derivative, {line.body}));
    if (plainCall) {
        node->orders = {1};
    } else {
        node->text = x;
        node->number = 1;
    }
    node->span = e.span;
    return node;
}

ExprPtr integralOf(const ExprPtr& integrand, const std::string& variable, const ExprPtr& low, const ExprPtr& high) {
    auto integral = std::make_shared<Expr>(*nodeExpr(ExprKind::Integral, {low, high, integrand}));
    integral->text = variable;
    return integral;
}

} // namespace

MeasureFormula measureFormula(const Page& page, const Line& line) {
    ExprPtr low = line.low, high = line.high;
    const std::string& x = line.parameters[0];
    if (!low) {
        const Line* variable = page.find(x, LineKind::Variable);
        if (!variable)
            return {nullptr,
                    {{-1, line.nameSpan.first, line.nameSpan.last, "From where to where " + x + " runs is not said.",
                      "write for " + x + " in [0, 1]"}}};
        low = variable->low;
        high = variable->high;
    }
    ExprPtr integrand = line.body;
    const Compiled compiled = compile(page, line.body, line.parameters);
    if (!compiled.program) return {nullptr, compiled.problems};
    const bool isVector = compiled.program->outputs.size() > 1;
    if (isVector && line.measure != Measure::Length)
        return {nullptr,
                {{-1, line.body->span.first, line.body->span.last,
                  "A vector has no area, volume or mean of one number.", "ask for one of its components"}}};
    const bool isMagnitude = line.measure == Measure::Area || line.measure == Measure::Volume;
    if (line.measure == Measure::Length) {
        const ExprPtr slope = slopeOf(line);
        integrand = isVector ? nodeExpr(ExprKind::Absolute, {slope})
                             : callExpr("sqrt", {numberExpr(1) + powerExpr(slope, numberExpr(2))});
    } else if (isMagnitude) {
        integrand = nodeExpr(ExprKind::Absolute, {line.body});
    }
    const bool isRegion = line.parameters.size() == 2;
    const ExprPtr held = line.where ? nodeExpr(ExprKind::Iverson, {line.where}) : nullptr;
    const auto overAll = [&](ExprPtr of) {
        if (held) of = held * of;
        if (isRegion) of = integralOf(of, line.parameters[1], line.arguments[0], line.arguments[1]);
        return integralOf(of, x, low, high);
    };
    ExprPtr whole = overAll(integrand);
    if (line.measure == Measure::Mean) {
        // By the size of what it is taken over, which of a plain interval is no integral.
        const ExprPtr size = isRegion || held ? overAll(numberExpr(1)) : nodeExpr(ExprKind::Group, {high - low});
        whole = isRegion || held ? whole / size : numberExpr(1) / size * whole;
    }
    auto placed = std::make_shared<Expr>(*withBrackets(whole));
    placed->span = line.body->span;
    return {placed, {}};
}

std::optional<MeasureFormula> measureText(const Page& page, std::string_view text) {
    LineOutline outline = outlineLine(std::string(text));
    if (outline.line.measure == Measure::None) return std::nullopt;
    const Line line = readLine(std::move(outline), page.inQuestions);
    if (!line.good() || !line.body) return MeasureFormula{nullptr, line.problems};
    return measureFormula(page, line);
}

} // namespace coulter
