// What a referee asks of units.
#include "composition/referee.h"
#include "formula/algebra/unit_inference.h"
#include "formula/base/text.h"
#include "formula/lines/plotted.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/units.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"
#include "typeset/words.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// A plot of a panel with what it is called on a scale.
struct Measured {
    ItemPath path;
    Plotted plotted;
    bool across = false;
    std::string unit;

    /// Of a pair of columns the one that lies along the scale.
    std::size_t component() const {
        return plotted.expression->kind == ExprKind::Vector && !across ? plotted.expression->operands.size() - 1 : 0;
    }
    const ExprPtr& coordinate() const {
        return plotted.expression->kind == ExprKind::Vector ? plotted.expression->operands[component()]
                                                            : plotted.expression;
    }
};

/// The plots of a panel that share one scale and have a unit along it.
std::vector<Measured> alongScale(const Figure& figure, std::size_t panel, const PanelReading& reading, bool across,
                                 std::size_t scale) {
    std::vector<Measured> all;
    const auto& plots = figure.document.panels[panel].plots;
    for (std::size_t i = 0; i < std::min(plots.size(), reading.words.size()); ++i) {
        const ScaleWord& word = across ? reading.words[i].across : reading.words[i].up;
        if ((!across && plots[i].scale != scale) || word.unit.empty() || word.unit == "1") continue;
        Measured one{{ItemKind::Plot, panel, i, 0}, readPlotted(figure.page, plots[i].of, 1), across, word.unit};
        if (one.plotted.expression) all.push_back(std::move(one));
    }
    return all;
}

/// The document in which a column is drawn in another unit: a new line of the page computes it.
std::optional<Document> converted(const Figure& figure, const Measured& plot, const std::string& unit) {
    const auto conversion = unitConversion(plot.unit, unit);
    if (!conversion || !plot.plotted.isColumn || !plot.plotted.caseNames.empty()) return std::nullopt;
    const ExprPtr from = plot.coordinate();
    const double over = 1 / conversion->factor;
    const bool divides = std::abs(over - std::round(over)) < 1e-9 * over && over > 1;
    ExprPtr formula = divides ? from / numberExpr(std::round(over)) : numberExpr(conversion->factor) * from;
    if (conversion->offset != 0) formula = formula + numberExpr(conversion->offset);
    const std::string letter = from->kind == ExprKind::Name ? nameParts(from->text).letter : "q";
    std::string name;
    for (int i = 1; name.empty() || figure.page.defined.contains(name); ++i) name = letter + "_" + std::to_string(i);
    const ExprPtr& whole = plot.plotted.expression;
    ExprPtr drawn = nameExpr(name);
    if (whole->kind == ExprKind::Vector) {
        std::vector<ExprPtr> operands = whole->operands;
        operands[plot.component()] = drawn;
        drawn = withOperands(*whole, std::move(operands));
    }
    const std::string label = from->kind == ExprKind::Name ? figure.page.labelOf(from->text) : "";
    return changed(figure, [&](Document& document) {
        document.page.push_back(spelledName(name) + " = " + spelled(*withBrackets(formula)) + ", unit " + unit +
                                (label.empty() ? "" : ", label \"" + label + "\""));
        document.panels[plot.path.panel].plots[plot.path.index].of = spelled(*drawn);
    });
}

void otherUnits(const Figure& figure, std::vector<Finding>& found) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        if (figure.panels[p].frame().space || figure.panels[p].frame().polar) continue;
        const PanelReading reading =
            readPlots(figure.page, figure.document.panels[p], p, rulesOf(figure.document.format));
        const std::size_t scales = 1 + figure.document.panels[p].further.size();
        for (std::size_t k = 0; k <= scales; ++k) {
            const bool across = k == scales;
            const std::vector<Measured> all = alongScale(figure, p, reading, across, k);
            for (std::size_t i = 1; i < all.size(); ++i) {
                const auto conversion = unitConversion(all[i].unit, all[0].unit);
                if (conversion && conversion->isNone()) continue;
                const auto name = [&](const Measured& each) {
                    return "“" + figure.document.panels[p].plots[each.path.index].of + "”";
                };
                std::optional<Document> fixed = converted(figure, all[i], all[0].unit);
                found.push_back(findingOf(name(all[i]) + " is in " + printedUnit(all[i].unit) + ", and " +
                                              name(all[0]) + " on the same " + (across ? "horizontal" : "vertical") +
                                              " scale is in " + printedUnit(all[0].unit) + ".",
                                          all[i].path, fixed ? "Draw it in " + printedUnit(all[0].unit) : "", fixed));
            }
        }
    }
}

void unitsInPlots(const Figure& figure, std::vector<Finding>& found) {
    for (std::size_t p = 0; p < figure.document.panels.size(); ++p) {
        const auto& plots = figure.document.panels[p].plots;
        for (std::size_t i = 0; i < plots.size(); ++i) {
            for (std::size_t variables = 1; variables <= 2; ++variables) {
                const Plotted plotted = readPlotted(figure.page, plots[i].of, variables);
                if (!plotted.expression) continue;
                for (const Problem& problem : unitProblems(figure.page, plotted.expression)) {
                    Finding finding =
                        findingOf("“" + plots[i].of + "”: " + problem.sentence, {ItemKind::Plot, p, i, 0});
                    if (problem.remedy) {
                        finding.remedy = "Write the factor";
                        finding.fixed = changed(figure, [&](Document& document) {
                            std::string& of = document.panels[p].plots[i].of;
                            const std::u32string letters = decodeUtf8(of);
                            const auto at = static_cast<std::size_t>(problem.remedy->first - 1);
                            of = encodeUtf8(letters.substr(0, at)) + problem.remedy->text +
                                 encodeUtf8(letters.substr(at));
                        });
                    }
                    found.push_back(std::move(finding));
                }
                break;
            }
        }
    }
}

} // namespace

extern const Check otherUnitsCheck{"other units", "plots on one scale have different units", otherUnits};
extern const Check unitsInPlotsCheck{"units in a plot", "what is drawn adds or compares different units", unitsInPlots};

} // namespace coulter
