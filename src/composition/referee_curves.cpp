// What a referee asks of the curves.
#include "composition/referee.h"
#include "drawing/nearness.h"
#include "figure/edits.h"
#include "plots/common_settings.h"
#include "plots/plot_kind.h"
#include "plots/telling.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Curves farther apart than this are told from each other, mm.
constexpr double visible = 0.1;

bool isFunctionOnPlane(const Drawn& drawn, const PanelFigure& panel) {
    const Curve* curve = curveOf(drawn);
    return curve && curve->isFunction() && curveSamplesOf(drawn) && panel.frame().isPlane();
}

/// The largest distance in mm between two functions where both are drawn, at some of their points; none if they share
/// no place.
std::optional<double> largestDistance(const Drawn& a, const Drawn& b, const PanelFigure& panel) {
    const Curve &f = *curveOf(a), &g = *curveOf(b);
    if (f.variable != g.variable) return std::nullopt;
    const Frame onA = panel.frameOf(a), onB = panel.frameOf(b);
    Evaluator ofF(*f.program), ofG(*g.program);
    const double low = std::max({f.interval.low, g.interval.low, onA.map.x.low}),
                 high = std::min({f.interval.high, g.interval.high, onA.map.x.high});
    if (!(low < high)) return std::nullopt;
    double largest = 0;
    std::size_t seen = 0;
    constexpr int places = 400;
    for (int i = 0; i <= places; ++i) {
        const double x = onA.map.x.fromSheet(onA.map.x.toSheet(low) +
                                             (onA.map.x.toSheet(high) - onA.map.x.toSheet(low)) * i / places);
        const double y = ofF(x), z = ofG(x);
        if (std::isnan(y) != std::isnan(z)) return HUGE_VAL;
        if (std::isnan(y)) continue;
        const double away = std::abs(onA.downSheet(y) - onB.downSheet(z));
        if (std::isnan(away)) continue;
        ++seen;
        largest = std::max(largest, away);
        if (largest > 1) return largest;
    }
    return seen > places / 2 ? std::optional(largest) : std::nullopt;
}

void coinciding(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (std::size_t b = 1; b < panel.drawn.size(); ++b) {
            for (std::size_t a = 0; a < b && b < 60; ++a) {
                const Drawn &one = panel.drawn[a], &other = panel.drawn[b];
                if (!isFunctionOnPlane(one, panel) || !isFunctionOnPlane(other, panel) || one.kind != other.kind ||
                    one.of == other.of)
                    continue;
                const bool told = !haveOnePattern(one, other);
                const auto away = told ? std::nullopt : largestDistance(one, other, panel);
                if (!away || *away > visible) continue;
                found.push_back(findingOf(nameOf(one) + " and " + nameOf(other) +
                                              " coincide: nowhere are they farther apart than " +
                                              printedNumber(std::max(*away, 1e-6), 2) + " mm on the sheet.",
                                          other.path, "Dash the second one", changed(figure, [&](Document& d) {
                                              if (Plot* plot = plotAt(d, other.path))
                                                  set(plot->settings, patternSetting, std::string("dashed"));
                                          })));
                break;
            }
        }
    }
}

/// Whether two plots of a kind differ in their style alone.
bool sameButStyle(const Plot& a, const Plot& b) {
    const PlotKind* kind = findPlotKind(a.kind);
    return kind && std::ranges::all_of(kind->settings, [&](const Setting* setting) {
               const auto find = [&](const Plot& plot) {
                   const auto at = plot.settings.find(setting->key);
                   return at == plot.settings.end() ? std::optional<SettingValue>() : std::optional(at->second);
               };
               return setting->isStyle || find(a) == find(b);
           });
}

void sameTwice(const Figure& figure, std::vector<Finding>& found) {
    for (std::size_t p = 0; p < figure.document.panels.size(); ++p) {
        const std::vector<Plot>& plots = figure.document.panels[p].plots;
        for (std::size_t b = 1; b < plots.size(); ++b) {
            const bool twice =
                std::any_of(plots.begin(), plots.begin() + static_cast<std::ptrdiff_t>(b), [&](const Plot& plot) {
                    return plot.of == plots[b].of && plot.kind == plots[b].kind && sameButStyle(plot, plots[b]);
                });
            if (!twice) continue;
            found.push_back(
                findingOf("“" + plots[b].of + "” is drawn twice as " + plots[b].kind + ".", {ItemKind::Plot, p, b, 0},
                          "Remove the second one", changed(figure, [&](Document& d) {
                              d.panels[p].plots.erase(d.panels[p].plots.begin() + static_cast<std::ptrdiff_t>(b));
                          })));
        }
    }
}

/// How many mm of the panel's height a curve takes.
std::optional<double> heightOf(const Drawn& drawn, const PanelFigure& panel) {
    const CurveSamples* samples = curveSamplesOf(drawn);
    if (!samples) return std::nullopt;
    const Frame frame = panel.frameOf(drawn);
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const Stretch& stretch : samples->stretches) {
        for (std::size_t i = 0; i < stretch.x.size(); ++i) {
            const double y = std::clamp(frame.downSheet(stretch.y[i]), frame.rect.y, frame.rect.bottom());
            low = std::min(low, y);
            high = std::max(high, y);
        }
    }
    return low <= high ? std::optional(high - low) : std::nullopt;
}

/// Whether a function itself changes, so that a scale of its own would show more.
bool changes(const Drawn& drawn) {
    const CurveSamples& samples = *curveSamplesOf(drawn);
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const Stretch& stretch : samples.stretches) {
        for (const double y : stretch.y) {
            low = std::min(low, y);
            high = std::max(high, y);
        }
    }
    return high - low > 1e-9 * std::max(std::abs(low), std::abs(high));
}

void flat(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        double highest = 0;
        for (const Drawn& drawn : panel.drawn) {
            if (isFunctionOnPlane(drawn, panel) && drawn.scale == 0)
                highest = std::max(highest, heightOf(drawn, panel).value_or(0));
        }
        for (const Drawn& drawn : panel.drawn) {
            if (!isFunctionOnPlane(drawn, panel) || drawn.scale != 0 || drawn.caseCount > 1) continue;
            const auto height = heightOf(drawn, panel);
            if (!height || *height > 0.02 * panel.frame().rect.height || highest < 0.3 * panel.frame().rect.height ||
                !changes(drawn))
                continue;
            const std::size_t p = drawn.path.panel;
            if (figure.document.panels[p].further.size() >= static_cast<std::size_t>(mostFurtherScales)) continue;
            found.push_back(findingOf(nameOf(drawn) + " looks flat beside the others: it takes " +
                                          printedNumber(*height, 2) + " mm of the panel's " +
                                          printedNumber(panel.frame().rect.height, 3) + " mm.",
                                      drawn.path, "Give it a scale of its own", changed(figure, [&](Document& d) {
                                          d.panels[p].further.emplace_back();
                                          plotAt(d, drawn.path)->scale = d.panels[p].further.size();
                                      })));
        }
    }
}

/// The largest distance in mm between the chords of a grid and the curve, half way between points.
double sagOf(const Drawn& drawn, const Frame& frame) {
    Evaluator f(*curveOf(drawn)->program);
    double largest = 0;
    for (const Stretch& stretch : curveSamplesOf(drawn)->stretches) {
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
            const double x = (stretch.x[i] + stretch.x[i + 1]) / 2;
            const Point a = frame.onSheet(stretch.x[i], stretch.y[i]),
                        b = frame.onSheet(stretch.x[i + 1], stretch.y[i + 1]), p = frame.onSheet(x, f(x));
            const double away = distanceTo(std::vector<Point>{a, b}, p);
            if (std::isfinite(away) && frame.rect.grown(1).contains(p)) largest = std::max(largest, away);
        }
    }
    return largest;
}

void coarseGrid(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            if (!isFunctionOnPlane(drawn, panel)) continue;
            const Curve& curve = *curveOf(drawn);
            if ((!curve.grid.count && !curve.grid.step) || std::string_view(drawn.kind->name) == "stems") continue;
            const std::size_t points = curveSamplesOf(drawn)->pointCount();
            if (points < 2 || points > 100'000) continue;
            const double sag = sagOf(drawn, panel.frameOf(drawn));
            if (sag < 0.2) continue;
            // The distance falls with the square of the step.
            const double times = std::ceil(std::sqrt(sag / 0.05));
            const std::string wanted =
                curve.grid.step
                    ? "a step of " + printedNumber(*curve.grid.step / times, 3)
                    : std::to_string(static_cast<std::size_t>(times * static_cast<double>(points - 1) + 1)) + " points";
            found.push_back(findingOf("The grid of " + curve.variable + " is too coarse for " + nameOf(drawn) +
                                          ": the curve leaves the lines by up to " + printedNumber(sag, 2) + " mm. " +
                                          wanted + " would do.",
                                      drawn.path, "Sample it where it bends",
                                      withSampling(figure.document, curve.variable, SamplingWay::Adaptive, "")));
        }
    }
}

void doubledEnd(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            if (!isFunctionOnPlane(drawn, panel)) continue;
            const Curve& curve = *curveOf(drawn);
            if (!curve.grid.count || !curve.interval.lowClosed || !curve.interval.highClosed) continue;
            // Periodic over the interval: the function goes on at its end as it began.
            Evaluator f(*curve.program);
            const double length = curve.interval.high - curve.interval.low;
            double size = 0, away = 0;
            for (int i = 0; i <= 12; ++i) {
                const double x = curve.interval.low + length * (i + 0.37) / 13, y = f(x), next = f(x + length);
                size = std::max(size, std::abs(y));
                away = std::max(away, std::isfinite(y) && std::isfinite(next) ? std::abs(y - next) : HUGE_VAL);
            }
            if (!(size > 0) || !(away < 1e-9 * size)) continue;
            const Line* line = figure.page.find(curve.variable, LineKind::Variable);
            if (!line) continue;
            const auto index = static_cast<std::size_t>(line - figure.page.lines.data());
            std::string open = figure.document.page[index];
            const auto bracket = open.find(']');
            const bool canOpen = bracket != std::string::npos && *curve.grid.count > 1;
            found.push_back(
                findingOf("The grid of " + curve.variable + " has both ends of a period of " + nameOf(drawn) +
                              ": one point stands twice.",
                          drawn.path, canOpen ? "Leave out the second end" : "",
                          canOpen ? std::optional(changed(figure,
                                                          [&](Document& d) {
                                                              d.page[index][bracket] = ')';
                                                              d = withSampling(d, curve.variable, SamplingWay::Count,
                                                                               printedNumber(*curve.grid.count - 1, 15))
                                                                      .value_or(d);
                                                          }))
                                  : std::nullopt));
            return; // once for the page's variable
        }
    }
}

} // namespace

extern const Check coincidingCheck{"curves coincide",
                                   "two curves that cannot be told apart, with their largest distance", coinciding};
extern const Check sameTwiceCheck{"drawn twice", "the same formula drawn twice in the same way", sameTwice};
extern const Check flatCheck{"flat curve", "a curve that looks flat beside others on its scale", flat};
extern const Check coarseGridCheck{"grid too coarse", "a grid asked for whose lines leave the curve", coarseGrid};
extern const Check doubledEndCheck{"doubled end", "a periodic grid that contains its end twice", doubledEnd};

} // namespace coulter
