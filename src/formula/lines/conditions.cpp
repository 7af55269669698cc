#include "formula/lines/conditions.h"

#include "formula/algebra/derivative.h"
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"

#include <Eigen/LU>
#include <cmath>

namespace coulter {
namespace {

/// Beyond this ratio of largest to smallest pivot fewer than three digits are left.
constexpr double worstCondition = 1e13;

double valueAt(const Program& program, const std::vector<double>& at) {
    std::vector<const double*> inputs;
    for (const double& each : at) inputs.push_back(&each);
    double value = 0;
    double* out = &value;
    Evaluator evaluator(program);
    evaluator(inputs, std::span<double* const>(&out, 1), 1);
    return value;
}

Problem problemAt(Span span, std::string sentence, std::string suggestion = "") {
    return {-1, span.first, span.last, std::move(sentence), std::move(suggestion)};
}

} // namespace

std::string listOf(const std::vector<std::string>& names) {
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i)
        text += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return text;
}

Solved solveConditions(const Page& page, const Line& line) {
    const auto count = static_cast<Eigen::Index>(line.unknowns.size());
    if (line.equations.size() != line.unknowns.size()) {
        return {{},
                {problemAt(line.nameSpan, std::to_string(line.unknowns.size()) +
                                              " unknowns need as many conditions; here are " +
                                              std::to_string(line.equations.size()) + ".")}};
    }
    Eigen::MatrixXd matrix(count, count);
    Eigen::VectorXd right(count);
    const std::vector<double> zero(line.unknowns.size(), 0);
    std::vector<double> elsewhere;
    for (std::size_t i = 0; i < zero.size(); ++i) elsewhere.push_back(1.375 + 0.71 * static_cast<double>(i));
    for (Eigen::Index i = 0; i < count; ++i) {
        const Expr& equation = *line.equations[static_cast<std::size_t>(i)];
        const ExprPtr difference =
            withBrackets(nodeExpr(ExprKind::Subtract, {equation.operands[0], equation.operands[1]}));
        const Compiled residual = compile(page, difference, line.unknowns);
        if (!residual.program) return {{}, residual.problems};
        if (residual.program->outputs.size() != 1)
            return {{},
                    {problemAt(equation.span, "A condition compares numbers, not vectors.",
                               "write one for each component")}};
        right(i) = -valueAt(*residual.program, zero);
        for (Eigen::Index k = 0; k < count; ++k) {
            const std::string& unknown = line.unknowns[static_cast<std::size_t>(k)];
            const Derived slope = derivative(page, difference, unknown);
            const Compiled compiled = slope.expression ? compile(page, slope.expression, line.unknowns) : Compiled{};
            if (!compiled.program)
                return {{},
                        {problemAt(equation.span, "This condition cannot be solved for " + unknown + ".",
                                   "write it as a sum of multiples of the unknowns")}};
            matrix(i, k) = valueAt(*compiled.program, zero);
            const double other = valueAt(*compiled.program, elsewhere);
            if (std::isnan(matrix(i, k)) || std::isinf(matrix(i, k)) || std::isnan(right(i)))
                return {{}, {problemAt(equation.span, "This condition is undefined.")}};
            if (!(std::abs(other - matrix(i, k)) <= 1e-9 * (std::abs(other) + std::abs(matrix(i, k)))))
                return {{},
                        {problemAt(equation.span, "This condition is not linear in " + listOf(line.unknowns) + ".",
                                   "only sums of multiples of the unknowns can be solved")}};
        }
    }
    const Eigen::FullPivLU<Eigen::MatrixXd> decomposition(matrix);
    const auto pivots = decomposition.matrixLU().diagonal().cwiseAbs();
    if (!decomposition.isInvertible() || pivots.maxCoeff() > worstCondition * pivots.minCoeff()) {
        return {{},
                {problemAt(line.nameSpan, "These conditions do not determine " + listOf(line.unknowns) + ".",
                           "one of them says the same as the others, or contradicts them")}};
    }
    const Eigen::VectorXd found = decomposition.solve(right);
    return {{found.data(), found.data() + found.size()}, {}};
}

} // namespace coulter
