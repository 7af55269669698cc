#include "formula/lines/agreement_in_rows.h"

#include "formula/algebra/unit_inference.h"
#include "formula/base/text.h"
#include "formula/base/total.h"
#include "formula/compile/columns.h"
#include "formula/notation/expr_build.h"
#include "formula/page/free_names.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double rounding = 1e-13; ///< of the larger side
constexpr std::size_t mostNamed = 2;

std::string said(double x, const std::string& unit) {
    return roundedNumber(x, 4) + (unit.empty() || unit == "1" ? "" : " " + unit);
}

std::string rowsOf(std::size_t count) { return std::to_string(count) + (count == 1 ? " row" : " rows"); }

/// "row 7 (t = 12, s = 3.1)", with the columns that the equation names.
std::string placeOf(const Page& page, const ExprPtr& equation, std::size_t row) {
    std::vector<std::string> values;
    for (const std::string& name : freeColumns(page, equation)) {
        const Column column = page.columnOf(name);
        if (column && row < column->size() && values.size() < mostNamed)
            values.push_back(name + " = " + roundedNumber((*column)[row], 6));
    }
    std::string text = "row " + std::to_string(row + 1);
    for (std::size_t i = 0; i < values.size(); ++i) text += (i == 0 ? " (" : ", ") + values[i];
    return text + (values.empty() ? "" : ")");
}

} // namespace

SearchAnswer comparedInRows(const Page& page, const Line& line) {
    SearchAnswer answer;
    answer.sought = line.sought;
    const ExprPtr& equation = line.equations[0];
    const ExprPtr &left = equation->operands[0], &right = equation->operands[1];
    if (freeColumns(page, equation).empty() && !isColumn(page, left) && !isColumn(page, right)) {
        answer.problems.push_back({-1, equation->span.first, equation->span.last,
                                   "There is no column in this equation whose rows could be looked at.",
                                   "write f(x) = g(x) for all x in [0, 1] to compare two functions"});
        return answer;
    }
    // The difference is computed as one formula, so that a number on one side counts for every row.
    auto minus = std::make_shared<Expr>(*nodeExpr(ExprKind::Subtract, {left, right}));
    minus->span = equation->span;
    const ExprPtr difference = withBrackets(minus);
    ColumnAnswer found = columnsOf(page, difference);
    ColumnAnswer size = columnsOf(page, left);
    answer.problems = found.problems.empty() ? size.problems : found.problems;
    if (!answer.problems.empty()) return answer;
    if (found.columns.size() > 1) {
        answer.problems.push_back({-1, equation->span.first, equation->span.last,
                                   "A column holds numbers, and this is a vector.", "write one of its components"});
        return answer;
    }
    const std::vector<double>&apart = *found.columns[0], &of = *size.columns[0];
    std::size_t count = 0, worst = 0;
    bool isRounding = true;
    Total sum, squares;
    double largest = -1, magnitude = 0;
    for (const double value : of) magnitude = std::isfinite(value) ? std::max(magnitude, std::abs(value)) : magnitude;
    for (std::size_t row = 0; row < apart.size(); ++row) {
        if (std::isnan(apart[row])) continue;
        ++count;
        sum.add(apart[row]);
        squares.add(apart[row] * apart[row]);
        isRounding = isRounding && std::abs(apart[row]) <= rounding * magnitude;
        if (!(std::abs(apart[row]) > largest)) continue;
        largest = std::abs(apart[row]);
        worst = row;
    }
    std::string unit = unitOfExpression(page, left);
    if (unit.empty() || unit == "1") unit = unitOfExpression(page, right);
    const auto all = static_cast<double>(count);
    std::string& verdict = answer.places.verdict;
    if (count == 0)
        verdict = "no row has a value on both sides";
    else if (largest == 0)
        verdict = "yes: equal in " + rowsOf(count);
    else if (isRounding)
        verdict = "yes: to within " + roundedNumber(largest, 3) + ", which is rounding, in " + rowsOf(count);
    else
        verdict = "no: they differ by " + said(largest, unit) + " at most, in " + placeOf(page, equation, worst) +
                  "; root mean square " + said(std::sqrt(squares.value() / all), unit) + ", mean " +
                  said(sum.value() / all, unit) + ", in " + rowsOf(count);
    const std::size_t rest = apart.size() - count;
    if (rest > 0 && count > 0)
        verdict += rest == 1 ? "; 1 row does not count" : "; " + std::to_string(rest) + " rows do not count";
    return answer;
}

} // namespace coulter
