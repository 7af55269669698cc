#pragma once
#include "formula/page/page.h"

#include <string>
#include <vector>

namespace coulter {

/// What a plot draws: an expression, possibly for several cases: `T(z, t) for z in {0.1, 0.5}`,
/// `f(x) for (alpha, beta) in {(0.2, 1), (0.4, 3)}`, `f(x) for k in {0, 0.1, ..., 1}`, `f(x) for k in d` of a column d.
struct Plotted {
    ExprPtr expression;                        ///< null exactly if there is a problem; of a condition its margin
    ExprPtr condition;                         ///< if it is one, such as x^2 + y^2 = 1; else null
    std::vector<std::string> caseNames;        ///< canonical; empty without “for”
    std::vector<std::vector<double>> cases;    ///< one value for each name, in the order written
    std::vector<std::vector<ExprPtr>> spelled; ///< the same as spelled
    std::vector<std::string> variables;        ///< canonical names of the variables it runs along
    bool isColumn = false;                     ///< it runs along columns of numbers instead
    Problems problems;
};

/// Most cases of one plot.
inline constexpr std::size_t mostCases = 100;

/// Reads what a plot draws over so many variables: the variables of the page that the expression depends on. Two stand
/// in the order in which a function of the page is called with them, as in T(z, t), else in that of their lines. An
/// expression with columns has no variables.
Plotted readPlotted(const Page& page, const std::string& text, std::size_t variables = 1);

} // namespace coulter
