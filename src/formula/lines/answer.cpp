#include "formula/lines/answer.h"

#include "formula/algebra/derivative.h"
#include "formula/algebra/exact_form.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/lines/fourier_lines.h"
#include "formula/lines/matrices.h"
#include "formula/lines/measures.h"
#include "formula/lines/searches.h"
#include "formula/measured/statistics.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"
#include "formula/page/page.h"
#include "formula/program/infinities.h"
#include "formula/proofs/interval_evaluator.h"

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

/// Whether statistics or coefficients of a fit stand in an expression, or in what it names.
bool dependsOnMeasured(const Page& page, const Expr& e, std::set<std::size_t>& seen) {
    if (e.kind == ExprKind::Call && !page.defined.contains(e.text) && findStatistic(e.text)) return true;
    if (e.kind == ExprKind::Name || e.kind == ExprKind::Call) {
        const auto at = page.defined.find(e.text);
        if (at != page.defined.end() && seen.insert(at->second).second) {
            const Line& line = page.lines[at->second];
            if (line.kind == LineKind::Fit || line.isMeasured()) return true;
            if (line.body && dependsOnMeasured(page, *line.body, seen)) return true;
        }
    }
    return std::ranges::any_of(e.operands, [&](const ExprPtr& each) { return dependsOnMeasured(page, *each, seen); });
}

bool dependsOnMeasured(const Page& page, const Expr& e) {
    std::set<std::size_t> seen;
    return dependsOnMeasured(page, e, seen);
}

/// Whether an integral or a series of a program without inputs has no value.
bool hasUnsettled(const Program& program) {
    std::vector<double> values(program.outputs.size());
    std::vector<double*> outputs;
    for (double& value : values) outputs.push_back(&value);
    Evaluator evaluator(program);
    evaluator.limit({}, mostIntegrandValues);
    evaluator({}, outputs, 1);
    for (std::size_t i = 0; i < program.integrals.size(); ++i) {
        if (std::isinf(evaluator.integralErrors(i)[0])) return true;
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
    if (usesMatrices(page, *expression)) {
        MatrixAnswer found = matrixOf(page, expression);
        result.matrix = std::move(found.value);
        result.problems = std::move(found.problems);
        return result;
    }
    if (isColumn(page, expression) && freeVariables(page, expression).empty()) {
        ColumnAnswer found = columnsOf(page, expression);
        result.columns = std::move(found.columns);
        result.problems = std::move(found.problems);
        return result;
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
    if (expression->kind == ExprKind::Name) {
        if (const Line* fit = page.find(expression->text, LineKind::Fit)) {
            const auto at = std::ranges::find(fit->unknowns, expression->text) - fit->unknowns.begin();
            result.errors = {fit->errors[static_cast<std::size_t>(at)]};
            result.isStandardError = true;
            return result;
        }
    }
    // Interval arithmetic over the same program bounds all rounding, with the error estimates of its integrals.
    const Compiled unfolded = compileStepByStep(page, expression);
    if (!unfolded.program) return result;
    // What is computed from measured numbers has errors that only the person knows who measured.
    const bool measured = dependsOnMeasured(page, *expression);
    IntervalEvaluator enclosing(*unfolded.program);
    const auto bounds = enclosing({});
    const std::vector<bool> throughInfinity = wentThroughInfinity(*unfolded.program);
    for (std::size_t i = 0; i < result.values.size(); ++i) {
        result.throughInfinity = result.throughInfinity || throughInfinity[i];
        result.isEstimated = result.isEstimated || bounds[i].estimated;
        // Bounds that are proven may be far sharper than what an integral or a series adds up to, or known where that
        // does not settle.
        const double middle = bounds[i].low / 2 + bounds[i].high / 2;
        const bool isProven =
            !unfolded.program->integrals.empty() && bounds[i].isProof() && !measured && !throughInfinity[i];
        const bool isSharper = isProven && std::abs(result.values[i] - middle) > bounds[i].width();
        const bool isSettled = isProven && std::isnan(result.values[i]) && !compiled.metInfinity;
        if (isSharper || isSettled) result.values[i] = middle;
        const double value = result.values[i];
        const bool bounded = bounds[i].known && std::isfinite(value) && !measured && !throughInfinity[i];
        result.errors.push_back(bounded ? std::max(bounds[i].high - value, value - bounds[i].low) : HUGE_VAL);
    }
    if (std::ranges::any_of(result.values, [](double value) { return std::isnan(value); }))
        result.unsettled = hasUnsettled(*unfolded.program);
    return result;
}

namespace {

Answer withExactForm(const Page& page, const ExprPtr& expression) {
    Answer result = answer(page, expression);
    if (std::isfinite(result.value())) result.exact = exactText(page, expression);
    return result;
}

} // namespace

Answer evaluate(const Page& page, std::string_view text) {
    Answer result;
    if (auto search = searchText(page, text)) {
        result.problems = std::move(search->problems);
        if (result.problems.empty()) result.places = std::make_shared<const Places>(std::move(search->places));
        result.sought = search->sought;
        return result;
    }
    if (const auto measure = measureText(page, text)) {
        result.problems = measure->problems;
        return measure->formula ? withExactForm(page, measure->formula) : result;
    }
    if (const auto series = fourierSeriesText(page, text)) {
        result.formula = series->formula;
        result.problems = series->problems;
        return result;
    }
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), page.inQuestions);
    result.problems = parsed.problems;
    if (!parsed.expression) return result;
    return withExactForm(page, parsed.expression);
}

} // namespace coulter
