#include "composition/colour_bar.h"
#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "composition/space_parts.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"
#include "formula/base/text.h"
#include "formula/notation/units.h"

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

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

/// Paper beside the frame of a view for its numbers and labels, mm.
struct Around {
    double left = 0, right = 0, top = 0, bottom = 0;
};

/// What is seen of a box, on the sheet or in mm to the right and upwards.
template <typename Seen> std::pair<Limits, Limits> boundsOf(const SpaceBox& box, const Seen& seen) {
    Limits across{HUGE_VAL, -HUGE_VAL}, up = across;
    for (unsigned corner = 0; corner < 8; ++corner) {
        Place place{};
        for (unsigned k = 0; k < 3; ++k) place[k] = (corner >> k & 1U) != 0 ? box.maps[k].high : box.maps[k].low;
        const auto [x, y] = seen(place);
        across = {std::min(across.low, x), std::max(across.high, x)};
        up = {std::min(up.low, y), std::max(up.high, y)};
    }
    return {across, up};
}

/// How far numbers and labels reach beyond the box.
/// @param sideways  as far as labels count at most to the left and to the right, mm: they can be moved
Around reachBeyond(const SpaceBox& box, const std::vector<Hit>& scales, const Frame& frame, double sideways) {
    const auto [across, down] = boundsOf(box, [&](const Place& place) {
        const Point at = frame.onSheet(place);
        return std::pair{at.x, at.y};
    });
    Around reach;
    for (const Hit& hit : scales) {
        const double most = hit.path.kind == ItemKind::Scale ? HUGE_VAL : sideways;
        reach.left = std::max(reach.left, std::min(most, across.low - hit.rect.x));
        reach.right = std::max(reach.right, std::min(most, hit.rect.right() - across.high));
        reach.top = std::max(reach.top, down.low - hit.rect.y);
        reach.bottom = std::max(reach.bottom, hit.rect.bottom() - down.high);
    }
    return reach;
}

/// Between title and bars. Up to format 5 as high as a panel of the plane.
/// @param said  height of the words about heights, below
Rect roomOfView(const PanelLayout& layout, const Given& given, double said, double top, double height) {
    Rect room{given.room.x + edge + barRoom(layout, BarSide::Left), given.room.y + top,
              given.room.width - 2 * edge - barRoom(layout, BarSide::Left) - barRoom(layout, BarSide::Right), height};
    if (!layout.format.spaceFillsRoom) return room;
    const double title = std::max(layout.title.height(), layout.letter.height());
    room.y = given.room.y + edge + (title > 0 ? title + 2.2 : 0) + barRoom(layout, BarSide::Above);
    if (layout.colours.shown && layout.colours.isUpright() && layout.colours.label.height() > 0)
        room.y += layout.colours.label.height() + layout.toLabel(); // which stands over the bar
    room.height = given.room.bottom() - edge - barRoom(layout, BarSide::Below) - (said > 0 ? said + 1.5 : 0) - room.y;
    return room;
}

/// The box in its room.
class BoxInRoom {
public:
    BoxInRoom(PanelLayout& layout, const SpaceBox& box, const Rect& room) : layout_(layout), box_(box), room_(room) {
        std::tie(u_, v_) = boundsOf(box, [&](const Place& place) {
            const auto [right, up, towards] = box.seen(place);
            return std::pair{right, up};
        });
        // Up to format 5 there was as much paper wherever the labels stand.
        if (!layout.format.spaceFillsRoom) around_.left = around_.right = 4 * layout.sizes.number.mm;
    }

    PanelLimits limits() const {
        const Rect& frame = layout_.frame.rect;
        return withEqualScales({u_, v_, ScaleKind::Linear, ScaleKind::Linear}, Panel{}, frame.width, frame.height);
    }

    /// As large as numbers and labels let it be.
    void place(double legendRoom) {
        if (layout_.format.spaceFillsRoom) around_ = {};
        placeFrame(legendRoom);
        // What reaches beyond the box does so by nearly as much on a frame of another size.
        for (int round = 0; layout_.format.spaceFillsRoom && round < 3; ++round) {
            around_ = wider(around_, needed());
            placeFrame(legendRoom);
        }
        const BarSide side = layout_.colours.side;
        if (!layout_.format.spaceFillsRoom)
            placeColourBar(layout_, (side == BarSide::Left || side == BarSide::Right ? 1 : 2) * around_.left);
        else
            placeColourBar(layout_, side == BarSide::Left    ? around_.left
                                    : side == BarSide::Right ? around_.right
                                    : side == BarSide::Above ? around_.top
                                                             : around_.bottom);
    }

    /// Where numbers and labels are.
    std::vector<Hit> scales() const {
        Scene scene;
        std::vector<Hit> hits;
        drawSpaceScales(scene, hits, 0, layout_);
        return hits;
    }

private:
    /// The same as if the paper were as wide as they like.
    std::vector<Hit> scalesAnywhere() {
        const double first = std::exchange(layout_.space.first, -HUGE_VAL),
                     last = std::exchange(layout_.space.last, HUGE_VAL);
        std::vector<Hit> found = scales();
        layout_.space.first = first;
        layout_.space.last = last;
        return found;
    }
    Around needed() {
        Around around = wider(reachBeyond(box_, scales(), layout_.frame, 0),
                              reachBeyond(box_, scalesAnywhere(), layout_.frame, room_.width / 6));
        // The label of the upright scale stands at the left, off what is drawn, unless it is very long.
        const double label = layout_.space.labels[2].width - labelOver;
        around.left = std::max(around.left, std::min(label, room_.width / 3));
        if (!layout_.colours.isUpright()) { // half of an end's number hangs over the bar
            const double half =
                layout_.colours.shown ? widestLabel(layout_.colours.ticks, layout_.sizes.number) / 2 : 0;
            around.left = std::max(around.left, half);
            around.right = std::max(around.right, half);
        }
        return around;
    }
    static Around wider(const Around& a, const Around& b) {
        return {std::max(a.left, b.left), std::max(a.right, b.right), std::max(a.top, b.top),
                std::max(a.bottom, b.bottom)};
    }

    void placeFrame(double legendRoom) {
        Rect& frame = layout_.frame.rect;
        frame = {room_.x + around_.left, room_.y + around_.top,
                 std::max(5.0, room_.width - around_.left - around_.right - legendRoom),
                 std::max(5.0, room_.height - around_.top - around_.bottom)};
        layout_.frame.map = limits().map(frame.width, frame.height);
    }

    PanelLayout& layout_;
    const SpaceBox& box_;
    Rect room_;
    Limits u_, v_;
    Around around_;
};

} // namespace

/// A view of space: as large as its room lets it be, with room for numbers around it.
PanelLayout layoutSpace(PanelLayout layout, const Given& given, double top, double height) {
    const SpaceBox box = boxOf(given);
    layout.frame.space = box;
    layoutColours(layout, given, 0.7 * height);
    const Em size = layout.sizes.text;
    layout.space.labels = {given.box(given.labels.across, size), given.box(given.labels.up, size),
                           given.box(given.labels.upright, size)};
    layout.space.first = given.room.x + edge + barRoom(layout, BarSide::Left);
    layout.space.last = given.room.right() - edge - barRoom(layout, BarSide::Right);
    layout.xLabel = layout.yLabel = {};
    Box exaggeration;
    if (truth(given.panel.z.settings, exaggerationSetting)) {
        if (const auto times = exaggerationOf(box, given.rules)) layout.space.stated = wordsOf(*times, given.labels);
        exaggeration = given.box(layout.space.stated, layout.sizes.number);
    }
    static constexpr std::size_t scaleOf[] = {acrossScale, upScale, uprightScale};
    for (std::size_t k = 0; k < 3; ++k)
        layout.space.ticks[k] = ticksBy(given.rules[scaleOf[k]].ticks, box.maps[k].low, box.maps[k].high, 4);

    BoxInRoom view(layout, box, roomOfView(layout, given, exaggeration.height(), top, height));
    view.place(0);
    const Rect frame = layout.frame.rect;
    layout.legend = decideLegend(given.page, given.panel, given.reading, lookInBox(given.look, box), view.limits(),
                                 frame.width, frame.height, size);
    // There are no right ends for labels to stand at.
    if (layout.legend.place == LegendPlace::AtEnds) layout.legend.place = LegendPlace::Outside;
    const bool isFree = given.panel.legend.place == LegendPlace::Automatic && !given.panel.legend.at;
    if (layout.format.spaceFillsRoom && isFree && !layout.legend.entries.empty()) {
        Rect rect = legendRectInPanel(layout.legend, {}, frame.width, frame.height).grown(1);
        rect.x += frame.x;
        rect.y += frame.y;
        if (std::ranges::any_of(view.scales(), [&](const Hit& hit) { return hit.rect.intersects(rect); }))
            layout.legend.place = LegendPlace::Outside;
    }
    const bool outside = layout.legend.place == LegendPlace::Outside && !given.panel.legend.at;
    if (outside) view.place(legendGap + layout.legend.width);
    if (layout.format.spaceFillsRoom) {
        const Rect paper{layout.space.first, given.room.y, layout.space.last - layout.space.first,
                         given.room.height - 1};
        layout.space.hasRoom = std::ranges::all_of(view.scales(), [&](const Hit& hit) {
            return paper.grown(0.1).contains({hit.rect.x, hit.rect.y}) &&
                   paper.grown(0.1).contains({hit.rect.right(), hit.rect.bottom()});
        });
    }
    layout.space.exaggeration = std::move(exaggeration);
    placeLegend(layout, given);
    if (outside && layout.format.spaceFillsRoom) {
        // placeLegend leaves no room for what hangs over the frame's right side.
        layout.legend.rect.x = given.room.right() - edge - layout.legend.width;
    }
    return layout;
}

} // namespace coulter
