#include "plots/curve_programs.h"

#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"

#include <algorithm>

namespace coulter {
namespace {

ExprPtr vectorExpr(ExprPtr a, ExprPtr b) {
    std::vector<ExprPtr> operands;
    operands.push_back(std::move(a));
    operands.push_back(std::move(b));
    return nodeExpr(ExprKind::Vector, std::move(operands));
}

ExprPtr cosineOrSine(const char* name, const std::string& angle) {
    std::vector<ExprPtr> operands;
    operands.push_back(nameExpr(angle));
    return callExpr(name, std::move(operands));
}

} // namespace

std::size_t componentCount(const Page& page, const Plotted& plotted) {
    FixedValues fixed;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k)
        fixed[plotted.caseNames[k]] = plotted.cases.empty() ? 0 : plotted.cases[0][k];
    if (plotted.isColumn) return std::max<std::size_t>(1, columnsOf(page, plotted.expression, fixed).columns.size());
    const Compiled compiled = compile(page, plotted.expression, plotted.variables, fixed);
    return compiled.program ? compiled.program->outputs.size() : 1;
}

ExprPtr polarPoint(const ExprPtr& radius, const std::string& angle) {
    return withBrackets(vectorExpr(radius * cosineOrSine("cos", angle), radius * cosineOrSine("sin", angle)));
}

} // namespace coulter
