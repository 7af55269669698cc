#include "drawing/figure_scene.h"

#include "drawing/clip_polyline.h"
#include "drawing/colours.h"
#include "drawing/legend_place.h"
#include "figure/labels.h"
#include "sampling/curve.h"
#include "sampling/grid.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

constexpr double scaleOffset = 2, tickLength = 1.2, scaleWidth = 0.18; // mm

std::vector<double> dashes(LinePattern pattern, double width) {
    const double w = std::max(width, 0.2);
    switch (pattern) {
    case LinePattern::Dashed: return {6 * w, 3.5 * w};
    case LinePattern::Dotted: return {0.01, 2.6 * w};
    case LinePattern::DashDotted: return {6 * w, 3 * w, 0.01, 3 * w};
    case LinePattern::Solid: break;
    }
    return {};
}

class SceneMaker {
public:
    SceneMaker(Figure& figure, const Document& document, std::size_t panel)
        : figure_(figure), panel_(document.panels[panel]), layout_(figure.layouts[panel]),
          curves_(figure.curves[panel]), samples_(figure.samples[panel]), sizes_(figure.layouts[panel].sizes) {}

    void run() {
        target(Part::Panel, 0, layout_.frame);
        grid();
        for (std::size_t i = 0; i < curves_.curves.size(); ++i) curve(i);
        horizontalScale();
        verticalScale();
        if (layout_.legend.place == LegendPlace::AtEnds)
            labelsAtEnds();
        else
            legend();
        title();
    }

private:
    void target(Part part, std::size_t index, Rect rect) { figure_.targets.push_back({part, index, rect}); }

    void stroke(std::vector<std::vector<Point>> lines, Colour colour, double width, std::vector<double> pattern = {},
                bool roundEnds = false) {
        figure_.scene.items.emplace_back(StrokeItem{std::move(lines), colour, width, std::move(pattern), roundEnds});
    }

    Point onSheet(double x, double y) const {
        return {layout_.frame.x + layout_.map.x.toSheet(x), layout_.frame.bottom() - layout_.map.y.toSheet(y)};
    }

    void grid() {
        std::vector<std::vector<Point>> lines;
        const Rect& f = layout_.frame;
        if (panel_.x.grid) {
            for (const double place : layout_.xTicks.places)
                lines.push_back({{onSheet(place, 0).x, f.y}, {onSheet(place, 0).x, f.bottom()}});
        }
        if (panel_.y.grid) {
            for (const double place : layout_.yTicks.places)
                lines.push_back({{f.x, onSheet(0, place).y}, {f.right(), onSheet(0, place).y}});
        }
        if (lines.empty()) return;
        stroke(std::move(lines), gridColour, 0.12);
        if (layout_.legend.entries.empty() || layout_.legend.place == LegendPlace::AtEnds) return;
        const Rect r = layout_.legendRect.grown(1); // no line runs through the legend's words
        figure_.scene.items.emplace_back(
            FillItem{{{{r.x, r.y}, {r.right(), r.y}, {r.right(), r.bottom()}, {r.x, r.bottom()}}}, paperColour});
    }

    void curve(std::size_t index) {
        const Curve& curve = curves_.curves[index];
        const PlotStyle& style = panel_.plots[curve.plot].style;
        std::vector<std::vector<Point>> lines;
        // Half a line's width of room, so that a curve along the panel's edge is not cut in half.
        const Rect room = layout_.frame.grown(style.width / 2 + 0.02);
        for (const Stretch& stretch : samples_[index].stretches) {
            std::vector<Point> line;
            for (std::size_t i = 0; i < stretch.x.size(); ++i) {
                Point p = onSheet(stretch.x[i], stretch.y[i]);
                p.y = std::clamp(p.y, -1e9, 1e9);
                line.push_back(p);
            }
            if (line.size() == 1) line.push_back(line[0]); // a single point shows as a dot
            for (auto& piece : clipPolyline(line, room)) lines.push_back(std::move(piece));
        }
        if (!lines.empty())
            stroke(std::move(lines), curveColour(panel_, curve), style.width, dashes(style.pattern, style.width), true);
    }

    void horizontalScale() {
        const Rect& f = layout_.frame;
        const double y = f.bottom() + scaleOffset;
        std::vector<std::vector<Point>> lines{{{f.x, y}, {f.right(), y}}};
        double lowest = y + tickLength;
        const double baseline = y + tickLength + 0.6 + 0.72 * sizes_.number;
        for (std::size_t i = 0; i < layout_.xTicks.places.size(); ++i) {
            const double x = onSheet(layout_.xTicks.places[i], 0).x;
            lines.push_back({{x, y}, {x, y + tickLength}});
            const Box number = layoutMath(*mathDigits(layout_.xTicks.labels[i]), sizes_.number, false);
            // A minus sign hangs out to the left, so that the digits stand under their tick.
            const double sign = layout_.xTicks.labels[i].starts_with('-')
                                    ? layoutMath(*mathDigits("-"), sizes_.number, false).width
                                    : 0;
            addBox(figure_.scene, number, x - (number.width + sign) / 2, baseline, inkColour);
            lowest = baseline + number.descent;
        }
        stroke(std::move(lines), inkColour, scaleWidth);
        powerOfTen(layout_.xTicks, f.right(), baseline + 1.15 * sizes_.number, true);
        target(Part::XScale, 0, {f.x, f.bottom() + 0.5, f.width, lowest + 0.3 - f.bottom()});
        const double labelBaseline = baseline + 0.22 * sizes_.number + 0.8 + layout_.xLabel.ascent;
        const double x = f.x + (f.width - layout_.xLabel.width) / 2;
        addBox(figure_.scene, layout_.xLabel, x, labelBaseline, inkColour);
        if (layout_.xLabel.height() > 0) target(Part::XLabel, 0, boxRect(layout_.xLabel, x, labelBaseline));
    }

    void verticalScale() {
        const Rect& f = layout_.frame;
        const double x = f.x - scaleOffset;
        std::vector<std::vector<Point>> lines{{{x, f.y}, {x, f.bottom()}}};
        double left = x - tickLength;
        for (std::size_t i = 0; i < layout_.yTicks.places.size(); ++i) {
            const double y = onSheet(0, layout_.yTicks.places[i]).y;
            lines.push_back({{x, y}, {x - tickLength, y}});
            const Box number = layoutMath(*mathDigits(layout_.yTicks.labels[i]), sizes_.number, false);
            const double at = x - tickLength - 0.8 - number.width;
            addBox(figure_.scene, number, at, y + 0.33 * sizes_.number, inkColour);
            left = std::min(left, at);
        }
        stroke(std::move(lines), inkColour, scaleWidth);
        target(Part::YScale, 0, {left - 0.3, f.y, f.x - 0.5 - left, f.height});
        const double start = left;
        const double baseline = f.y - 2.4 - layout_.yLabel.descent;
        addBox(figure_.scene, layout_.yLabel, start, baseline, inkColour);
        if (layout_.yLabel.height() > 0) target(Part::YLabel, 0, boxRect(layout_.yLabel, start, baseline));
        powerOfTen(layout_.yTicks, start + layout_.yLabel.width + (layout_.yLabel.width > 0 ? 3 : 0), baseline, false);
    }

    /// "× 10⁵" beside a scale whose numbers are to be multiplied.
    void powerOfTen(const Ticks& ticks, double x, double baseline, bool alignRight) {
        if (ticks.powerOfTen == 0) return;
        const MathPtr power =
            mathRow({mathSymbol("×"), mathSpace(0.17),
                     mathScript(mathDigits("10"), nullptr, mathDigits(std::to_string(ticks.powerOfTen)))});
        const Box box = layoutMath(*power, sizes_.number, false);
        addBox(figure_.scene, box, alignRight ? x - box.width : x, baseline, inkColour);
    }

    static Rect boxRect(const Box& box, double x, double baseline) {
        return {x, baseline - box.ascent, box.width, box.height()};
    }

    void legend() {
        if (layout_.legend.entries.empty()) return;
        const Rect& r = layout_.legendRect;
        for (std::size_t i = 0; i < layout_.legend.entries.size(); ++i) {
            const Curve& curve = curves_.curves[layout_.legend.curves[i]];
            const PlotStyle& style = panel_.plots[curve.plot].style;
            const double middle = r.y + (static_cast<double>(i) + 0.5) * layout_.legend.rowHeight;
            stroke({{{r.x, middle}, {r.x + layout_.legend.sampleLength, middle}}}, curveColour(panel_, curve),
                   style.width, dashes(style.pattern, style.width), true);
            addBox(figure_.scene, layout_.legend.entries[i], r.x + layout_.legend.sampleLength + 2,
                   middle + 0.25 * sizes_.text, inkColour);
        }
        target(Part::Legend, 0, r);
    }

    void labelsAtEnds() {
        std::vector<double> ends;
        const Rect& f = layout_.frame;
        for (const std::size_t index : layout_.legend.curves) {
            double y = f.height / 2;
            if (!samples_[index].stretches.empty()) {
                const Stretch& last = samples_[index].stretches.back();
                y = std::clamp(onSheet(last.x.back(), last.y.back()).y - f.y, 0.0, f.height);
            }
            ends.push_back(y);
        }
        for (const EndLabel& label : endLabels(layout_.legend, ends, f.height)) {
            const Curve& curve = curves_.curves[layout_.legend.curves[label.entry]];
            const Colour colour = curveColour(panel_, curve);
            const Box& entry = layout_.legend.entries[label.entry];
            const double x = f.right() + 2.5, y = f.y + label.y;
            if (std::abs(label.y - label.end) > 0.6) { // a thin line leads from a label that had to move
                stroke({{{f.right() + 0.4, f.y + label.end}, {x - 0.5, y}}}, colour, 0.12);
            }
            addBox(figure_.scene, entry, x, y + 0.25 * sizes_.text, colour);
            target(Part::Curve, layout_.legend.curves[label.entry],
                   {x, y - layout_.legend.rowHeight / 2, entry.width, layout_.legend.rowHeight});
        }
    }

    void title() {
        if (layout_.title.height() == 0) return;
        const double x = 3, baseline = 3 + layout_.title.ascent;
        addBox(figure_.scene, layout_.title, x, baseline, inkColour);
        target(Part::Title, 0, boxRect(layout_.title, x, baseline));
    }

    Figure& figure_;
    const Panel& panel_;
    const PanelLayout& layout_;
    const PanelCurves& curves_;
    const std::vector<CurveSamples>& samples_;
    LetterSizes sizes_;
};

/// Grids that cannot be made are problems of the plots that run along them.
void checkGrids(const Panel&, PanelCurves& curves) {
    std::erase_if(curves.curves, [&](const Curve& curve) {
        const GridPoints grid = gridPoints(curve.interval, curve.grid, curve.variable);
        if (grid.problems.empty()) return false;
        if (curves.problems[curve.plot].empty()) curves.problems[curve.plot] = grid.problems;
        return true;
    });
}

} // namespace

Colour curveColour(const Panel& panel, const Curve& curve) {
    const PlotStyle& style = panel.plots[curve.plot].style;
    if (style.colour) return *style.colour;
    return curve.caseCount > 1 ? caseColour(curve.caseIndex, curve.caseCount) : plotColour(curve.plot);
}

CurveSamples sampleForPanel(const Curve& curve, const PanelMap& map, double tolerance, std::stop_token stop) {
    if (!isAdaptive(curve.grid)) {
        const GridPoints grid = gridPoints(curve.interval, curve.grid, curve.variable);
        return sampleAtPoints(*curve.program, grid.points);
    }
    Interval shown = curve.interval;
    const double low = map.x.low, high = map.x.high;
    if (high <= shown.low || low >= shown.high) return {};
    if (low > shown.low) {
        shown.low = low;
        shown.lowClosed = true;
    }
    if (high < shown.high) {
        shown.high = high;
        shown.highClosed = true;
    }
    return sampleCurve(*curve.program, shown, map, tolerance, std::move(stop), curve.second.get());
}

Figure drawFigure(const Document& document, std::stop_token stop) {
    Figure figure;
    figure.page = readPage(document.page);
    figure.scene.width = document.sheet.width;
    figure.scene.height = document.sheet.height;
    for (std::size_t p = 0; p < document.panels.size(); ++p) {
        const Panel& panel = document.panels[p];
        figure.curves.push_back(readCurves(figure.page, panel));
        checkGrids(panel, figure.curves[p]);
        figure.layouts.push_back(layoutPanel(figure.page, document.sheet, panel, figure.curves[p]));
        const auto& curves = figure.curves[p].curves;
        figure.samples.emplace_back(curves.size());
        // Each curve on its own: the result does not depend on how many threads there are.
        tbb::parallel_for(std::size_t{0}, curves.size(), [&](std::size_t i) {
            figure.samples[p][i] = sampleForPanel(curves[i], figure.layouts[p].map, document.sheet.tolerance, stop);
        });
        SceneMaker(figure, document, p).run();
        for (const CurveSamples& samples : figure.samples[p]) figure.finished = figure.finished && samples.finished;
    }
    if (stop.stop_requested()) figure.finished = false;
    return figure;
}

} // namespace coulter
