#include "formula/compile/columns.h"

#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Most values of integrands that one column may need: a few seconds.
constexpr std::int64_t mostIntegrandValues = 100'000'000;

/// Most operations of arithmetic that one column may need: some seconds' worth.
constexpr double mostOperations = 1e10;

/// Operations of one row, about.
double costOf(const Program& program) {
    double cost = 0;
    for (const Program::Instruction& step : program.instructions) cost += step.special ? 300 : 1;
    return cost;
}

/// Carries a problem out of the recursion; never leaves this file.
struct ColumnRefusal {
    Problem problem;
};

[[noreturn]] void refuse(const Expr& e, std::string sentence, std::string suggestion = "") {
    throw ColumnRefusal{{-1, e.span.first, e.span.last, std::move(sentence), std::move(suggestion)}};
}

/// What makes one number of a column's, or a column of a column's.
const Statistic* statisticAt(const Page& page, const Expr& e) {
    return e.kind == ExprKind::Call && !page.defined.contains(e.text) ? findStatistic(e.text) : nullptr;
}

bool hasList(const Page& page, const Expr& e) {
    const Statistic* statistic = statisticAt(page, e);
    if (statistic) return statistic->column != nullptr;
    return e.kind == ExprKind::List ||
           std::ranges::any_of(e.operands, [&](const ExprPtr& each) { return hasList(page, *each); });
}

/// Where a name stands in an expression; all of it if it does so only through a function.
Span placeOf(const Expr& e, const std::string& name, Span otherwise) {
    if (e.kind == ExprKind::Name && e.text == name) return e.span;
    for (const ExprPtr& each : e.operands) {
        const Span place = placeOf(*each, name, {});
        if (place != Span{}) return place;
    }
    return otherwise;
}

class ColumnReader {
public:
    ColumnReader(const Page& page, const FixedValues& fixed) : page_(page), fixed_(fixed) {}

    std::vector<Column> run(const ExprPtr& expression) {
        if (auto named = columnsAsTheyAre(*expression); !named.empty()) return named;
        const ExprPtr lifted = withoutLists(expression);
        for (const std::string& name : freeColumns(page_, expression)) {
            if (!fixed_.contains(name))
                add(name, page_.columnOf(name), name, placeOf(*expression, name, expression->span));
        }
        const Compiled compiled = compile(page_, lifted, names_, fixed_);
        if (!compiled.program) throw ColumnRefusal{compiled.problems.front()};
        const std::size_t length = columns_.empty() ? 1 : columns_[0]->size();
        if (costOf(*compiled.program) * static_cast<double>(length) > mostOperations)
            refuse(*expression, "This takes too long to compute for " + std::to_string(length) + " numbers.",
                   "write a simpler formula, or take fewer numbers");
        std::vector<const double*> inputs;
        for (const Column& column : columns_) inputs.push_back(column->data());
        std::vector<std::vector<double>> results(compiled.program->outputs.size(), std::vector<double>(length));
        std::vector<double*> outputs;
        for (auto& result : results) outputs.push_back(result.data());
        if (compiled.program->integrals.empty()) {
            evaluateInParallel(*compiled.program, inputs, outputs, length);
        } else {
            Evaluator evaluator(*compiled.program);
            evaluator.limit({}, mostIntegrandValues);
            evaluator(inputs, outputs, length);
            if (evaluator.exhausted())
                refuse(*expression, "The integral here takes too long to compute for every number of the column.");
        }
        std::vector<Column> columns;
        for (auto& result : results) columns.push_back(std::make_shared<const std::vector<double>>(std::move(result)));
        return columns;
    }

private:
    /// What names columns of one length, one or side by side, is these, and nothing is computed; else none.
    std::vector<Column> columnsAsTheyAre(const Expr& e) const {
        if (e.kind == ExprKind::Group) return columnsAsTheyAre(*e.operands[0]);
        std::vector<Column> columns;
        for (const ExprPtr& each :
             e.kind == ExprKind::Vector ? e.operands : std::vector{std::make_shared<const Expr>(e)}) {
            const Column column =
                each->kind == ExprKind::Name && !fixed_.contains(each->text) ? page_.columnOf(each->text) : nullptr;
            if (!column || (!columns.empty() && columns[0]->size() != column->size())) return {};
            columns.push_back(column);
        }
        return columns;
    }

    void add(const std::string& name, Column column, const std::string& said, Span place) {
        if (!columns_.empty() && columns_[0]->size() != column->size()) {
            throw ColumnRefusal{{-1, place.first, place.last,
                                 "Columns that are computed with each other have one length; " + said + " has " +
                                     std::to_string(column->size()) + " numbers, and " + firstSaid_ + " has " +
                                     std::to_string(columns_[0]->size()) + ".",
                                 "give both as many numbers"}};
        }
        if (columns_.empty()) firstSaid_ = said;
        names_.push_back(name);
        columns_.push_back(std::move(column));
    }

    /// The expression with every list in it named.
    ExprPtr withoutLists(const ExprPtr& e) {
        if (!hasList(page_, *e)) return e;
        if (const Statistic* statistic = statisticAt(page_, *e)) return named(*e, columnOfStatistic(*statistic, *e));
        if (e->kind == ExprKind::List) return named(*e, numbersOf(*e));
        std::vector<ExprPtr> operands;
        for (const ExprPtr& each : e->operands) operands.push_back(withoutLists(each));
        return withOperands(*e, std::move(operands));
    }

    /// A name for a column that stands in the expression without one.
    ExprPtr named(const Expr& e, Column column) {
        const std::string name = "{" + std::to_string(names_.size() + 1) + "}"; // no page can have such a name
        const bool isFirst = columns_.empty(), isList = e.kind == ExprKind::List;
        const std::string said = isList ? (isFirst ? "the list" : "this list") : spelled(e);
        add(name, std::move(column), said, e.span);
        auto node = std::make_shared<Expr>(*nameExpr(name));
        node->span = e.span;
        return node;
    }

    Column columnOfStatistic(const Statistic& statistic, const Expr& e) {
        const std::vector<Column> of = ColumnReader(page_, fixed_).run(e.operands[0]);
        if (of.size() != 1) refuse(e, "A column holds numbers, and this is a vector.");
        return std::make_shared<const std::vector<double>>(statistic.column(*of[0]));
    }

    double number(const Expr& e) {
        const Compiled compiled = compile(page_, std::make_shared<Expr>(e), {}, fixed_);
        if (!compiled.program) throw ColumnRefusal{compiled.problems.front()};
        if (compiled.program->outputs.size() != 1) refuse(e, "A column holds numbers, and this is a vector.");
        double value = 0;
        double* const out = &value;
        Evaluator evaluator(*compiled.program);
        evaluator.limit({}, mostIntegrandValues);
        evaluator({}, std::span<double* const>(&out, 1), 1);
        if (evaluator.exhausted()) refuse(e, "The integral here takes too long to compute for a single number.");
        return value;
    }

    Column numbersOf(const Expr& list) {
        std::vector<double> numbers;
        for (const ExprPtr& each : list.operands) numbers.push_back(number(*each));
        if (list.goesOn) goOn(list, numbers);
        return std::make_shared<const std::vector<double>>(std::move(numbers));
    }

    /// {a, b, ..., z}: by the step between the first two.
    static void goOn(const Expr& list, std::vector<double>& numbers) {
        const std::size_t given = numbers.size() - 1;
        if (given < 2)
            refuse(list, "How far the numbers of this list are apart is not said.",
                   "write two of them before the dots: {0, 0.1, ..., 1}");
        const double first = numbers[0], step = numbers[1] - first, last = numbers.back();
        if (!(step != 0) || !std::isfinite(step) || !std::isfinite(last))
            refuse(list, "A list that goes on needs a finite step that is not zero.");
        for (std::size_t i = 2; i < given; ++i) {
            if (std::abs(numbers[i] - (first + static_cast<double>(i) * step)) > 1e-9 * std::abs(step))
                refuse(*list.operands[i], "The numbers before the dots are not evenly spaced.",
                       "leave two of them, or write out the whole list");
        }
        const double steps = std::round((last - first) / step), off = (last - first) / step - steps;
        if (steps < static_cast<double>(given) - 1 || std::abs(off) > 1e-9 * std::max(1.0, steps))
            refuse(*list.operands.back(),
                   "Steps of " + shortestNumber(step) + " from " + shortestNumber(first) + " do not lead to " +
                       shortestNumber(last) + ".",
                   "end at " + roundedNumber(first + std::max(1.0, steps) * step, 10) + ", or change the step");
        if (steps + 1 > mostNumbers)
            refuse(list,
                   "This list has " + roundedNumber(steps + 1, 3) + " numbers; at most " +
                       roundedNumber(mostNumbers, 3) + " are held.",
                   "take larger steps");
        numbers.clear();
        for (double i = 0; i < steps; ++i) numbers.push_back(first + (last - first) * i / steps);
        numbers.push_back(last);
    }

    const Page& page_;
    const FixedValues& fixed_;
    std::vector<std::string> names_;
    std::vector<Column> columns_;
    std::string firstSaid_; ///< what the first column is called in a sentence
};

} // namespace

bool isColumn(const Page& page, const ExprPtr& expression, std::span<const std::string> fixed) {
    if (!expression) return false;
    const std::vector<std::string> columns = freeColumns(page, expression);
    return hasList(page, *expression) || std::ranges::any_of(columns, [&](const std::string& name) {
               return std::ranges::find(fixed, name) == fixed.end();
           });
}

ColumnAnswer columnsOf(const Page& page, const ExprPtr& expression, const FixedValues& fixed) {
    try {
        return {ColumnReader(page, fixed).run(expression), {}};
    } catch (const ColumnRefusal& refusal) {
        return {{}, {refusal.problem}};
    }
}

ColumnAnswer columnsOf(const Page& page, const std::string& text, const FixedValues& fixed) {
    KnownNames known = page.names;
    for (const auto& [name, value] : fixed) known.values.insert(name);
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), known);
    if (!parsed.expression) return {{}, parsed.problems};
    return columnsOf(page, parsed.expression, fixed);
}

std::string spelled(const std::vector<double>& column) {
    std::string text = "{";
    for (const double value : column) text += (text.size() > 1 ? ", " : "") + shortestNumber(value);
    return text + "}";
}

} // namespace coulter
