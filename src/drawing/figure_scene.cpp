#include "drawing/figure_scene.h"

#include "drawing/clip_polyline.h"
#include "drawing/colours.h"
#include "drawing/field_image.h"
#include "drawing/legend_place.h"
#include "drawing/space_scene.h"
#include "figure/labels.h"
#include "formula/text.h"
#include "sampling/curve_sampler.h"
#include "sampling/field.h"
#include "sampling/grid.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>
#include <numbers>
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

/// Of two neighbouring values the one at which a jump is meant to be; NaN where neither is one a person would write.
double simplerPlace(double a, double b) {
    const double place = simpler(a, b), other = place == a ? b : a;
    return shortestNumber(place).size() + 4 < shortestNumber(other).size() ? place : std::nan("");
}

class SceneMaker {
public:
    SceneMaker(Figure& figure, const Document& document, std::size_t panel)
        : figure_(figure), panel_(document.panels[panel]), layout_(figure.layouts[panel]),
          curves_(figure.curves[panel]), samples_(figure.samples[panel]), fields_(figure.fields[panel]),
          sizes_(figure.layouts[panel].sizes), dotsPerMm_(document.sheet.resolution / 25.4) {}

    void run() {
        target(Part::Panel, 0, layout_.frame);
        for (std::size_t i = 0; i < curves_.fields.size(); ++i) field(i);
        if (layout_.space.shown) {
            drawSpaceFrame(figure_.scene, layout_, panel_.view);
            for (std::size_t i = 0; i < curves_.curves.size(); ++i) curve(i);
            title();
            return;
        }
        grid();
        for (std::size_t i = 0; i < curves_.curves.size(); ++i) curve(i);
        horizontalScale();
        verticalScale();
        if (layout_.legend.place == LegendPlace::AtEnds)
            labelsAtEnds();
        else
            legend();
        colourBar();
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

    void field(std::size_t index) {
        const PlotStyle& style = panel_.plots[curves_.fields[index].plot].style;
        figure_.scene.items.emplace_back(fieldImage(fields_[index], style.fill, layout_, dotsPerMm_));
        if (style.mesh) {
            std::vector<std::vector<Point>> lines;
            for (const auto& line : meshLines(fields_[index], layout_)) {
                for (auto& piece : clipPolyline(line, layout_.frame)) lines.push_back(std::move(piece));
            }
            stroke(std::move(lines), inkColour, 0.05);
        }
    }

    void colourBar() {
        const ColourBar& bar = layout_.colours;
        if (!bar.shown) return;
        ImageItem image;
        image.rect = image.clip = bar.rect;
        image.width = std::max(2, static_cast<int>(bar.rect.width * dotsPerMm_));
        image.height = std::max(2, static_cast<int>(bar.rect.height * dotsPerMm_));
        for (int i = 0; i < image.height; ++i) {
            const Colour c = loam(1 - (i + 0.5) / image.height);
            image.pixels.insert(image.pixels.end(), static_cast<std::size_t>(image.width),
                                0xff000000U | static_cast<std::uint32_t>(c.red) << 16 |
                                    static_cast<std::uint32_t>(c.green) << 8 | c.blue);
        }
        figure_.scene.items.emplace_back(std::move(image));
        const double x = bar.rect.right() + 0.6;
        std::vector<std::vector<Point>> lines{{{x, bar.rect.y}, {x, bar.rect.bottom()}}};
        double right = x + tickLength;
        for (std::size_t i = 0; i < bar.ticks.places.size(); ++i) {
            const double y = bar.rect.bottom() - bar.map.toSheet(bar.ticks.places[i]);
            lines.push_back({{x, y}, {x + tickLength, y}});
            const Box number = tickBox(bar.ticks.labels[i], sizes_.number);
            addBox(figure_.scene, number, x + tickLength + 0.8, y + 0.33 * sizes_.number, inkColour);
            right = std::max(right, x + tickLength + 0.8 + number.width);
        }
        for (const double minor : bar.ticks.minor) {
            const double y = bar.rect.bottom() - bar.map.toSheet(minor);
            lines.push_back({{x, y}, {x + tickLength / 2, y}});
        }
        stroke(std::move(lines), inkColour, scaleWidth);
        target(Part::ColourScale, 0, {bar.rect.x, bar.rect.y, right - bar.rect.x, bar.rect.height});
        const double baseline = bar.rect.y - 2.4 - bar.label.descent;
        addBox(figure_.scene, bar.label, bar.rect.x, baseline, inkColour);
        if (bar.label.height() > 0) target(Part::ColourLabel, 0, boxRect(bar.label, bar.rect.x, baseline));
        powerOfTen(bar.ticks, bar.rect.x + bar.label.width + (bar.label.width > 0 ? 2 : 0), baseline, false);
    }

    /// Dots at jumps: filled where the curve takes its value, open where it does not; none where the place itself is
    /// known only to rounding.
    void jumpEnds(const CurveSamples& samples, Colour colour, double width) {
        const double radius = std::max(0.55, 1.6 * width);
        const auto dot = [&](const Stretch& stretch, std::size_t i, bool filled) {
            const Point p = onSheet(stretch.x[i], stretch.y[i]);
            if (!layout_.frame.grown(0.1).contains(p)) return;
            std::vector<Point> circle;
            for (int k = 0; k <= 48; ++k) {
                const double angle = 2 * std::numbers::pi * k / 48;
                circle.push_back({p.x + radius * std::cos(angle), p.y + radius * std::sin(angle)});
            }
            figure_.scene.items.emplace_back(FillItem{{circle}, filled ? colour : paperColour});
            stroke({circle}, colour, width);
        };
        for (std::size_t s = 0; s + 1 < samples.stretches.size(); ++s) {
            const Stretch &left = samples.stretches[s], &right = samples.stretches[s + 1];
            if (left.state.back() != PointState::Jump || right.state.front() != PointState::Jump) continue;
            const double place = simplerPlace(left.t.back(), right.t.front());
            if (std::isnan(place)) continue;
            if (left.x.size() > 1 || place == left.t.back()) dot(left, left.x.size() - 1, place == left.t.back());
            if (right.x.size() > 1 || place == right.t.front()) dot(right, 0, place == right.t.front());
        }
    }

    void grid() {
        std::vector<std::vector<Point>> lines;
        const Rect& f = layout_.frame;
        if (panel_.x.grid) {
            for (const double place : layout_.xTicks.places)
                lines.push_back(
                    {{onSheet(place, layout_.map.y.low).x, f.y}, {onSheet(place, layout_.map.y.low).x, f.bottom()}});
        }
        if (panel_.y.grid) {
            for (const double place : layout_.yTicks.places)
                lines.push_back(
                    {{f.x, onSheet(layout_.map.x.low, place).y}, {f.right(), onSheet(layout_.map.x.low, place).y}});
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
                p.x = std::clamp(p.x, -1e9, 1e9);
                p.y = std::clamp(p.y, -1e9, 1e9);
                line.push_back(p);
            }
            if (line.size() == 1) line.push_back(line[0]); // a single point shows as a dot
            for (auto& piece : clipPolyline(line, room)) lines.push_back(std::move(piece));
        }
        if (!lines.empty())
            stroke(std::move(lines), curveColour(panel_, curve), style.width, dashes(style.pattern, style.width), true);
        if (style.jumpEnds) jumpEnds(samples_[index], curveColour(panel_, curve), style.width);
    }

    void minorMarks(std::vector<std::vector<Point>>& lines, const Ticks& ticks, bool horizontal, double at) const {
        for (const double place : ticks.minor) {
            const Point p = horizontal ? Point{onSheet(place, layout_.map.y.low).x, at}
                                       : Point{at, onSheet(layout_.map.x.low, place).y};
            lines.push_back({p, horizontal ? Point{p.x, p.y + tickLength / 2} : Point{p.x - tickLength / 2, p.y}});
        }
    }

    void horizontalScale() {
        const Rect& f = layout_.frame;
        const double y = f.bottom() + scaleOffset;
        std::vector<std::vector<Point>> lines{{{f.x, y}, {f.right(), y}}};
        double lowest = y + tickLength;
        const double baseline = y + tickLength + 0.6 + 0.72 * sizes_.number;
        for (std::size_t i = 0; i < layout_.xTicks.places.size(); ++i) {
            const double x = onSheet(layout_.xTicks.places[i], layout_.map.y.low).x;
            lines.push_back({{x, y}, {x, y + tickLength}});
            const Box number = tickBox(layout_.xTicks.labels[i], sizes_.number);
            // A minus sign hangs out to the left, so that the digits stand under their tick.
            const double sign = layout_.xTicks.labels[i].starts_with('-')
                                    ? layoutMath(*mathDigits("-"), sizes_.number, false).width
                                    : 0;
            addBox(figure_.scene, number, x - (number.width + sign) / 2, baseline, inkColour);
            lowest = baseline + number.descent;
        }
        minorMarks(lines, layout_.xTicks, true, y);
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
            const double y = onSheet(layout_.map.x.low, layout_.yTicks.places[i]).y;
            lines.push_back({{x, y}, {x - tickLength, y}});
            const Box number = tickBox(layout_.yTicks.labels[i], sizes_.number);
            const double at = x - tickLength - 0.8 - number.width;
            addBox(figure_.scene, number, at, y + 0.33 * sizes_.number, inkColour);
            left = std::min(left, at);
        }
        minorMarks(lines, layout_.yTicks, false, x);
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
    const std::vector<FieldSamples>& fields_;
    LetterSizes sizes_;
    double dotsPerMm_;
};

/// Grids that cannot be made are problems of the plots that run along them.
void checkGrids(PanelCurves& curves) {
    const auto hasProblem = [&](const auto& drawn) {
        const Problems problems = gridProblems(drawn);
        if (!problems.empty() && curves.problems[drawn.plot].empty()) curves.problems[drawn.plot] = problems;
        return !problems.empty();
    };
    std::erase_if(curves.curves, hasProblem);
    std::erase_if(curves.fields, hasProblem);
}

} // namespace

Colour curveColour(const Panel& panel, const Curve& curve) {
    const PlotStyle& style = panel.plots[curve.plot].style;
    if (style.colour) return *style.colour;
    return curve.caseCount > 1 ? caseColour(curve.caseIndex, curve.caseCount) : plotColour(curve.plot);
}

CurveSamples sampleForPanel(const Curve& curve, const PanelMap& map, const Tolerance& tolerance, std::stop_token stop) {
    if (!isAdaptive(curve.grid)) {
        const GridPoints grid = gridPoints(curve.interval, curve.grid, curve.variable);
        return sampleAtPoints(*curve.program, grid.points, std::move(stop));
    }
    const std::optional<Interval> shown =
        curve.isFunction() ? shownPart(curve.interval, map.x.kind, {map.x.low, map.x.high}) : curve.interval;
    if (!shown) return {};
    return sampleCurve(*curve.program, *shown, map, tolerance, std::move(stop),
                       {curve.position.get(), curve.bend.get()});
}

Problems gridProblems(const Curve& curve) { return gridPoints(curve.interval, curve.grid, curve.variable).problems; }

Problems gridProblems(const Field& field) {
    double points = 1;
    for (std::size_t k = 0; k < 2; ++k) {
        const GridPoints grid = gridPoints(field.intervals[k], field.grids[k], field.variables[k]);
        if (!grid.problems.empty()) return grid.problems;
        points *= std::max(1.0, static_cast<double>(grid.points.size()));
    }
    if (points <= mostFieldPoints) return {};
    Problem problem;
    problem.sentence = "The grid of " + field.variables[0] + " and " + field.variables[1] + " has " +
                       roundedNumber(points, 3) + " points; at most " + roundedNumber(mostFieldPoints, 3) +
                       " are sampled.";
    problem.suggestion = "ask for fewer in one of the two directions";
    return {problem};
}

FieldSamples sampleFieldForPanel(const Field& field, const PanelLayout& layout, double tolerance,
                                 std::stop_token stop) {
    if (isAdaptive(field.grids[0]) && isAdaptive(field.grids[1])) {
        std::array<Interval, 2> shown;
        for (std::size_t k = 0; k < 2; ++k) {
            const AxisMap& axis = k == 0 ? layout.map.x : layout.map.y;
            const auto part = shownPart(field.intervals[k], axis.kind, {axis.low, axis.high});
            if (!part) return {};
            shown[k] = *part;
        }
        const AxisMap& colours = layout.colours.map;
        return sampleMesh(*field.program, shown, layout.map, {tolerance, colours.low, colours.high}, std::move(stop));
    }
    std::array<std::vector<double>, 2> points;
    for (std::size_t k = 0; k < 2; ++k) {
        Grid grid = field.grids[k];
        if (isAdaptive(grid)) {
            grid.count = 257;
            grid.logarithmic = (k == 0 ? layout.map.x : layout.map.y).kind == ScaleKind::Logarithmic;
        }
        points[k] = gridPoints(field.intervals[k], grid, field.variables[k]).points;
    }
    return sampleMeshgrid(*field.program, std::move(points[0]), std::move(points[1]), std::move(stop));
}

Figure drawFigure(const Document& document, std::stop_token stop, const std::optional<Limits>& atLeast) {
    Figure figure;
    figure.page = readPage(document.page);
    figure.scene.width = document.sheet.width;
    figure.scene.height = document.sheet.height;
    for (std::size_t p = 0; p < document.panels.size(); ++p) {
        const Panel& panel = document.panels[p];
        figure.curves.push_back(readCurves(figure.page, panel));
        checkGrids(figure.curves[p]);
        figure.layouts.push_back(layoutPanel(figure.page, document.sheet, panel, figure.curves[p], atLeast, stop));
        const auto& curves = figure.curves[p].curves;
        figure.samples.emplace_back(curves.size());
        // Each curve on its own: the result does not depend on how many threads there are.
        tbb::parallel_for(std::size_t{0}, curves.size(), [&](std::size_t i) {
            Tolerance tolerance = document.sheet.tolerance;
            tolerance.finer = panel.plots[curves[i].plot].finer;
            figure.samples[p][i] = sampleForPanel(curves[i], figure.layouts[p].map, tolerance, stop);
        });
        figure.fields.emplace_back();
        for (const Field& field : figure.curves[p].fields)
            figure.fields[p].push_back(sampleFieldForPanel(field, figure.layouts[p], document.sheet.tolerance, stop));
        for (const FieldSamples& samples : figure.fields[p]) figure.finished = figure.finished && samples.finished;
        SceneMaker(figure, document, p).run();
        for (const CurveSamples& samples : figure.samples[p]) figure.finished = figure.finished && samples.finished;
    }
    if (stop.stop_requested()) figure.finished = false;
    return figure;
}

} // namespace coulter
