#include "composition/panel_layout.h"

#include "composition/colour_bar.h"
#include "composition/labels.h"
#include "composition/lay_out_panel.h"
#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm

using namespace distance;

} // namespace

LetterSizes letterSizes(const Sheet& sheet) {
    const Em text{sheet.textSize * point, static_cast<Typeface>(word(sheet.settings, typefaceSetting))};
    return {text, 0.92 * text, 1.15 * text};
}

double PanelLayout::startRound(double middle, double width) const {
    const double start = middle - width / 2, first = room.x + edge;
    return format.labelsStayOnPaper ? std::clamp(start, first, std::max(first, room.right() - edge - width)) : start;
}

namespace {

std::size_t numbersAt(const Ticks& ticks) {
    return static_cast<std::size_t>(
        std::ranges::count_if(ticks.labels, [](const std::string& label) { return !label.empty(); }));
}

void withoutNumbers(Ticks& ticks) {
    for (std::string& label : ticks.labels) label.clear();
    ticks.powerOfTen = 0;
}

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

/// The scales at the right of the panel, from its side outwards; returns the room that they take.
double layoutFurther(PanelLayout& layout, const Given& given, double height, double count) {
    double room = 0;
    layout.further.clear();
    layout.frame.further.clear();
    for (std::size_t k = 1; k < given.scales.size(); ++k) {
        const OnScale& scale = given.scales[k];
        const PanelLimits limits = panelLimits(scale.panel, scale.look.extents, count);
        const ScaleRules rules = scaleRules(given.page, scale.panel, scale.reading);
        PanelUnits shown;
        for (std::size_t i = 0; i < shown.size(); ++i) shown[i] = rules[i].unit;
        FurtherScale further;
        further.mirrors = scale.mirrors;
        const AxisMap map = scale.mirrors ? layout.frame.map.y : limits.map(1, height).y;
        const bool downwards = truth(scale.panel.y.settings, reversedSetting);
        layout.frame.further.push_back({map, scale.mirrors ? layout.frame.downwards : downwards});
        further.ticks = clearTicksUp(rules[upScale].ticks, map, layout.sizes.number, count);
        further.words = labelsOf(scale.panel, scale.reading, shown).up;
        further.label = given.box(further.words, layout.sizes.text);
        further.line = room + scaleOffset;
        further.end = further.line + tick + toNumber + widestLabel(further.ticks, layout.sizes.number);
        room = further.end + 1.5;
        layout.further.push_back(std::move(further));
    }
    return room > 0 ? room - 1.5 : 0;
}

/// Labels of vertical scales stand above them, in rows where they would touch.
void rowsOfLabels(PanelLayout& layout, double width) {
    double row = 0, end = layout.yLabel.width; // of the row's last label, from the left
    if (layout.yLabel.height() == 0) end = 0;
    for (FurtherScale& further : layout.further) {
        if (further.label.height() == 0) continue;
        const double start = width - further.label.width;
        if (end > 0 && start < end + 4) ++row;
        further.labelRow = row;
        end = HUGE_VAL; // the next one has a row of its own
    }
}

PanelLayout layoutInside(const Given& given) {
    const LetterSizes& sizes = given.wishes.sizes;
    const Margins& least = given.wishes.least;
    const Panel& panel = given.panel;
    const Rect& room = given.room;
    PanelLayout layout;
    layout.format = given.reading.format;
    layout.room = room;
    layout.sizes = sizes;
    if (!given.wishes.letter.empty()) layout.letter = textBox(given.wishes.letter, FontId::TextBold, sizes.title);
    layout.title = given.box(panel.title, sizes.title);
    if (given.wishes.numbersAcross) layout.xLabel = given.box(given.labels.across, sizes.text);
    if (given.wishes.numbersUp) layout.yLabel = given.box(given.labels.up, sizes.text);
    layoutFurther(layout, given, std::max(5.0, 0.7 * room.height), 4); // how many rows their labels take
    rowsOfLabels(layout, 0.85 * room.width);

    // Room above: title, the vertical scale's label, and half a number; below: numbers and label.
    const double titleHeight = std::max(layout.title.height(), layout.letter.height());
    const double titleRoom = titleHeight > 0 ? titleHeight + 2.2 : 0;
    layout.labelRow = layout.yLabel.height();
    double rows = 1;
    for (const FurtherScale& further : layout.further) {
        layout.labelRow = std::max(layout.labelRow, further.label.height());
        if (further.label.height() > 0) rows = std::max(rows, further.labelRow + 1);
    }
    const double yLabelRoom =
        layout.labelRow > 0 ? rows * layout.labelRow + (rows - 1) * 0.8 + layout.toLabel() : 0.5 * sizes.number.mm;
    layoutColours(layout, given, 0.7 * std::min(room.width, room.height)); // how much room it takes across
    const double top = std::max(least.top, edge + titleRoom + yLabelRoom + barRoom(layout, BarSide::Above));
    const bool across = given.wishes.numbersAcross, up = given.wishes.numbersUp;
    const double below =
        std::max(least.below, barRoom(layout, BarSide::Below) + scaleOffset + tick + (across ? 0.6 : 0) +
                                  (across ? sizes.number.mm : 0) +
                                  (layout.xLabel.height() > 0 ? 0.8 + layout.xLabel.height() : 0) + edge);
    const double height = std::max(5.0, room.height - top - below);
    if (given.look.space) return layoutSpace(std::move(layout), given, top, height);
    if (given.reading.shape == PanelShape::Polar) return layoutPolar(std::move(layout), given, top, height);

    const double yTickCount = std::clamp(height / 12, 2.0, 10.0);
    const OnScale* first = given.scales.empty() ? nullptr : &given.scales[0];
    PanelLimits limits = panelLimits(panel, given.look.extents, yTickCount);
    if (first) limits.y = panelLimits(first->panel, first->look.extents, yTickCount).y;
    if (const auto& held = given.wishes.held; held && !panel.y.limits.both())
        limits.y = {panel.y.limits.low ? limits.y.low : std::min(limits.y.low, held->low),
                    panel.y.limits.high ? limits.y.high : std::max(limits.y.high, held->high)};
    const auto leftRoom = [&] {
        return std::max(least.left - barRoom(layout, BarSide::Left),
                        edge + (up ? widestLabel(layout.yTicks, sizes.number) : 0) + (up ? toNumber : 0) + tick +
                            scaleOffset);
    };
    const auto upTicks = [&] {
        const AxisMap map = limits.map(1, height).y;
        Ticks ticks = clearTicksUp(given.rules[upScale].ticks, map, sizes.number, yTickCount);
        // One number says no scale; the first formats let it be.
        for (double count = yTickCount + 1; layout.format.twoNumbersUp && numbersAt(ticks) < 2 && count <= 8; ++count) {
            Ticks more = clearTicksUp(given.rules[upScale].ticks, map, sizes.number, count);
            if (numbersAt(more) > numbersAt(ticks)) ticks = std::move(more);
        }
        return ticks;
    };
    layout.yTicks = upTicks();
    layout.frame.map.y = limits.map(1, height).y;
    layout.frame.downwards = truth(panel.y.settings, reversedSetting);
    const double scalesRoom = layoutFurther(layout, given, height, yTickCount);
    rowsOfLabels(layout, 0.85 * room.width);
    const auto layOutBar = [&](double width) {
        layoutColours(layout, given,
                      layout.colours.side == BarSide::Below || layout.colours.side == BarSide::Above ? width : height);
        return barRoom(layout, BarSide::Left) + barRoom(layout, BarSide::Right);
    };
    const double besides = layOutBar(room.width / 2);
    double left = leftRoom();

    double right = std::max(least.right - barRoom(layout, BarSide::Right), edge + 2 + scalesRoom);
    const double fullWidth = std::max(5.0, room.width - left - right - besides);
    layout.legend = decideLegend(given.page, panel, given.reading, given.look, limits, fullWidth, height, sizes.text);
    if (layout.legend.place == LegendPlace::AtEnds)
        right = std::max(right, edge + 3 + layout.legend.width - legendSample - sampleGap);
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at)
        right = std::max(right, edge + legendGap + layout.legend.width + scalesRoom);
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
    for (std::size_t k = 0; k < layout.further.size(); ++k) {
        if (layout.further[k].mirrors) layout.frame.further[k] = {layout.frame.map.y, layout.frame.downwards};
    }
    layout.margins = {layout.frame.rect.x - room.x, room.right() - layout.frame.rect.right(), top, below};
    layout.xTicks = clearTicks(given.rules[acrossScale].ticks, layout.frame.map.x, sizes.number);
    if (!given.wishes.numbersAcross) withoutNumbers(layout.xTicks);
    if (!given.wishes.numbersUp) withoutNumbers(layout.yTicks);
    const double beyond = layout.colours.side == BarSide::Left    ? left - edge
                          : layout.colours.side == BarSide::Below ? below - barRoom(layout, BarSide::Below) - edge
                          : layout.colours.side == BarSide::Above ? yLabelRoom
                          : layout.colours.side == BarSide::Right ? scalesRoom
                                                                  : 0;
    placeColourBar(layout, beyond);
    placeLegend(layout, given);
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at) layout.legend.rect.x += scalesRoom;
    return layout;
}

/// A legend at the left, above or below has a strip of the panel's room, and the panel all else.
PanelLayout layoutWith(const Given& given) {
    if (!isAtSide(given.panel.legend.place) || given.panel.legend.at) return layoutInside(given);
    LegendLayout legend = legendEntries(given.page, given.panel, given.reading, given.wishes.sizes.text);
    if (legend.entries.empty()) return layoutInside(given);
    const bool beside = legend.place == LegendPlace::Left, above = legend.place == LegendPlace::Above;
    if (!beside && given.panel.legend.columns == 0) {
        // As many columns as there is room for, and no more than fill their rows.
        std::size_t count = legend.entries.size();
        for (; count > 1; --count) {
            legend.arrange(count);
            if (legend.width <= given.room.width - 2 * edge) break;
        }
        legend.arrange(count);
    }
    const double taken = legendGap + (beside ? legend.width : legend.height);
    Panel panel = given.panel;
    panel.legend = {LegendPlace::None, std::nullopt, 0};
    PanelWishes wishes = given.wishes;
    double& least = beside ? wishes.least.left : above ? wishes.least.top : wishes.least.below;
    least = std::max(0.0, least - taken);
    Rect room = given.room;
    (beside ? room.width : room.height) -= taken;
    if (beside) room.x += taken;
    if (above) room.y += taken;
    PanelLayout layout = layoutInside(
        {given.page, panel, given.reading, given.look, given.labels, given.rules, room, given.scales, wishes});
    layout.room = given.room;
    (beside ? layout.margins.left : above ? layout.margins.top : layout.margins.below) += taken;
    const Rect& frame = layout.frame.rect;
    const double title = std::max(layout.title.height(), layout.letter.height());
    const double start = std::clamp(frame.x, given.room.x + edge,
                                    std::max(given.room.x + edge, given.room.right() - edge - legend.width));
    legend.rect = {beside ? given.room.x + edge : start,
                   beside  ? frame.y
                   : above ? given.room.y + edge + (title > 0 ? title + 2.2 : 0)
                           : given.room.bottom() - edge - legend.height,
                   legend.width, legend.height};
    layout.legend = std::move(legend);
    return layout;
}

} // namespace

bool fits(const PanelLayout& layout) {
    const Rect &room = layout.room, &frame = layout.frame.rect;
    // A part of a circle is as wide as it is; its radius must be worth looking at.
    const double reach = layout.frame.polar ? layout.frame.polar->radius.length : 0;
    const bool round = layout.frame.polar && reach >= 0.2 * std::min(room.width, room.height);
    const bool high = round || frame.height >= 0.3 * room.height, wide = round || frame.width >= 0.3 * room.width;
    const bool words =
        (round || layout.yLabel.width + frame.x <= room.right()) &&
        layout.title.width + (layout.letter.width > 0 ? layout.letter.width + layout.sizes.title : 0) + 2 * edge <=
            room.width &&
        layout.xLabel.width <= room.width - 2 * edge;
    // In space the labels of the two floor scales stand side by side below, the upright one's at the left.
    const auto& inSpace = layout.space.labels;
    const bool labels = inSpace[0].width + inSpace[1].width <= room.width - 2 * edge &&
                        inSpace[2].width <= frame.x - room.x + frame.width;
    const bool angle = !layout.format.labelsStayOnPaper || !round || layout.yLabel.width <= room.width - 2 * edge;
    const bool bar = !layout.format.labelsStayOnPaper || !layout.colours.shown ||
                     layout.colours.label.width <= room.width - 2 * edge;
    const LegendLayout& legend = layout.legend;
    const bool entries = !isAtSide(legend.place) || (legend.rect.right() <= room.right() - edge + 1e-9 &&
                                                     legend.rect.bottom() <= room.bottom() - edge + 1e-9);
    return high && wide && words && labels && angle && bar && entries && layout.space.hasRoom;
}

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

PanelLayout layoutPanel(const Page& page, const ReadPanel& read, const Rect& room, const PanelWishes& wishes) {
    const auto rulesOf = [&](const Panel& panel, const PanelReading& reading) {
        return scaleRules(page, panel, reading);
    };
    ScaleRules rules = rulesOf(read.panel, read.reading);
    if (!read.scales.empty()) // what lies on further scales has no say in the first one's
        rules.scales[upScale] = rulesOf(read.scales[0].panel, read.scales[0].reading).scales[upScale];
    PanelUnits shown;
    for (std::size_t k = 0; k < shown.size(); ++k) shown[k] = rules[k].unit;
    PanelLabels labels = labelsOf(read.panel, read.reading, shown);
    if (!read.scales.empty()) labels.up = labelsOf(read.scales[0].panel, read.scales[0].reading, shown).up;
    PanelLayout layout =
        layoutWith({page, read.panel, read.reading, read.look, labels, rules, room, read.scales, wishes});
    layout.labels = labels;
    layout.rules = rules;
    if (layout.frame.space && truth(read.panel.z.settings, exaggerationSetting) && layout.space.stated.empty() &&
        !rules[uprightScale].problem)
        layout.rules.scales[uprightScale].problem = Problem{
            -1, 1, 1, "“exaggeration”: Heights and lengths have no units of one kind, or a scale is logarithmic.",
            "give them units such as m on the page"};
    layout.sharesAcross = read.sharesAcross;
    layout.sharesUp = read.sharesUp;
    return layout;
}

} // namespace coulter
