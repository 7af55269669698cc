#include "composition/colour_bar.h"
#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"
#include "formula/text.h"
#include "formula/units.h"

#include <algorithm>
#include <cmath>

namespace coulter {

using namespace distance;

namespace {

/// Surfaces over a floor need no unit in common with it: unless scales are to be equal, the floor's sides are as long
/// as each other, or up to twice that where both have one unit, and heights take six tenths of that. In any case
/// heights are stretched as the view says.
void stretchBox(SpaceBox& box, const Given& given) {
    const auto isOverFloor = [](const Drawn& drawn) {
        const Field* field = fieldOf(drawn);
        return field && field->inSpace && !field->isParametric();
    };
    if (std::ranges::any_of(given.reading.drawn, isOverFloor) && !given.panel.equalScales.value_or(false)) {
        const auto& maps = box.maps;
        const bool same = given.rules[acrossScale].unit == given.rules[upScale].unit;
        const double ratio = maps[1].length / maps[0].length, wanted = same ? std::clamp(ratio, 0.5, 2.0) : 1;
        box.stretch[1] = wanted / ratio;
        box.stretch[2] = 0.6 * std::min(1.0, wanted) * maps[0].length / maps[2].length;
    }
    box.stretch[2] *= given.panel.view.height;
    for (std::size_t k = 0; k < 3; ++k) {
        box.axes.right[k] *= box.stretch[k];
        box.axes.up[k] *= box.stretch[k];
        box.axes.towards[k] *= box.stretch[k];
    }
    double square = 0;
    for (std::size_t k = 0; k < 3; ++k) square += std::pow(box.maps[k].length * box.stretch[k], 2);
    box.distance = given.panel.view.distance * std::sqrt(square);
}

/// How many times larger heights are drawn than lengths to the right and upwards on the floor; none where their units
/// are not of one kind, or a scale is logarithmic.
std::optional<std::array<double, 2>> exaggerationOf(const SpaceBox& box, const ScaleRules& rules) {
    std::array<double, 2> found{};
    for (std::size_t k = 0; k < 2; ++k) {
        if (box.maps[k].kind != ScaleKind::Linear || box.maps[2].kind != ScaleKind::Linear) return std::nullopt;
        const auto floor = unitConversion(rules[k].pageUnit, rules[uprightScale].pageUnit);
        if (!floor) return std::nullopt;
        found[k] = box.stretch[2] / (box.stretch[k] / floor->factor);
    }
    return found;
}

std::string wordsOf(const std::array<double, 2>& exaggeration, const PanelLabels& labels) {
    const auto times = [](double factor) { return "× " + roundedNumber(factor, 3); };
    if (std::abs(exaggeration[0] - exaggeration[1]) < 0.005 * exaggeration[0])
        return "vertical exaggeration " + times(exaggeration[0]);
    return "vertical exaggeration " + times(exaggeration[0]) + " against " + labels.across + ", " +
           times(exaggeration[1]) + " against " + labels.up;
}

/// The box round what is shown. A logarithmic scale is as long as the longest linear one.
SpaceBox boxOf(const Given& given) {
    SpaceBox box;
    box.axes = viewAxes(given.panel.view);
    const Axis* const axes[] = {&given.panel.x, &given.panel.y, &given.panel.z};
    double longest = 0;
    for (std::size_t k = 0; k < 3; ++k) {
        const Limits& l = (*given.look.space)[k];
        box.maps[k] = {axes[k]->scale.value_or(ScaleKind::Linear), l.low, l.high, l.high - l.low};
        box.reversed[k] = truth(axes[k]->settings, reversedSetting);
        if (box.maps[k].kind == ScaleKind::Linear) longest = std::max(longest, box.maps[k].length);
    }
    for (AxisMap& map : box.maps) {
        if (map.kind == ScaleKind::Logarithmic) map.length = longest > 0 ? longest : 1;
    }
    stretchBox(box, given);
    return box;
}

/// A coarse look as the box's scales have it.
PanelLook lookInBox(PanelLook look, const SpaceBox& box) {
    for (CoarseLook& each : look.coarse) {
        const std::size_t count = each.space[0].size();
        if (box.isPlain() && each.x.size() == count) continue; // seen so already
        each.x.assign(count, 0);
        each.y.assign(count, 0);
        for (std::size_t i = 0; i < count; ++i) {
            for (std::size_t k = 0; k < 3; ++k) {
                const double at = box.along(k, each.space[k][i]);
                each.x[i] += box.axes.right[k] * at;
                each.y[i] += box.axes.up[k] * at;
            }
        }
    }
    return look;
}

} // namespace

/// A view of space: as large as its room lets it be, with room for numbers around it.
PanelLayout layoutSpace(PanelLayout layout, const Given& given, double top, double height) {
    const SpaceBox box = boxOf(given);
    layout.frame.space = box;
    Limits u{HUGE_VAL, -HUGE_VAL}, v = u;
    for (unsigned corner = 0; corner < 8; ++corner) {
        Place place{};
        for (unsigned k = 0; k < 3; ++k) place[k] = (corner >> k & 1U) != 0 ? box.maps[k].high : box.maps[k].low;
        const auto [right, up, towards] = box.seen(place);
        u = {std::min(u.low, right), std::max(u.high, right)};
        v = {std::min(v.low, up), std::max(v.high, up)};
    }
    layoutColours(layout, given, 0.7 * height);
    const double margin = 4 * layout.sizes.number,
                 besides = barRoom(layout, BarSide::Left) + barRoom(layout, BarSide::Right);
    const double size = layout.sizes.text;
    layout.space.labels = {given.box(given.labels.across, size), given.box(given.labels.up, size),
                           given.box(given.labels.upright, size)};
    // Room for the label of the upright scale, which stands at the left, but no more than a third of the panel.
    layout.space.leftmost = given.room.x + edge;
    const double wanted = layout.format >= 6 ? layout.space.labels[2].width - labelOver : 0,
                 left = std::max(margin, std::min(wanted, given.room.width / 3));
    const auto frameOf = [&](double legendRoom) {
        return Rect{given.room.x + edge + left + barRoom(layout, BarSide::Left), given.room.y + top,
                    std::max(5.0, given.room.width - 2 * edge - left - margin - legendRoom - besides),
                    std::max(5.0, height)};
    };
    const auto limitsIn = [&](const Rect& frame) {
        return withEqualScales({u, v, ScaleKind::Linear, ScaleKind::Linear}, Panel{}, frame.width, frame.height);
    };
    Rect frame = frameOf(0);
    layout.legend = decideLegend(given.page, given.panel, given.reading, lookInBox(given.look, box), limitsIn(frame),
                                 frame.width, frame.height, layout.sizes.text);
    // There are no right ends for labels to stand at.
    if (layout.legend.place == LegendPlace::AtEnds) layout.legend.place = LegendPlace::Outside;
    if (layout.legend.place == LegendPlace::Outside && !given.panel.legend.at)
        frame = frameOf(legendGap + layout.legend.width);
    layout.frame.rect = frame;
    placeColourBar(layout,
                   layout.colours.side == BarSide::Left || layout.colours.side == BarSide::Right ? margin : 2 * margin);
    layout.frame.map = limitsIn(frame).map(frame.width, frame.height);
    layout.xLabel = layout.yLabel = {};
    if (truth(given.panel.z.settings, exaggerationSetting)) {
        if (const auto times = exaggerationOf(box, given.rules)) layout.space.stated = wordsOf(*times, given.labels);
        layout.space.exaggeration = given.box(layout.space.stated, layout.sizes.number);
    }
    static constexpr std::size_t scaleOf[] = {acrossScale, upScale, uprightScale};
    for (std::size_t k = 0; k < 3; ++k)
        layout.space.ticks[k] = ticksBy(given.rules[scaleOf[k]].ticks, box.maps[k].low, box.maps[k].high, 4);
    placeLegend(layout, given);
    return layout;
}

} // namespace coulter
