#include "composition/panel_layout.h"

#include "composition/labels.h"
#include "composition/legend_place.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm

using namespace distance;

double widestLabel(const Ticks& ticks, double size) {
    double widest = 0;
    for (const std::string& label : ticks.labels) widest = std::max(widest, tickBox(label, size).width);
    return widest;
}

Ticks ticksOf(ScaleKind scale, const Limits& limits, double wanted) {
    return scale == ScaleKind::Logarithmic ? logarithmicTicks(limits.low, limits.high, wanted)
                                           : linearTicks(limits.low, limits.high, wanted);
}

/// As many numbers as stand clear of each other along so many mm.
Ticks clearTicks(const AxisMap& map, double size) {
    Ticks ticks;
    for (double count = std::clamp(map.length / 16, 2.0, 12.0); count >= 1; count -= 1) {
        ticks = ticksOf(map.kind, {map.low, map.high}, count);
        double least = map.length;
        for (std::size_t i = 1; i < ticks.places.size(); ++i)
            least = std::min(least, map.toSheet(ticks.places[i]) - map.toSheet(ticks.places[i - 1]));
        if (widestLabel(ticks, size) + 2 <= least) break;
    }
    return ticks;
}

} // namespace

Box tickBox(const std::string& label, double size) {
    const auto power = label.find('^');
    if (power == std::string::npos) return layoutMath(*mathDigits(label), size, false);
    const auto times = label.find("×");
    std::vector<MathPtr> parts;
    if (times != std::string::npos) {
        parts.push_back(mathDigits(label.substr(0, times)));
        parts.push_back(mathSymbol("×"));
    }
    parts.push_back(mathScript(mathDigits("10"), nullptr, mathDigits(label.substr(power + 1))));
    return layoutMath(*mathRow(std::move(parts)), size, false);
}

LetterSizes letterSizes(const Sheet& sheet) {
    const double text = sheet.textSize * point;
    return {text, 0.92 * text, 1.15 * text};
}

namespace {

/// What the layout of a panel starts from, and never changes.
struct Given {
    const Page& page;
    const Panel& panel;
    const PanelReading& reading;
    const PanelLook& look;
    const PanelLabels& labels;
    Rect room;
    std::optional<Limits> held;

    Box box(const std::string& text, double size) const {
        return text.empty() ? Box{} : labelBox(withValues(page, text), FontId::Text, size, page.names);
    }
};

/// Whether a millimetre should mean the same both ways: where all that is drawn runs in the plane, unless it was said.
bool wantsEqualScales(const Panel& panel, const PanelReading& reading) {
    if (panel.equalScales) return *panel.equalScales;
    const auto runsInPlane = [](const Drawn& drawn) {
        const Curve* curve = curveOf(drawn);
        return curve && !curve->isFunction();
    };
    return !reading.drawn.empty() && std::ranges::all_of(reading.drawn, runsInPlane) &&
           reading.xScale == reading.yScale;
}

/// Decides what the colour bar says; returns the room it needs right of the panel.
double layoutColours(PanelLayout& layout, const Given& given, double height) {
    if (!given.look.colours) return 0;
    const Limits& range = *given.look.colours;
    const ScaleKind scale = colourScaleOf(given.panel);
    layout.colours.shown = true;
    layout.frame.colour = {scale, range.low, range.high, height};
    layout.colours.ticks = ticksOf(scale, range, std::clamp(height / 12, 2.0, 10.0));
    layout.colours.label = given.box(given.labels.colour, layout.sizes.text);
    return barGap + barWidth + tick + toNumber +
           std::max(widestLabel(layout.colours.ticks, layout.sizes.number),
                    layout.colours.label.width - barWidth - tick - toNumber);
}

void placeLegend(PanelLayout& layout, const Given& given) {
    const Rect& frame = layout.frame.rect;
    layout.legend.rect = legendRectInPanel(layout.legend, given.panel.legend, frame.width, frame.height);
    layout.legend.rect.x += frame.x;
    layout.legend.rect.y += frame.y;
}

/// A view of space: as large as its room lets it be, with room for numbers around it.
PanelLayout layoutSpace(PanelLayout layout, const Given& given, double top, double height) {
    const ViewAxes axes = viewAxes(given.panel.view);
    layout.frame.space = SpaceBox{*given.look.space, axes};
    Limits u{HUGE_VAL, -HUGE_VAL}, v = u;
    for (unsigned corner = 0; corner < 8; ++corner) {
        double right = 0, up = 0;
        for (unsigned k = 0; k < 3; ++k) {
            const Limits& l = (*given.look.space)[k];
            const double at = (corner >> k & 1U) != 0 ? l.high : l.low;
            right += axes.right[k] * at;
            up += axes.up[k] * at;
        }
        u = {std::min(u.low, right), std::max(u.high, right)};
        v = {std::min(v.low, up), std::max(v.high, up)};
    }
    const double margin = 4 * layout.sizes.number;
    const auto frameOf = [&](double legendRoom) {
        return Rect{given.room.x + (edge + margin), given.room.y + top,
                    std::max(5.0, given.room.width - 2 * (edge + margin) - legendRoom), std::max(5.0, height)};
    };
    const auto limitsIn = [&](const Rect& frame) {
        return withEqualScales({u, v, ScaleKind::Linear, ScaleKind::Linear}, Panel{}, frame.width, frame.height);
    };
    Rect frame = frameOf(0);
    layout.legend = decideLegend(given.page, given.panel, given.reading, given.look, limitsIn(frame), frame.width,
                                 frame.height, layout.sizes.text);
    // There are no right ends for labels to stand at.
    if (layout.legend.place == LegendPlace::AtEnds) layout.legend.place = LegendPlace::Outside;
    if (layout.legend.place == LegendPlace::Outside && !given.panel.legend.at)
        frame = frameOf(legendGap + layout.legend.width);
    layout.frame.rect = frame;
    layout.frame.map = limitsIn(frame).map(frame.width, frame.height);
    const double size = layout.sizes.text;
    layout.space.labels = {given.box(given.labels.across, size), given.box(given.labels.up, size),
                           given.box(given.labels.upright, size)};
    layout.xLabel = layout.yLabel = {};
    for (std::size_t k = 0; k < 3; ++k) {
        const Limits& l = (*given.look.space)[k];
        layout.space.ticks[k] = linearTicks(l.low, l.high, 4);
    }
    placeLegend(layout, given);
    return layout;
}

PanelLayout layoutWith(const LetterSizes& sizes, const Given& given) {
    const Panel& panel = given.panel;
    const Rect& room = given.room;
    PanelLayout layout;
    layout.room = room;
    layout.sizes = sizes;
    layout.title = given.box(panel.title, sizes.title);
    layout.xLabel = given.box(given.labels.across, sizes.text);
    layout.yLabel = given.box(given.labels.up, sizes.text);

    // Room above: title, the vertical scale's label, and half a number; below: numbers and label.
    const double titleRoom = layout.title.height() > 0 ? layout.title.height() + 2.2 : 0;
    const double yLabelRoom = layout.yLabel.height() > 0 ? layout.yLabel.height() + 2.4 : 0.5 * sizes.number;
    const double top = edge + titleRoom + yLabelRoom;
    const double below = scaleOffset + tick + 0.6 + sizes.number +
                         (layout.xLabel.height() > 0 ? 0.8 + layout.xLabel.height() : 0) + edge;
    const double height = std::max(5.0, room.height - top - below);
    if (given.look.space) return layoutSpace(std::move(layout), given, top, height);

    const double yTickCount = std::clamp(height / 12, 2.0, 10.0);
    PanelLimits limits = panelLimits(panel, given.look.extents, yTickCount);
    if (given.held && !panel.y.limits)
        limits.y = {std::min(limits.y.low, given.held->low), std::max(limits.y.high, given.held->high)};
    const auto leftRoom = [&] {
        return edge + widestLabel(layout.yTicks, sizes.number) + toNumber + tick + scaleOffset;
    };
    layout.yTicks = ticksOf(limits.yScale, limits.y, yTickCount);
    double left = leftRoom();

    double right = edge + 2;
    const double barRoom = layoutColours(layout, given, height);
    const double fullWidth = std::max(5.0, room.width - left - right - barRoom);
    layout.legend = decideLegend(given.page, panel, given.reading, given.look, limits, fullWidth, height, sizes.text);
    if (layout.legend.place == LegendPlace::AtEnds) right = edge + 3 + layout.legend.width - legendSample - sampleGap;
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at) right = edge + legendGap + layout.legend.width;
    const bool equal = wantsEqualScales(panel, given.reading);
    if (equal) {
        limits = withEqualScales(limits, panel, std::max(5.0, room.width - left - right - barRoom), height);
        layout.yTicks = ticksOf(limits.yScale, limits.y, yTickCount);
        left = leftRoom();
    }
    const double width = std::max(5.0, room.width - left - right - barRoom);
    if (equal) limits = withEqualScales(limits, panel, width, height);

    layout.frame.rect = {room.x + left, room.y + top, width, height};
    layout.frame.map = limits.map(width, height);
    layout.xTicks = clearTicks(layout.frame.map.x, sizes.number);
    layout.colours.rect = {room.x + (left + width + barGap), room.y + top, barWidth, height};
    placeLegend(layout, given);
    return layout;
}

/// Whether everything has its place: a panel that is large enough, words that do not run off.
bool fits(const PanelLayout& layout) {
    const Rect &room = layout.room, &frame = layout.frame.rect;
    const bool high = frame.height >= 0.3 * room.height, wide = frame.width >= 0.3 * room.width;
    const bool words = layout.yLabel.width + frame.x <= room.right() && layout.title.width + 2 * edge <= room.width &&
                       layout.xLabel.width <= room.width - 2 * edge;
    // In space the labels of the two floor scales stand side by side below, the upright one's at the left.
    const auto& inSpace = layout.space.labels;
    const bool labels = inSpace[0].width + inSpace[1].width <= room.width - 2 * edge &&
                        inSpace[2].width <= frame.x - room.x + frame.width;
    return high && wide && words && labels;
}

} // namespace

PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelReading& reading,
                        const PanelLook& look, const Rect& room, const std::optional<Limits>& held,
                        const std::stop_token& stop) {
    const PanelLabels labels = labelsOf(panel, reading);
    const Given given{page, panel, reading, look, labels, room, held};
    LetterSizes sizes = letterSizes(sheet);
    PanelLayout layout = layoutWith(sizes, given);
    for (int step = 0; step < 30 && !stop.stop_requested() && !fits(layout); ++step) {
        sizes = {0.92 * sizes.text, 0.92 * sizes.number, 0.92 * sizes.title};
        layout = layoutWith(sizes, given);
    }
    return layout;
}

} // namespace coulter
