#include "figure/curves.h"

#include "figure/plane.h"
#include "formula/text.h"
#include "typeset/formula_math.h"

#include <algorithm>

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

FixedValues caseValues(const Plotted& plotted, std::size_t index) {
    FixedValues fixed;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k) fixed[plotted.caseNames[k]] = plotted.cases[index][k];
    return fixed;
}

class PlotReader {
public:
    PlotReader(const Page& page, const Panel& panel, PanelCurves& result)
        : page_(page), panel_(panel), result_(result) {}

    void run() {
        std::vector<Plotted> plots;
        for (const Plot& plot : panel_.plots) {
            plots.push_back(readPlot(page_, plot));
            result_.problems.push_back(plots.back().problems);
        }
        scales(plots);
        for (std::size_t p = 0; p < plots.size(); ++p) {
            if (!plots[p].expression) continue;
            if (panel_.plots[p].kind == PlotKind::Heatmap)
                field(p, plots[p]);
            else
                curves(p, plots[p]);
        }
    }

private:
    const Line& variableLine(const std::string& name) const { return *page_.find(name, LineKind::Variable); }

    void refuse(std::size_t p, const Plotted& plotted, std::string sentence, std::string suggestion) {
        const Span place = plotted.expression->span;
        result_.problems[p].push_back({-1, place.first, place.last, std::move(sentence), std::move(suggestion)});
    }

    /// A scale is what it was set to; else that of a variable that is sampled by its logarithm.
    void scales(const std::vector<Plotted>& plots) {
        for (std::size_t p = 0; p < plots.size(); ++p) {
            if (!plots[p].expression) continue;
            const Plot& plot = panel_.plots[p];
            const auto kind = [&](const std::string& name) {
                const Line& line = variableLine(name);
                const bool shown = line.grid.logarithmic && line.interval.low > 0; // a scale has no place below zero
                return shown ? ScaleKind::Logarithmic : ScaleKind::Linear;
            };
            if (plot.kind == PlotKind::Heatmap) {
                const auto order = acrossAndUp(plot, plots[p]);
                result_.xScale = kind(order[0]);
                result_.yScale = kind(order[1]);
            } else if (plot.kind == PlotKind::Line && componentCount(page_, plots[p]) == 1) {
                result_.xScale = kind(plots[p].variables[0]);
            }
        }
        if (panel_.x.scale) result_.xScale = *panel_.x.scale;
        if (panel_.y.scale) result_.yScale = *panel_.y.scale;
    }

    static std::array<std::string, 2> acrossAndUp(const Plot& plot, const Plotted& plotted) {
        std::array<std::string, 2> order{plotted.variables[0], plotted.variables[1]};
        if (plot.across == order[1]) std::swap(order[0], order[1]);
        return order;
    }

    void curves(std::size_t p, const Plotted& plotted) {
        const Plot& plot = panel_.plots[p];
        const std::string& variable = plotted.variables[0];
        const std::size_t count = std::max<std::size_t>(1, plotted.cases.size());
        const std::size_t components = componentCount(page_, plotted);
        if (plot.kind == PlotKind::Polar && components > 1) {
            refuse(p, plotted, "A polar plot draws a radius over an angle, and this is a vector.", "plot it as a line");
            return;
        }
        const Plane plane{page_, panel_, result_.xScale, result_.yScale};
        const bool polar = plot.kind == PlotKind::Polar;
        const ProofExpressions proof = components == 3   ? ProofExpressions{}
                                       : polar           ? polarProof(plane, plotted.expression, variable)
                                       : components == 2 ? vectorProof(plane, plotted.expression, variable)
                                                         : functionProof(plane, plotted.expression, variable);
        const ExprPtr drawn = polar ? polarPoint(plotted.expression, variable) : plotted.expression;
        for (std::size_t c = 0; c < count; ++c) {
            const FixedValues fixed = caseValues(plotted, c);
            const auto compiled = [&](const ExprPtr& e) {
                return e ? compile(page_, e, std::span(&variable, 1), fixed).program : nullptr;
            };
            Compiled point = compile(page_, drawn, std::span(&variable, 1), fixed);
            if (!point.program) {
                result_.problems[p] = point.problems;
                break;
            }
            Curve curve;
            curve.plot = p;
            curve.caseIndex = c;
            curve.caseCount = count;
            curve.program = std::move(point.program);
            curve.position = compiled(proof.position);
            curve.bend = compiled(proof.bend);
            if (components == 3) {
                curve.inSpace = curve.program;
                curve.program = seenFrom(panel_.view, *curve.inSpace);
                curve.position = curve.program;
                const ExprPtr bend = secondDerivative(page_, plotted.expression, variable);
                if (const auto inSpace = compiled(bend)) curve.bend = seenFrom(panel_.view, *inSpace);
            }
            curve.variable = variable;
            curve.interval = variableLine(variable).interval;
            curve.grid = variableLine(variable).grid;
            curve.entry = plotted.caseNames.empty() ? formulaMath(*plotted.expression) : caseEntry(page_, plotted, c);
            result_.curves.push_back(std::move(curve));
        }
    }

    void field(std::size_t p, const Plotted& plotted) {
        if (plotted.cases.size() > 1) {
            refuse(p, plotted, "A heatmap shows one case; several would cover each other.",
                   "leave one case in the list");
            return;
        }
        Field field;
        field.plot = p;
        field.variables = acrossAndUp(panel_.plots[p], plotted);
        const FixedValues fixed = plotted.cases.empty() ? FixedValues{} : caseValues(plotted, 0);
        Compiled compiled = compile(page_, plotted.expression, field.variables, fixed);
        if (!compiled.program) {
            result_.problems[p] = compiled.problems;
            return;
        }
        field.program = std::move(compiled.program);
        for (std::size_t k = 0; k < 2; ++k) {
            field.intervals[k] = variableLine(field.variables[k]).interval;
            field.grids[k] = variableLine(field.variables[k]).grid;
        }
        result_.fields.push_back(std::move(field));
    }

    const Page& page_;
    const Panel& panel_;
    PanelCurves& result_;
};

} // namespace

std::string PanelCurves::acrossVariable() const {
    if (!fields.empty()) return fields[0].variables[0];
    for (const Curve& curve : curves) {
        if (curve.isFunction()) return curve.variable;
    }
    return "";
}

std::string PanelCurves::upVariable() const { return fields.empty() ? "" : fields[0].variables[1]; }

bool PanelCurves::hasSpaceCurve() const {
    return std::ranges::any_of(curves, [](const Curve& curve) { return curve.inSpace != nullptr; });
}

Plotted readPlot(const Page& page, const Plot& plot) {
    return readPlotted(page, plot.of, plot.kind == PlotKind::Heatmap ? 2 : 1);
}

PanelCurves readCurves(const Page& page, const Panel& panel) {
    PanelCurves result;
    PlotReader(page, panel, result).run();
    return result;
}

} // namespace coulter
