#include "figure/curves.h"

#include "formula/derivative.h"
#include "formula/text.h"
#include "typeset/formula_math.h"

namespace coulter {
namespace {

/// "z = 0.5 m": names and values of one case, with the units their lines on the page give.
MathPtr caseEntry(const Page& page, const Plotted& plotted, std::size_t index) {
    std::vector<MathPtr> parts;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k) {
        if (k > 0) {
            parts.push_back(mathSymbol(",", MathClass::Punctuation));
            parts.push_back(mathSpace(0.2));
        }
        const std::string& name = plotted.caseNames[k];
        parts.push_back(nameMath(name));
        parts.push_back(mathSymbol("=", MathClass::Relation));
        parts.push_back(formulaMath(*plotted.spelled[index][k]));
        if (const auto line = page.defined.find(name); line != page.defined.end()) {
            const std::string& unit = page.lines[line->second].unit;
            if (!unit.empty() && unit != "1") {
                parts.push_back(mathSpace(0.22));
                parts.push_back(unitMath(unit));
            }
        }
    }
    return mathRow(std::move(parts));
}

} // namespace

PanelCurves readCurves(const Page& page, const Panel& panel) {
    PanelCurves result;
    for (std::size_t p = 0; p < panel.plots.size(); ++p) {
        Plotted plotted = readPlotted(page, panel.plots[p].of);
        result.problems.push_back(plotted.problems);
        if (!plotted.expression) continue;
        const Line& variable = *page.find(plotted.variable, LineKind::Variable);
        const std::size_t count = std::max<std::size_t>(1, plotted.cases.size());
        const ExprPtr bend = derivative(page, plotted.expression, plotted.variable, 2).expression;
        for (std::size_t c = 0; c < count; ++c) {
            FixedValues fixed;
            for (std::size_t k = 0; k < plotted.caseNames.size(); ++k)
                fixed[plotted.caseNames[k]] = plotted.cases[c][k];
            Compiled compiled = compile(page, plotted.expression, std::span(&plotted.variable, 1), fixed);
            if (!compiled.program) {
                result.problems.back() = compiled.problems;
                break;
            }
            if (compiled.program->outputs.size() != 1) {
                const Span place = plotted.expression->span;
                result.problems.back().push_back({-1, place.first, place.last,
                                                  "A vector cannot be drawn over one axis.",
                                                  "plot one of its components"});
                break;
            }
            Curve curve;
            curve.plot = p;
            curve.caseIndex = c;
            curve.caseCount = count;
            curve.program = std::move(compiled.program);
            if (bend) curve.second = compile(page, bend, std::span(&plotted.variable, 1), fixed).program;
            curve.variable = plotted.variable;
            curve.interval = variable.interval;
            curve.grid = variable.grid;
            curve.entry = plotted.caseNames.empty() ? formulaMath(*plotted.expression) : caseEntry(page, plotted, c);
            result.curves.push_back(std::move(curve));
        }
    }
    return result;
}

} // namespace coulter
