// What a referee asks of the scales.
#include "composition/referee.h"
#include "drawing/places_on_sheet.h"
#include "figure/scale_settings.h"
#include "plots/plot_kind.h"
#include "plots/telling.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>
#include <span>
#include <tbb/blocked_range.h>
#include <tbb/parallel_reduce.h>

namespace coulter {
namespace {

constexpr const char* scaleWords[] = {"horizontal scale", "vertical scale", "scale of colours", "upright scale"};

/// The scales of a panel that are shown with numbers.
std::vector<std::size_t> shownScales(const PanelFigure& panel) {
    const Frame& frame = panel.frame();
    if (frame.polar) return {upScale};
    std::vector<std::size_t> scales{acrossScale, upScale};
    if (frame.space) scales.push_back(uprightScale);
    if (panel.layout.colours.shown) scales.push_back(colourScale);
    return scales;
}

std::string labelOf(const PanelFigure& panel, std::size_t scale) {
    const PanelLabels& labels = panel.layout.labels;
    return scale == acrossScale   ? labels.across
           : scale == upScale     ? labels.up
           : scale == colourScale ? labels.colour
                                  : labels.upright;
}

/// Every scale of every panel that is shown.
template <typename Look> void eachScale(const Figure& figure, const Look& look) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const PanelFigure& panel = figure.panels[p];
        if (panel.drawn.empty()) continue;
        for (const std::size_t scale : shownScales(panel)) {
            const ItemPath path{ItemKind::Scale, p, scale, 0};
            if (const Axis* axis = axisAt(figure.document, path)) look(panel, path, *axis);
        }
    }
}

Document withLabel(const Figure& figure, const ItemPath& path, std::optional<std::string> label) {
    return changed(figure, [&](Document& document) { axisAt(document, path)->label = std::move(label); });
}

/// What plots call themselves on the vertical scale, side by side.
std::string symbolsOf(const PanelFigure& panel) {
    std::set<std::string> formulas;
    for (const Drawn& drawn : panel.drawn) {
        if (drawn.scale == 0) formulas.insert(drawn.of.substr(0, drawn.of.find(" for ")));
    }
    std::string all;
    for (const std::string& each : formulas) all += (all.empty() ? "$" : ", $") + each + "$";
    return all;
}

void unlabelled(const Figure& figure, std::vector<Finding>& found) {
    eachScale(figure, [&](const PanelFigure& panel, const ItemPath& path, const Axis& axis) {
        if (!labelOf(panel, path.index).empty() || axis.label) return; // taken away by hand: it was meant so
        const bool isUp = path.index == upScale && !panel.frame().polar;
        const std::string label = isUp ? symbolsOf(panel) : "";
        found.push_back(findingOf("The " + std::string(scaleWords[path.index]) + " has no label.", path,
                                  label.empty() ? "" : "Label it with what is drawn",
                                  label.empty() ? std::nullopt : std::optional(withLabel(figure, path, label))));
    });
}

/// The unit that a label ends in, behind its last solidus; empty if there is none.
std::string unitIn(const std::string& label) {
    const auto at = label.rfind(" / ");
    if (at == std::string::npos) return "";
    std::string unit = label.substr(at + 3);
    std::erase_if(unit, [](char c) { return c == '(' || c == ')' || c == ' '; });
    return unit;
}

std::string spaceless(std::string text) {
    std::erase_if(text, [](char c) { return c == ' ' || c == '(' || c == ')'; });
    return text;
}

void unitMissing(const Figure& figure, std::vector<Finding>& found) {
    eachScale(figure, [&](const PanelFigure& panel, const ItemPath& path, const Axis& axis) {
        const std::string& unit = panel.layout.rules[path.index].unit;
        if (!axis.label || axis.label->empty() || unit.empty() || unit == "1") return;
        // Any mention of it will do.
        if (spaceless(*axis.label).find(spaceless(printedUnit(unit))) != std::string::npos ||
            !unitIn(*axis.label).empty())
            return;
        found.push_back(findingOf("The label of the " + std::string(scaleWords[path.index]) +
                                      " names no unit, and its numbers are in " + printedUnit(unit) + ".",
                                  path, "Add the unit",
                                  withLabel(figure, path, *axis.label + " / " + printedUnit(unit))));
    });
}

void contradictingLabel(const Figure& figure, std::vector<Finding>& found) {
    eachScale(figure, [&](const PanelFigure& panel, const ItemPath& path, const Axis& axis) {
        if (!axis.label) return;
        const std::string said = unitIn(*axis.label), unit = panel.layout.rules[path.index].unit;
        if (said.empty() || unit.empty() || said == spaceless(printedUnit(unit)) || said == spaceless(unit)) return;
        found.push_back(findingOf("The label of the " + std::string(scaleWords[path.index]) + " says “" + said +
                                      "”, and its numbers are in " + printedUnit(unit) + ".",
                                  path, "Derive the label from what is drawn", withLabel(figure, path, std::nullopt)));
    });
}

void unequalScales(const Figure& figure, std::vector<Finding>& found) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const Panel& panel = figure.document.panels[p];
        if (!panel.equalScales || *panel.equalScales || !figure.panels[p].frame().isPlane()) continue;
        const bool round = std::ranges::any_of(figure.panels[p].drawn, [](const Drawn& drawn) {
            const Curve* curve = curveOf(drawn);
            return curve && !curve->isFunction();
        });
        if (!round) continue;
        found.push_back(
            findingOf("A curve of the plane is drawn on scales that are not equal: a circle would be an ellipse.",
                      {ItemKind::Panel, p, 0, 0}, "Make the scales equal",
                      changed(figure, [&](Document& d) { d.panels[p].equalScales.reset(); })));
    }
}

void outsideLimits(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        if (!panel.frame().isPlane()) continue;
        for (const Drawn& drawn : panel.drawn) {
            const Columns* columns = columnsOf(drawn);
            if (!columns || columns->along[0] < 0 || columns->along[1] < 0) continue;
            const Frame frame = panel.frameOf(drawn);
            const auto &x = *columns->numbers[static_cast<std::size_t>(columns->along[0])],
                       &y = *columns->numbers[static_cast<std::size_t>(columns->along[1])];
            const Rect room = frame.rect.grown(0.05);
            const double right = room.right(), bottom = room.bottom();
            const auto isNumber = [](double value) -> unsigned { return std::abs(value) < HUGE_VAL ? 1 : 0; };
            struct Counts {
                std::size_t lost = 0, all = 0;
            };
            // On all cores: there may be millions of them, and a hand moves the panel.
            const auto [lost, all] = tbb::parallel_reduce(
                tbb::blocked_range<std::size_t>(0, x.size(), 65'536), Counts{},
                [&](const auto& range, Counts counts) {
                    std::array<Point, 512> places;
                    for (std::size_t begin = range.begin(); begin < range.end(); begin += places.size()) {
                        const std::size_t count = std::min(places.size(), range.end() - begin);
                        const auto xs = std::span(x).subspan(begin, count), ys = std::span(y).subspan(begin, count);
                        placesOnSheet(frame, xs, ys, {places.data(), count});
                        for (std::size_t i = 0; i < count; ++i) { // without a branch
                            const Point p = places[i];
                            const unsigned isRow = isNumber(xs[i]) & isNumber(ys[i]),
                                           hasPlace = isNumber(p.x) & isNumber(p.y),
                                           isOutside = unsigned(p.x < room.x) | unsigned(p.x > right) |
                                                       unsigned(p.y < room.y) | unsigned(p.y > bottom);
                            counts.all += isRow;
                            counts.lost += isRow & hasPlace & isOutside;
                        }
                    }
                    return counts;
                },
                [](const Counts& a, const Counts& b) {
                    return Counts{a.lost + b.lost, a.all + b.all};
                });
            if (lost == 0) continue;
            const std::size_t index = drawn.path.panel;
            found.push_back(findingOf(std::to_string(lost) + " of " + std::to_string(all) + " points of " +
                                          nameOf(drawn) + " lie outside the panel.",
                                      drawn.path, "Show all of them", changed(figure, [&](Document& d) {
                                          d.panels[index].x.limits.reset();
                                          d.panels[index].y.limits.reset();
                                          for (Axis& axis : d.panels[index].further) axis.limits.reset();
                                      })));
        }
    }
}

/// How many values along a scale, up to one; of a family whose colours say its values those of all members, counted
/// with the first of them.
std::size_t countAlong(const PanelFigure& panel, const Drawn& drawn, std::size_t scale, std::optional<double> upTo) {
    if (scale != colourScale || !drawn.caseValue) return valuesAlong(drawn, scale, upTo);
    std::size_t count = 0;
    for (const Drawn& member : panel.drawn) {
        if (member.path.index != drawn.path.index || !member.caseValue) continue;
        if (member.path.part < drawn.path.part) return 0;
        count += !upTo || *member.caseValue <= *upTo;
    }
    return count;
}

void coloursCut(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            const Axis& axis = figure.document.panels[drawn.path.panel].colour;
            if (!(fieldSamplesOf(drawn) || drawn.caseValue) || !showsByColours(drawn) || !axis.limits ||
                !panel.layout.colours.shown)
                continue;
            const std::size_t all = countAlong(panel, drawn, colourScale, {}),
                              low = countAlong(panel, drawn, colourScale,
                                               std::nextafter(panel.frame().colour.low, -HUGE_VAL)),
                              high = all - countAlong(panel, drawn, colourScale, panel.frame().colour.high);
            const double share = all == 0 ? 0 : static_cast<double>(low + high) / static_cast<double>(all);
            if (share < 0.001) continue;
            found.push_back(
                findingOf("The scale of colours leaves out " + printedNumber(100 * share, 2) + " % of the values of " +
                              nameOf(drawn) + ".",
                          {ItemKind::Scale, drawn.path.panel, colourScale, 0}, "Show all values",
                          changed(figure, [&](Document& d) { d.panels[drawn.path.panel].colour.limits.reset(); })));
        }
    }
}

void notOnLogarithm(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            for (const std::size_t scale : {acrossScale, upScale, uprightScale, colourScale}) {
                const bool onFirst =
                    scale == colourScale ? showsByColours(drawn) : scale != upScale || drawn.scale == 0;
                if (panel.layout.rules[scale].ticks.kind != ScaleKind::Logarithmic || !onFirst) continue;
                const std::size_t all = countAlong(panel, drawn, scale, {}),
                                  lost = countAlong(panel, drawn, scale, 0.0);
                if (lost == 0) continue;
                const ItemPath path{ItemKind::Scale, drawn.path.panel, scale, 0};
                found.push_back(findingOf(drawn.of + ": " + std::to_string(lost) + " of " + std::to_string(all) +
                                              " values are not positive and have no place on the logarithmic " +
                                              scaleWords[scale] + ".",
                                          drawn.path, "Make the scale linear", changed(figure, [&](Document& d) {
                                              Axis& axis = *axisAt(d, path);
                                              axis.scale = ScaleKind::Linear;
                                              axis.limits.reset();
                                          })));
            }
        }
    }
}

} // namespace

extern const Check unlabelledCheck{"no label", "a scale without a label", unlabelled};
extern const Check unitMissingCheck{"unit missing", "a label by hand that names no unit where there is one",
                                    unitMissing};
extern const Check contradictingLabelCheck{"wrong unit", "a label by hand with another unit than its numbers have",
                                           contradictingLabel};
extern const Check unequalScalesCheck{"unequal scales", "a curve of the plane on scales that are not equal",
                                      unequalScales};
extern const Check outsideLimitsCheck{"outside the limits", "points of columns that the limits leave out",
                                      outsideLimits};
extern const Check coloursCutCheck{"colours cut", "values beyond the limits of the scale of colours", coloursCut};
extern const Check notOnLogarithmCheck{"dropped by a logarithm", "values that a logarithmic scale has no place for",
                                       notOnLogarithm};

} // namespace coulter
