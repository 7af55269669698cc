#include "drawing/figure_layout.h"

#include "drawing/legend_place.h"
#include "figure/labels.h"
#include "figure/plane.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm
constexpr double scaleOffset = 2;   // mm between the panel and its scale lines
constexpr double tickLength = 1.2;
constexpr double edge = 3; // mm of free paper round everything

constexpr double barGap = 5, barWidth = 3.5; // mm of the colour bar

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

/// Whether a millimetre should mean the same both ways: where all that is drawn runs in the plane, unless it was said.
bool wantsEqualScales(const Panel& panel, const PanelCurves& curves) {
    if (panel.equalScales) return *panel.equalScales;
    return !curves.curves.empty() && curves.fields.empty() && std::ranges::none_of(curves.curves, &Curve::isFunction) &&
           curves.xScale == curves.yScale;
}

/// Decides what the colour bar says; returns the room it needs right of the panel.
template <typename Label>
double layoutColours(PanelLayout& layout, const Page& page, const Panel& panel, const PanelCurves& curves,
                     const PanelLimits& limits, double height, const Label& label, const std::stop_token& stop) {
    if (curves.fields.empty()) return 0;
    const Limits range = colourLimits(panel, curves, limits, stop);
    layout.colours.shown = true;
    layout.colours.map = {colourScale(panel), range.low, range.high, height};
    layout.colours.ticks = ticksOf(colourScale(panel), range, std::clamp(height / 12, 2.0, 10.0));
    layout.colours.label = label(colourLabel(page, panel, curves));
    return barGap + barWidth + tickLength + 0.8 +
           std::max(widestLabel(layout.colours.ticks, layout.sizes.number),
                    layout.colours.label.width - barWidth - tickLength - 0.8);
}

struct SpaceRoom {
    double left, top, height;
};

/// A view of space: as large as the sheet lets it be, with room for numbers around it.
PanelLayout layoutSpace(PanelLayout layout, const Page& page, const Sheet& sheet, const Panel& panel,
                        const PanelCurves& curves, const SpaceRoom& room) {
    const double margin = 4 * layout.sizes.number;
    layout.frame = {room.left + margin, room.top, std::max(5.0, sheet.width - 2 * (room.left + margin)),
                    std::max(5.0, room.height)};
    const ViewAxes axes = viewAxes(panel.view);
    Limits u{HUGE_VAL, -HUGE_VAL}, v = u;
    for (unsigned corner = 0; corner < 8; ++corner) {
        double right = 0, up = 0;
        for (unsigned k = 0; k < 3; ++k) {
            const Limits& l = layout.space.limits[k];
            const double at = (corner >> k & 1U) != 0 ? l.high : l.low;
            right += axes.right[k] * at;
            up += axes.up[k] * at;
        }
        u = {std::min(u.low, right), std::max(u.high, right)};
        v = {std::min(v.low, up), std::max(v.high, up)};
    }
    const PanelLimits seen =
        withEqualScales({u, v, ScaleKind::Linear, ScaleKind::Linear}, Panel{}, layout.frame.width, layout.frame.height);
    layout.map = seen.map(layout.frame.width, layout.frame.height);
    const auto label = [&](const std::string& text) {
        return text.empty() ? Box{} : labelBox(withValues(page, text), FontId::Text, layout.sizes.text, page.names);
    };
    layout.space.labels = {label(horizontalLabel(page, panel, curves)), label(verticalLabel(page, panel, curves)),
                           label(uprightLabel(page, panel, curves))};
    layout.xLabel = layout.yLabel = {};
    for (std::size_t k = 0; k < 3; ++k)
        layout.space.ticks[k] = linearTicks(layout.space.limits[k].low, layout.space.limits[k].high, 4);
    return layout;
}

PanelLayout layoutWith(const LetterSizes& sizes, const Page& page, const Sheet& sheet, const Panel& panel,
                       const PanelCurves& curves, const std::vector<CoarseCurve>& coarse,
                       const std::optional<Limits>& atLeast, const std::stop_token& stop) {
    PanelLayout layout;
    layout.sizes = sizes;
    layout.title =
        panel.title.empty() ? Box{} : labelBox(withValues(page, panel.title), FontId::Text, sizes.title, page.names);
    const auto label = [&](const std::string& text) {
        return text.empty() ? Box{} : labelBox(withValues(page, text), FontId::Text, sizes.text, page.names);
    };
    layout.xLabel = label(horizontalLabel(page, panel, curves));
    layout.yLabel = label(verticalLabel(page, panel, curves));

    // Room above: title, the vertical scale's label, and half a number; below: numbers and label.
    const double titleRoom = layout.title.height() > 0 ? layout.title.height() + 2.2 : 0;
    const double yLabelRoom = layout.yLabel.height() > 0 ? layout.yLabel.height() + 2.4 : 0.5 * sizes.number;
    const double top = edge + titleRoom + yLabelRoom;
    const double below = scaleOffset + tickLength + 0.6 + sizes.number +
                         (layout.xLabel.height() > 0 ? 0.8 + layout.xLabel.height() : 0) + edge;
    const double height = std::max(5.0, sheet.height - top - below);

    const double yTickCount = std::clamp(height / 12, 2.0, 10.0);
    PanelLimits limits = panelLimits(panel, curves, coarse, yTickCount);
    if (atLeast && !panel.y.limits)
        limits.y = {std::min(limits.y.low, atLeast->low), std::max(limits.y.high, atLeast->high)};
    layout.space = spaceFrame(curves, stop);
    if (layout.space.shown) return layoutSpace(std::move(layout), page, sheet, panel, curves, {edge, top, height});
    const auto leftRoom = [&] {
        return edge + widestLabel(layout.yTicks, sizes.number) + 0.8 + tickLength + scaleOffset;
    };
    layout.yTicks = ticksOf(limits.yScale, limits.y, yTickCount);
    double left = leftRoom();

    double right = edge + 2;
    const double barRoom = layoutColours(layout, page, panel, curves, limits, height, label, stop);
    const double fullWidth = std::max(5.0, sheet.width - left - right - barRoom);
    layout.legend = decideLegend(page, panel, curves, coarse, limits, fullWidth, height, sizes.text);
    if (layout.legend.place == LegendPlace::AtEnds)
        right = edge + 3 + layout.legend.width - layout.legend.sampleLength - 2;
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at) right = edge + 4 + layout.legend.width;
    if (wantsEqualScales(panel, curves)) {
        limits = withEqualScales(limits, panel, std::max(5.0, sheet.width - left - right - barRoom), height);
        layout.yTicks = ticksOf(limits.yScale, limits.y, yTickCount);
        left = leftRoom();
    }
    const double width = std::max(5.0, sheet.width - left - right - barRoom);
    if (wantsEqualScales(panel, curves)) limits = withEqualScales(limits, panel, width, height);

    layout.frame = {left, top, width, height};
    layout.map = limits.map(width, height);
    layout.xTicks = clearTicks(layout.map.x, sizes.number);
    layout.colours.rect = {left + width + barGap, top, barWidth, height};
    layout.legendRect = legendRectInPanel(layout.legend, panel.legend, width, height);
    layout.legendRect.x += left;
    layout.legendRect.y += top;
    return layout;
}

} // namespace

PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelCurves& curves,
                        const std::optional<Limits>& atLeast, const std::stop_token& stop) {
    const std::vector<CoarseCurve> coarse = coarseCurves(curves, panel, stop);
    LetterSizes sizes = letterSizes(sheet);
    PanelLayout layout = layoutWith(sizes, page, sheet, panel, curves, coarse, atLeast, stop);
    // On a sheet too small for its letters these become smaller, so that nothing is ever cut off.
    for (int step = 0; step < 30 && !stop.stop_requested(); ++step) {
        const bool high = layout.frame.height >= 0.3 * sheet.height, wide = layout.frame.width >= 0.3 * sheet.width;
        const bool fits = layout.yLabel.width + layout.frame.x <= sheet.width &&
                          layout.title.width + 2 * edge <= sheet.width && layout.xLabel.width <= sheet.width - 2 * edge;
        if (high && wide && fits) break;
        sizes = {0.92 * sizes.text, 0.92 * sizes.number, 0.92 * sizes.title};
        layout = layoutWith(sizes, page, sheet, panel, curves, coarse, atLeast, stop);
    }
    return layout;
}

} // namespace coulter
