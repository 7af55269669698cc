#include "formula/columns.h"
#include "formula/derivative.h"
#include "formula/enclosure.h"
#include "formula/page.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

/// Most values of integrands that one answer may need: about a second.
constexpr std::int64_t mostIntegrandValues = 50'000'000;

bool isDerivative(const Expr& e) {
    if (e.kind == ExprKind::Group) return isDerivative(*e.operands[0]);
    return e.kind == ExprKind::Derivative || (e.kind == ExprKind::Call && !e.orders.empty());
}

/// Whether some name in e stands for nothing but itself.
bool hasOpenName(const Page& page, const Expr& e, const std::set<std::string>& bound) {
    if (e.kind == ExprKind::Name || e.kind == ExprKind::Derivative) {
        const bool open = !bound.contains(e.text) && !page.valueOf(e.text) &&
                          (page.defined.contains(e.text) || std::isnan(constantValue(e.text)));
        if (open || e.kind == ExprKind::Name) return open;
    }
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if (bindsName(e.kind) && i == 2) inner.insert(e.text);
        if (hasOpenName(page, *e.operands[i], inner)) return true;
    }
    return false;
}

} // namespace

Answer answer(const Page& page, const ExprPtr& expression) {
    Answer result;
    if (isDerivative(*expression) && hasOpenName(page, *expression, {})) {
        const Derived derived = derivativeAsFormula(page, expression);
        result.formula = derived.expression;
        result.problems = derived.problems;
        return result;
    }
    if (isColumn(page, expression) && freeVariables(page, expression).empty()) {
        ColumnAnswer found = columnsOf(page, expression);
        return {{}, {}, std::move(found.columns), nullptr, std::move(found.problems)};
    }
    for (const std::string& name : freeVariables(page, expression)) {
        result.problems.push_back({-1, expression->span.first, expression->span.last,
                                   name + " is a variable and has no single value here.",
                                   "ask at a place, such as f(2) = ?"});
        return result;
    }
    const Compiled compiled = compile(page, expression, {});
    result.problems = compiled.problems;
    if (!compiled.program) return result;
    result.values.resize(compiled.program->outputs.size());
    std::vector<double*> outputs;
    for (double& value : result.values) outputs.push_back(&value);
    Evaluator evaluator(*compiled.program);
    evaluator.limit({}, mostIntegrandValues);
    evaluator({}, outputs, 1);
    if (evaluator.exhausted()) {
        result.problems.push_back({-1, expression->span.first, expression->span.last,
                                   "The integral here takes too long to compute.", "look at a simpler case first"});
        return result;
    }
    // Interval arithmetic over the same program bounds all rounding, with the error estimates of its integrals.
    const Compiled unfolded = compileStepByStep(page, expression);
    if (!unfolded.program) return result;
    IntervalEvaluator enclosing(*unfolded.program);
    const auto bounds = enclosing({});
    for (std::size_t i = 0; i < result.values.size(); ++i) {
        const double value = result.values[i];
        const bool bounded = bounds[i].known && std::isfinite(value);
        result.errors.push_back(bounded ? std::max(bounds[i].high - value, value - bounds[i].low) : HUGE_VAL);
    }
    return result;
}

Answer evaluate(const Page& page, std::string_view text) {
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), page.inQuestions);
    if (!parsed.expression) return {{}, {}, {}, nullptr, parsed.problems};
    return answer(page, parsed.expression);
}

} // namespace coulter
