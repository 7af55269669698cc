#include "formula/lines/fits.h"

#include "formula/algebra/derivative.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/lines/conditions.h"
#include "formula/notation/expr_build.h"

#include <Eigen/QR>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Beyond this ratio of largest to smallest pivot fewer than three digits are left.
constexpr double worstConditionOfFit = 1e13;

Fitted fitRefused(Span span, std::string sentence, std::string suggestion = "") {
    return {{}, {}, 0, {{-1, span.first, span.last, std::move(sentence), std::move(suggestion)}}};
}

double at(const Column& column, std::size_t row) { return column->size() == 1 ? (*column)[0] : (*column)[row]; }

} // namespace

Fitted fitLine(const Page& page, const Line& line) {
    const Expr& equation = *line.equations[0];
    const ExprPtr difference = withBrackets(nodeExpr(ExprKind::Subtract, {equation.operands[0], equation.operands[1]}));
    FixedValues zero, elsewhere;
    double place = 1.375;
    for (const std::string& name : line.unknowns) {
        zero[name] = 0;
        elsewhere[name] = place;
        place += 0.71;
    }
    const ColumnAnswer rest = columnsOf(page, difference, zero);
    if (rest.columns.empty()) return {{}, {}, 0, rest.problems};
    if (rest.columns.size() > 1)
        return fitRefused(equation.span, "A fit compares numbers, not vectors.", "write one for each component");
    const std::size_t length = rest.columns[0]->size();
    std::vector<Column> slopes;
    for (const std::string& name : line.unknowns) {
        const Derived slope = derivative(page, difference, name);
        const ColumnAnswer here = slope.expression ? columnsOf(page, slope.expression, zero) : ColumnAnswer{};
        const ColumnAnswer there = slope.expression ? columnsOf(page, slope.expression, elsewhere) : ColumnAnswer{};
        if (here.columns.empty() || there.columns.empty())
            return fitRefused(equation.span, "This equation cannot be fitted by " + name + ".",
                              "write it as a sum of multiples of the coefficients");
        const std::size_t rows = std::max(here.columns[0]->size(), there.columns[0]->size());
        for (std::size_t i = 0; i < rows; ++i) {
            const double a = at(here.columns[0], i), b = at(there.columns[0], i);
            if (std::abs(a - b) > 1e-9 * (std::abs(a) + std::abs(b)))
                return fitRefused(equation.span, "This equation is not linear in " + listOf(line.unknowns) + ".",
                                  "only sums of multiples of the coefficients can be fitted");
        }
        slopes.push_back(here.columns[0]);
    }
    Column weights;
    if (line.weights) {
        const ColumnAnswer found = columnsOf(page, line.weights);
        if (found.columns.empty()) return {{}, {}, 0, found.problems};
        if (found.columns.size() > 1 || (found.columns[0]->size() != 1 && found.columns[0]->size() != length))
            return fitRefused(line.weights->span, "The weights of a fit are a column, one for each row.");
        weights = found.columns[0];
        if (std::ranges::any_of(*weights, [](double weight) { return weight < 0 || std::isinf(weight); }))
            return fitRefused(line.weights->span, "Weights are finite numbers, zero or positive.",
                              "write 1/u^2 for rows with the standard uncertainty u");
    }
    std::vector<std::size_t> rows;
    for (std::size_t i = 0; i < length; ++i) {
        const bool weighs = !weights || at(weights, i) > 0;
        const bool counts = weighs && std::isfinite(at(rest.columns[0], i)) &&
                            std::ranges::all_of(slopes, [&](const Column& each) { return std::isfinite(at(each, i)); });
        if (counts) rows.push_back(i);
    }
    const std::size_t count = line.unknowns.size();
    if (rows.size() < count)
        return fitRefused(line.nameSpan,
                          std::to_string(count) + " coefficients need as many rows at least; " +
                              std::to_string(rows.size()) + " have a value in everything that is fitted.",
                          "take fewer coefficients");
    Eigen::MatrixXd matrix(static_cast<Eigen::Index>(rows.size()), static_cast<Eigen::Index>(count));
    Eigen::VectorXd right(static_cast<Eigen::Index>(rows.size()));
    for (std::size_t i = 0; i < rows.size(); ++i) {
        // Squares of residuals weigh so much.
        const double scale = weights ? std::sqrt(at(weights, rows[i])) : 1;
        right(static_cast<Eigen::Index>(i)) = -at(rest.columns[0], rows[i]) * scale;
        for (std::size_t k = 0; k < count; ++k)
            matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(k)) = at(slopes[k], rows[i]) * scale;
    }
    const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> decomposition(matrix);
    const auto size = static_cast<Eigen::Index>(count);
    const auto pivots = decomposition.matrixR().diagonal().cwiseAbs();
    if (decomposition.rank() < size || pivots.maxCoeff() > worstConditionOfFit * pivots.minCoeff())
        return fitRefused(line.nameSpan, "These rows do not determine " + listOf(line.unknowns) + ".",
                          "one of the terms is a multiple of the others in all of them");
    const Eigen::VectorXd found = decomposition.solve(right);
    Fitted fitted{{found.data(), found.data() + count}, std::vector<double>(count, HUGE_VAL), rows.size(), {}};
    if (rows.size() == count) return fitted;
    const double variance = (matrix * found - right).squaredNorm() / static_cast<double>(rows.size() - count);
    const Eigen::MatrixXd inverse = decomposition.matrixR()
                                        .topLeftCorner(size, size)
                                        .triangularView<Eigen::Upper>()
                                        .solve(Eigen::MatrixXd::Identity(size, size));
    for (Eigen::Index k = 0; k < size; ++k) {
        const auto which = static_cast<std::size_t>(decomposition.colsPermutation().indices()(k));
        fitted.errors[which] = std::sqrt(variance * inverse.row(k).squaredNorm());
    }
    return fitted;
}

} // namespace coulter
