#include "composition/panel_layout.h"

#include "composition/colour_bar.h"
#include "composition/labels.h"
#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm

using namespace distance;

} // namespace

LetterSizes letterSizes(const Sheet& sheet) {
    const double text = sheet.textSize * point;
    return {text, 0.92 * text, 1.15 * text};
}

namespace {

/// Whether a millimetre should mean the same both ways: where all that is drawn runs in the plane, unless it was said.
bool wantsEqualScales(const Panel& panel, const PanelReading& reading) {
    if (panel.equalScales) return *panel.equalScales;
    const auto runsInPlane = [](const Drawn& drawn) {
        const Curve* curve = curveOf(drawn);
        const Columns* columns = columnsOf(drawn);
        return (curve && !curve->isFunction()) || (columns && columns->arePlaces);
    };
    return !reading.drawn.empty() && std::ranges::all_of(reading.drawn, runsInPlane) &&
           reading.xScale == reading.yScale;
}

PanelLayout layoutWith(const LetterSizes& sizes, const Given& given) {
    const Panel& panel = given.panel;
    const Rect& room = given.room;
    PanelLayout layout;
    layout.format = given.reading.format;
    layout.room = room;
    layout.sizes = sizes;
    layout.title = given.box(panel.title, sizes.title);
    layout.xLabel = given.box(given.labels.across, sizes.text);
    layout.yLabel = given.box(given.labels.up, sizes.text);

    // Room above: title, the vertical scale's label, and half a number; below: numbers and label.
    const double titleRoom = layout.title.height() > 0 ? layout.title.height() + 2.2 : 0;
    const double yLabelRoom = layout.yLabel.height() > 0 ? layout.yLabel.height() + 2.4 : 0.5 * sizes.number;
    layoutColours(layout, given, 0.7 * std::min(room.width, room.height)); // how much room it takes across
    const double top = edge + titleRoom + yLabelRoom + barRoom(layout, BarSide::Above);
    const double below = barRoom(layout, BarSide::Below) + scaleOffset + tick + 0.6 + sizes.number +
                         (layout.xLabel.height() > 0 ? 0.8 + layout.xLabel.height() : 0) + edge;
    const double height = std::max(5.0, room.height - top - below);
    if (given.look.space) return layoutSpace(std::move(layout), given, top, height);
    if (given.reading.shape == PanelShape::Polar) return layoutPolar(std::move(layout), given, top, height);

    const double yTickCount = std::clamp(height / 12, 2.0, 10.0);
    PanelLimits limits = panelLimits(panel, given.look.extents, yTickCount);
    if (given.held && !panel.y.limits.both())
        limits.y = {panel.y.limits.low ? limits.y.low : std::min(limits.y.low, given.held->low),
                    panel.y.limits.high ? limits.y.high : std::max(limits.y.high, given.held->high)};
    const auto leftRoom = [&] {
        return edge + widestLabel(layout.yTicks, sizes.number) + toNumber + tick + scaleOffset;
    };
    const auto upTicks = [&] {
        return clearTicksUp(given.rules[upScale].ticks, limits.map(1, height).y, sizes.number, yTickCount);
    };
    layout.yTicks = upTicks();
    double left = leftRoom();

    double right = edge + 2;
    const auto layOutBar = [&](double width) {
        layoutColours(layout, given,
                      layout.colours.side == BarSide::Below || layout.colours.side == BarSide::Above ? width : height);
        return barRoom(layout, BarSide::Left) + barRoom(layout, BarSide::Right);
    };
    const double besides = layOutBar(room.width / 2);
    const double fullWidth = std::max(5.0, room.width - left - right - besides);
    layout.legend = decideLegend(given.page, panel, given.reading, given.look, limits, fullWidth, height, sizes.text);
    if (layout.legend.place == LegendPlace::AtEnds) right = edge + 3 + layout.legend.width - legendSample - sampleGap;
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at) right = edge + legendGap + layout.legend.width;
    const bool equal = wantsEqualScales(panel, given.reading);
    if (equal) {
        limits = withEqualScales(limits, panel, std::max(5.0, room.width - left - right - besides), height);
        layout.yTicks = upTicks();
        left = leftRoom();
    }
    const double width = std::max(5.0, room.width - left - right - besides);
    if (equal) limits = withEqualScales(limits, panel, width, height);

    layOutBar(width);
    layout.frame.rect = {room.x + left + barRoom(layout, BarSide::Left), room.y + top, width, height};
    layout.frame.map = limits.map(width, height);
    layout.frame.leftwards = truth(panel.x.settings, reversedSetting);
    layout.frame.downwards = truth(panel.y.settings, reversedSetting);
    layout.xTicks = clearTicks(given.rules[acrossScale].ticks, layout.frame.map.x, sizes.number);
    const double beyond = layout.colours.side == BarSide::Left    ? left - edge
                          : layout.colours.side == BarSide::Below ? below - barRoom(layout, BarSide::Below) - edge
                          : layout.colours.side == BarSide::Above ? yLabelRoom
                                                                  : 0;
    placeColourBar(layout, beyond);
    placeLegend(layout, given);
    return layout;
}

/// Whether everything has its place: a panel that is large enough, words that do not run off.
bool fits(const PanelLayout& layout) {
    const Rect &room = layout.room, &frame = layout.frame.rect;
    // A part of a circle is as wide as it is; its radius must be worth looking at.
    const double reach = layout.frame.polar ? layout.frame.polar->radius.length : 0;
    const bool round = layout.frame.polar && reach >= 0.2 * std::min(room.width, room.height);
    const bool high = round || frame.height >= 0.3 * room.height, wide = round || frame.width >= 0.3 * room.width;
    const bool words = (round || layout.yLabel.width + frame.x <= room.right()) &&
                       layout.title.width + 2 * edge <= room.width && layout.xLabel.width <= room.width - 2 * edge;
    // In space the labels of the two floor scales stand side by side below, the upright one's at the left.
    const auto& inSpace = layout.space.labels;
    const bool labels = inSpace[0].width + inSpace[1].width <= room.width - 2 * edge &&
                        inSpace[2].width <= frame.x - room.x + frame.width;
    return high && wide && words && labels;
}

} // namespace

Frame bareFrame(const Panel& panel, const PanelReading& reading, const PanelLook& look, double width, double height) {
    Frame frame;
    frame.rect = {0, 0, width, height};
    if (look.colours) {
        const Limits range = colourLimits(reading, *look.colours, colourScaleOf(panel));
        frame.colour = {colourScaleOf(panel), range.low, range.high, height};
        frame.shades = colourRun(panel, reading, frame.colour);
    }
    if (reading.shape != PanelShape::Polar) {
        frame.map = panelLimits(panel, look.extents, 6).map(width, height);
        return frame;
    }
    PolarFrame polar = polarFrame(panel, look);
    polar.middle = {width / 2, height / 2};
    polar.radius.length = std::min(width, height) / 2;
    frame.map = {{ScaleKind::Linear, -width / 2, width / 2, width},
                 {ScaleKind::Linear, -height / 2, height / 2, height}};
    frame.polar = polar;
    return frame;
}

PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelReading& reading,
                        const PanelLook& look, const Rect& room, const std::optional<Limits>& held,
                        const std::stop_token& stop) {
    const ScaleRules rules = scaleRules(page, panel, reading);
    PanelUnits shown;
    for (std::size_t k = 0; k < shown.size(); ++k) shown[k] = rules[k].unit;
    const PanelLabels labels = labelsOf(panel, reading, shown);
    const Given given{page, panel, reading, look, labels, rules, room, held};
    LetterSizes sizes = letterSizes(sheet);
    PanelLayout layout = layoutWith(sizes, given);
    for (int step = 0; step < 30 && !stop.stop_requested() && !fits(layout); ++step) {
        sizes = {0.92 * sizes.text, 0.92 * sizes.number, 0.92 * sizes.title};
        layout = layoutWith(sizes, given);
    }
    layout.labels = labels;
    layout.rules = rules;
    return layout;
}

} // namespace coulter
