#include "plots/differences.h"

#include "formula/notation/expr_build.h"
#include "plots/plot_kind.h"

namespace coulter {
namespace {

/// A plot that is one number along one variable, or two columns side by side.
struct Operand {
    const Plot* plot = nullptr;
    Plotted plotted;
    bool isColumns = false;
};

std::optional<Operand> operandOf(const Page& page, const Plot& plot) {
    const PlotKind* kind = findPlotKind(plot.kind);
    if (!kind || kind->runs != Runs::Along) return std::nullopt;
    Operand operand{&plot, readPlotted(page, plot.of), false};
    const Plotted& read = operand.plotted;
    if (!read.expression || read.condition || !read.caseNames.empty()) return std::nullopt;
    operand.isColumns = read.isColumn;
    if (read.isColumn)
        return read.expression->kind == ExprKind::Vector && read.expression->operands.size() == 2
                   ? std::optional(operand)
                   : std::nullopt;
    const auto signature = signatureOf(page, plot);
    return signature && signature->components == 1 && read.variables.size() == 1 ? std::optional(operand)
                                                                                 : std::nullopt;
}

} // namespace

std::vector<Plot> differencesOf(const Page& page, const Panel& panel) {
    std::vector<Operand> curves, readings;
    for (const Plot& plot : panel.plots) {
        if (auto operand = operandOf(page, plot)) (operand->isColumns ? readings : curves).push_back(*operand);
    }
    std::vector<Plot> differences;
    if (curves.empty()) return differences;
    const Operand& first = curves[0];
    const ExprPtr& f = first.plotted.expression;
    const auto add = [&](const Plot& like, const ExprPtr& expression) {
        Plot plot = like;
        plot.of = spelled(*withBrackets(expression));
        plot.name.reset();
        plot.scale = 0;
        plot.finer.clear();
        differences.push_back(std::move(plot));
    };
    for (const Operand& other : readings) {
        const std::vector<ExprPtr>& at = other.plotted.expression->operands;
        add(*other.plot, nodeExpr(ExprKind::Vector, {at[0], at[1] - substitute(f, first.plotted.variables[0], at[0])}));
    }
    for (std::size_t i = 1; i < curves.size(); ++i) {
        if (curves[i].plotted.variables == first.plotted.variables)
            add(*curves[i].plot, curves[i].plotted.expression - f);
    }
    return differences;
}

} // namespace coulter
