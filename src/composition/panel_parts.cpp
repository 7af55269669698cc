#include "composition/panel_parts.h"

#include "composition/colour_bar.h"
#include "composition/legend_place.h"
#include "composition/polar_parts.h"
#include "composition/space_parts.h"
#include "drawing/colours.h"
#include "drawing/space_canvas.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "notes/note_settings.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using namespace distance;

constexpr double scaleWidth = 0.18; // mm

class PanelParts {
public:
    PanelParts(Figure& figure, std::size_t panel)
        : figure_(figure), index_(panel), panel_(figure.document.panels[panel]), layout_(figure.panels[panel].layout),
          frame_(layout_.frame), drawn_(figure.panels[panel].drawn), sizes_(layout_.sizes),
          dotsPerMm_(figure.effort.dotsPerMm),
          space_(frame_, dotsPerMm_,
                 word(figure.document.sheet.settings, surfacesSetting) == 1 && !figure.effort.coarse),
          hides_(std::ranges::any_of(drawn_, [](const Drawn& drawn) { return fieldOf(drawn) != nullptr; }) ||
                 (frame_.space && frame_.space->distance > 0)) {}

    void run(const std::stop_token& stop) {
        hit(ItemKind::Panel, 0, frame_.rect);
        notes(true);
        plots(Layer::Ground);
        const auto spaceScales = [&] { drawSpaceScales(figure_.scene, figure_.hits, index_, layout_); };
        if (frame_.space) {
            drawFloor(figure_.scene, layout_);
            if (!hides_) spaceScales();
        } else if (frame_.polar) {
            drawPolarGrid(figure_.scene, layout_);
        } else {
            grid();
        }
        plots(Layer::Area);
        plots(Layer::Line);
        for (const SpaceCanvas::Shown& shown : space_.finish(figure_.scene, stop))
            figure_.owned.push_back({drawn_[shown.owner].path, shown.first, shown.last});
        if (frame_.space && hides_) spaceScales();
        if (frame_.polar) drawPolarScales(figure_.scene, figure_.hits, index_, layout_);
        if (frame_.isPlane()) {
            horizontalScale();
            verticalScale();
            furtherScales();
        }
        if (layout_.legend.place == LegendPlace::AtEnds)
            labelsAtEnds();
        else
            legend();
        drawColourBar(figure_.scene, figure_.hits, index_, layout_, dotsPerMm_);
        title();
        notes(false);
    }

private:
    void hit(ItemKind kind, std::size_t index, Rect rect) { figure_.hits.push_back({{kind, index_, index, 0}, rect}); }

    void stroke(Polylines lines, Colour colour, double width) {
        figure_.scene.items.emplace_back(StrokeItem{std::move(lines), colour, width, {}, false});
    }

    /// Notes below what is plotted, or above all.
    void notes(bool behind) {
        for (const DrawnNote& note : figure_.panels[index_].notes.drawn) {
            if (truth(note.settings, behindSetting) != behind) continue;
            const bool cut = note.kind->isCut && word(note.settings, anchorSetting) == 0;
            const Rect all{-1e6, -1e6, 2e6, 2e6};
            Canvas canvas(figure_.scene, cut ? frame_.rect : all, dotsPerMm_, sizes_.text);
            const std::size_t first = figure_.scene.items.size();
            note.kind->draw(note, canvas);
            figure_.owned.push_back({note.path, first, figure_.scene.items.size()});
            if (const Rect words = note.kind->wordsRect(note); words.width > 0)
                figure_.hits.push_back({note.path, words});
        }
    }

    /// What was drawn, one after the other; whose each item of the scene is, is remembered.
    void plots(Layer layer) {
        Canvas canvas(figure_.scene, frame_.rect, dotsPerMm_, sizes_.text, layout_.format.thinsLines);
        if (hides_) canvas.inSpace(space_);
        for (const Drawn& drawn : drawn_) {
            if (drawn.kind->layer != layer) continue;
            const std::size_t first = figure_.scene.items.size();
            space_.owner(static_cast<std::size_t>(&drawn - drawn_.data()));
            drawn.kind->draw(drawn, drawn.scale == 0 ? frame_ : frame_.onScale(drawn.scale), canvas);
            // What hides and is hidden comes to the scene later.
            if (!frame_.space || !hides_ || figure_.scene.items.size() > first)
                figure_.owned.push_back({drawn.path, first, figure_.scene.items.size()});
        }
    }

    void grid() {
        std::vector<std::vector<Point>> lines;
        const Rect& f = frame_.rect;
        if (truth(panel_.x.settings, gridSetting)) {
            for (const double place : layout_.xTicks.places)
                lines.push_back({{frame_.onSheet(place, frame_.map.y.low).x, f.y},
                                 {frame_.onSheet(place, frame_.map.y.low).x, f.bottom()}});
        }
        if (truth(panel_.y.settings, gridSetting)) {
            for (const double place : layout_.yTicks.places)
                lines.push_back({{f.x, frame_.onSheet(frame_.map.x.low, place).y},
                                 {f.right(), frame_.onSheet(frame_.map.x.low, place).y}});
        }
        zeroLines();
        if (lines.empty()) return;
        stroke(std::move(lines), gridColour, 0.12);
        if (layout_.legend.entries.empty() || layout_.legend.place == LegendPlace::AtEnds) return;
        const Rect r = layout_.legend.rect.grown(1); // no line runs through the legend's words
        figure_.scene.items.emplace_back(
            FillItem{{{{r.x, r.y}, {r.right(), r.y}, {r.right(), r.bottom()}, {r.x, r.bottom()}}}, paperColour});
    }

    /// Across the panel where a scale has its zero in it.
    void zeroLines() {
        Polylines lines;
        const Rect& f = frame_.rect;
        const Point zero = frame_.onSheet(0, 0);
        if (truth(panel_.x.settings, zeroLineSetting) && zero.x >= f.x && zero.x <= f.right())
            lines.push_back({{zero.x, f.y}, {zero.x, f.bottom()}});
        if (truth(panel_.y.settings, zeroLineSetting) && zero.y >= f.y && zero.y <= f.bottom())
            lines.push_back({{f.x, zero.y}, {f.right(), zero.y}});
        if (!lines.empty()) stroke(std::move(lines), inkColour, 0.12);
    }

    void minorMarks(std::vector<std::vector<Point>>& lines, const Ticks& ticks, bool horizontal, double at) const {
        for (const double place : ticks.minor) {
            const Point p = horizontal ? Point{frame_.onSheet(place, frame_.map.y.low).x, at}
                                       : Point{at, frame_.onSheet(frame_.map.x.low, place).y};
            lines.push_back({p, horizontal ? Point{p.x, p.y + tick / 2} : Point{p.x - tick / 2, p.y}});
        }
    }

    void horizontalScale() {
        const Rect& f = frame_.rect;
        const double y = f.bottom() + scaleOffset;
        std::vector<std::vector<Point>> lines{{{f.x, y}, {f.right(), y}}};
        double lowest = y + tick;
        const double baseline = y + tick + 0.6 + 0.72 * sizes_.number;
        for (std::size_t i = 0; i < layout_.xTicks.places.size(); ++i) {
            const double x = frame_.onSheet(layout_.xTicks.places[i], frame_.map.y.low).x;
            lines.push_back({{x, y}, {x, y + tick}});
            if (layout_.xTicks.labels[i].empty()) continue;
            const Box number = tickBox(layout_.xTicks, i, sizes_.number);
            // A minus sign hangs out to the left, so that the digits stand under their tick.
            const double sign = layout_.xTicks.labels[i].starts_with('-')
                                    ? layoutMath(*mathDigits("-"), sizes_.number, false).width
                                    : 0;
            addBox(figure_.scene, number, x - (number.width + sign) / 2, baseline, inkColour);
            lowest = baseline + number.descent;
        }
        minorMarks(lines, layout_.xTicks, true, y);
        stroke(std::move(lines), inkColour, scaleWidth);
        addPowerOfTen(figure_.scene, layout_.xTicks, sizes_.number, f.right(), baseline + 1.15 * sizes_.number, true);
        hit(ItemKind::Scale, acrossScale, {f.x, f.bottom() + 0.5, f.width, lowest + 0.3 - f.bottom()});
        const double labelBaseline = baseline + 0.22 * sizes_.number + 0.8 + layout_.xLabel.ascent;
        const double x = layout_.startRound(f.x + f.width / 2, layout_.xLabel.width);
        addBox(figure_.scene, layout_.xLabel, x, labelBaseline, inkColour);
        if (layout_.xLabel.height() > 0)
            hit(ItemKind::ScaleLabel, acrossScale, boxRect(layout_.xLabel, x, labelBaseline));
    }

    /// The colour of what lies on a vertical scale, if there are several and it has but one; else ink.
    Colour scaleColour(std::size_t number) const {
        if (layout_.further.empty()) return inkColour;
        std::optional<Colour> one;
        const bool mirrors = number > 0 && layout_.further[number - 1].mirrors;
        for (const Drawn& drawn : drawn_) {
            if (drawn.scale != (mirrors ? 0 : number)) continue;
            if (one && *one != drawn.colour) return inkColour;
            one = drawn.colour;
        }
        return one.value_or(inkColour);
    }

    /// The first vertical scale, at the panel's left.
    void verticalScale() {
        const Rect& f = frame_.rect;
        const Colour colour = scaleColour(0);
        const double x = f.x - scaleOffset;
        std::vector<std::vector<Point>> lines{{{x, f.y}, {x, f.bottom()}}};
        double left = x - tick;
        for (std::size_t i = 0; i < layout_.yTicks.places.size(); ++i) {
            const double y = frame_.onSheet(frame_.map.x.low, layout_.yTicks.places[i]).y;
            lines.push_back({{x, y}, {x - tick, y}});
            if (layout_.yTicks.labels[i].empty()) continue;
            const Box number = tickBox(layout_.yTicks, i, sizes_.number);
            const double at = x - tick - 0.8 - number.width;
            addBox(figure_.scene, number, at, y + 0.33 * sizes_.number, colour);
            left = std::min(left, at);
        }
        minorMarks(lines, layout_.yTicks, false, x);
        stroke(std::move(lines), colour, scaleWidth);
        hit(ItemKind::Scale, upScale, {left - 0.3, f.y, f.x - 0.5 - left, f.height});
        // Labels of panels above each other begin at one place.
        const bool barAtLeft = layout_.colours.shown && layout_.colours.side == BarSide::Left;
        const double start = figure_.panels.size() > 1 && !barAtLeft ? layout_.room.x + edge : left;
        const double baseline = f.y - layout_.toLabel() - layout_.yLabel.descent;
        addBox(figure_.scene, layout_.yLabel, start, baseline, colour);
        if (layout_.yLabel.height() > 0) hit(ItemKind::ScaleLabel, upScale, boxRect(layout_.yLabel, start, baseline));
        addPowerOfTen(figure_.scene, layout_.yTicks, sizes_.number,
                      start + layout_.yLabel.width + (layout_.yLabel.width > 0 ? 3 : 0), baseline, false);
    }

    /// The others, outwards from its right.
    void furtherScales() {
        const Rect& f = frame_.rect;
        for (std::size_t k = 0; k < layout_.further.size(); ++k) {
            const FurtherScale& scale = layout_.further[k];
            const Frame frame = frame_.onScale(k + 1);
            const Colour colour = scaleColour(k + 1);
            const std::size_t index = upwardScale(k + 1);
            const double x = f.right() + scale.line;
            Polylines lines{{{x, f.y}, {x, f.bottom()}}};
            for (std::size_t i = 0; i < scale.ticks.places.size(); ++i) {
                const double y = frame.downSheet(scale.ticks.places[i]);
                lines.push_back({{x, y}, {x + tick, y}});
                if (scale.ticks.labels[i].empty()) continue;
                addBox(figure_.scene, tickBox(scale.ticks, i, sizes_.number), x + tick + toNumber,
                       y + 0.33 * sizes_.number, colour);
            }
            for (const double minor : scale.ticks.minor)
                lines.push_back({{x, frame.downSheet(minor)}, {x + tick / 2, frame.downSheet(minor)}});
            stroke(std::move(lines), colour, scaleWidth);
            hit(ItemKind::Scale, index, {x - 0.5, f.y, scale.end - scale.line + 0.8, f.height});
            const double baseline =
                f.y - layout_.toLabel() - scale.label.descent - scale.labelRow * (layout_.labelRow + 0.8);
            const double at = f.right() + scale.end - scale.label.width;
            addBox(figure_.scene, scale.label, at, baseline, colour);
            if (scale.label.height() > 0) hit(ItemKind::ScaleLabel, index, boxRect(scale.label, at, baseline));
            const bool labelled = scale.label.height() > 0;
            addPowerOfTen(figure_.scene, scale.ticks, sizes_.number, labelled ? at - 2 : f.right() + scale.end,
                          baseline, true);
        }
    }

    static Rect boxRect(const Box& box, double x, double baseline) {
        return {x, baseline - box.ascent, box.width, box.height()};
    }

    void legend() {
        if (layout_.legend.entries.empty()) return;
        const Rect& r = layout_.legend.rect;
        for (std::size_t i = 0; i < layout_.legend.entries.size(); ++i) {
            const Drawn& drawn = drawn_[layout_.legend.drawn[i]];
            const double row = static_cast<double>(i % layout_.legend.rows),
                         x = r.x + layout_.legend.columns[i / layout_.legend.rows],
                         middle = r.y + (row + 0.5) * layout_.legend.rowHeight;
            Canvas canvas(figure_.scene, {-1e6, -1e6, 2e6, 2e6}, dotsPerMm_, sizes_.text);
            drawn.kind->swatch(
                drawn, {x, middle - layout_.legend.rowHeight / 2, legendSample, layout_.legend.rowHeight}, canvas);
            addBox(figure_.scene, layout_.legend.entries[i], x + legendSample + sampleGap, middle + 0.25 * sizes_.text,
                   inkColour);
        }
        hit(ItemKind::Legend, 0, r);
    }

    void labelsAtEnds() {
        std::vector<double> ends;
        const Rect& f = frame_.rect;
        for (const std::size_t index : layout_.legend.drawn) {
            double y = f.height / 2;
            const CurveSamples* samples = curveSamplesOf(drawn_[index]);
            if (samples && !samples->stretches.empty()) {
                const Stretch& last = samples->stretches.back();
                y = std::clamp(frame_.onSheet(last.x.back(), last.y.back()).y - f.y, 0.0, f.height);
            }
            ends.push_back(y);
        }
        for (const EndLabel& label : endLabels(layout_.legend, ends, f.height)) {
            const Drawn& drawn = drawn_[layout_.legend.drawn[label.entry]];
            const Box& entry = layout_.legend.entries[label.entry];
            const double x = f.right() + 2.5, y = f.y + label.y;
            if (std::abs(label.y - label.end) > 0.6) { // a thin line leads from a label that had to move
                stroke({{{f.right() + 0.4, f.y + label.end}, {x - 0.5, y}}}, drawn.colour, 0.12);
            }
            addBox(figure_.scene, entry, x, y + 0.25 * sizes_.text, drawn.colour);
            figure_.hits.push_back(
                {drawn.path, {x, y - layout_.legend.rowHeight / 2, entry.width, layout_.legend.rowHeight}});
        }
    }

    void title() {
        double x = layout_.room.x + edge;
        const double baseline = layout_.room.y + edge + std::max(layout_.title.ascent, layout_.letter.ascent);
        if (layout_.letter.height() > 0) {
            addBox(figure_.scene, layout_.letter, x, baseline, inkColour);
            x += layout_.letter.width + 0.6 * sizes_.title;
        }
        if (layout_.title.height() == 0) return;
        addBox(figure_.scene, layout_.title, x, baseline, inkColour);
        hit(ItemKind::Title, 0, boxRect(layout_.title, x, baseline));
    }

    Figure& figure_;
    std::size_t index_;
    const Panel& panel_;
    const PanelLayout& layout_;
    const Frame& frame_;
    const std::vector<Drawn>& drawn_;
    LetterSizes sizes_;
    double dotsPerMm_;
    SpaceCanvas space_;
    bool hides_; ///< in space: surfaces hide, or the eye is near
};

} // namespace

void drawPanel(Figure& figure, std::size_t panel, const std::stop_token& stop) { PanelParts(figure, panel).run(stop); }

} // namespace coulter
