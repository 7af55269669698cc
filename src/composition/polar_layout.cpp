#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {

using namespace distance;

namespace {

constexpr double turn = 2 * std::numbers::pi;

/// A part of the plane round the middle, y upwards.
struct PolarBounds {
    double left = 0, right = 0, bottom = 0, top = 0; // the middle always belongs to it
    void hold(double angle) {
        left = std::min(left, std::cos(angle));
        right = std::max(right, std::cos(angle));
        bottom = std::min(bottom, std::sin(angle));
        top = std::max(top, std::sin(angle));
    }
};

/// Round the part that is shown of a circle of radius 1.
PolarBounds boundsOf(const PolarFrame& polar) {
    PolarBounds bounds;
    if (polar.isWhole()) return {-1, 1, -1, 1};
    const auto [low, high] = std::minmax({polar.turned(polar.from), polar.turned(polar.to)});
    bounds.hold(low);
    bounds.hold(high);
    for (double quarter = std::ceil(low / (turn / 4)); quarter * turn / 4 <= high; ++quarter)
        bounds.hold(quarter * turn / 4);
    return bounds;
}

/// A coarse look as the frame has it, in mm from its middle; with the outermost circle, which the legend spares, too.
/// @param numbers  how wide and high those round it are, mm; none are spared up to format 5
PanelLook lookRound(PanelLook look, const PolarFrame& polar, std::array<double, 2> numbers) {
    PolarFrame round = polar;
    round.middle = {0, 0};
    for (CoarseLook& each : look.coarse) {
        for (std::size_t i = 0; i < each.x.size(); ++i) {
            const Point p = round.onSheet(each.x[i], each.y[i]);
            each.x[i] = p.x;
            each.y[i] = -p.y;
        }
    }
    CoarseLook rim;
    for (int i = 0; i <= 100; ++i) {
        const double to = polar.isWhole() ? polar.from + turn : polar.to;
        const Point p = round.onSheet(polar.from + (to - polar.from) * i / 100, polar.radius.high);
        rim.x.push_back(p.x);
        rim.y.push_back(-p.y);
    }
    for (int i = 0; numbers[0] > 0 && i <= 60; ++i) {
        const double to = polar.isWhole() ? polar.from + turn : polar.to;
        const Point p = round.onSheet(polar.from + (to - polar.from) * i / 60, polar.radius.high);
        const double length = std::hypot(p.x, p.y), x = p.x + p.x / length * numbers[0] / 2,
                     y = -p.y - p.y / length * numbers[1] / 2;
        for (const double beside : {-0.5, 0.0, 0.5}) {
            rim.x.push_back(x + beside * numbers[0]);
            rim.y.push_back(y);
        }
    }
    look.coarse.push_back(std::move(rim));
    return look;
}

/// Numbers round the rim: every 30° where nothing else is said, and none twice.
Ticks angleTicks(TickRules rules, const PolarFrame& polar) {
    if (rules.numbers == NumberStyle::Automatic && rules.shown.isNone()) rules.numbers = NumberStyle::Degrees;
    // Of several turns one is numbered.
    const double from = polar.isWhole() ? std::ceil(polar.from / turn - 1e-9) * turn : polar.from,
                 to = polar.isWhole() ? from + turn : polar.to;
    Ticks ticks = ticksBy(rules, from, to, std::max(2.0, 12 * (to - from) / turn));
    if (polar.isWhole() && ticks.places.size() > 1 && ticks.places.back() > ticks.places.front() + turn * (1 - 1e-9)) {
        ticks.places.pop_back();
        ticks.labels.pop_back();
    }
    return ticks;
}

/// Where the radius' own scale runs: below the panel to the right, or wherever there is a whole radius beside it.
Point directionOf(const PolarBounds& bounds) {
    if (bounds.right > 0.999) return {1, 0};
    if (bounds.left < -0.999) return {-1, 0};
    return bounds.top > 0.999 ? Point{0, -1} : Point{0, 1};
}

} // namespace

/// Angles that are shown, and radii: from zero or from the end that was set out to the largest.
PolarFrame polarFrame(const Panel& panel, const PanelLook& look) {
    const PanelLimits limits = panelLimits(panel, look.extents, 4);
    PolarFrame polar;
    polar.radius = {limits.yScale, limits.y.low, limits.y.high, 1};
    const AxisLimits& set = panel.y.limits;
    if (limits.yScale == ScaleKind::Linear) {
        if (!set.low) polar.radius.low = 0;
        if (!set.high) polar.radius.high = std::max(std::abs(limits.y.low), std::abs(limits.y.high));
        if (!(polar.radius.low < polar.radius.high)) polar.radius.high = polar.radius.low + 1;
    }
    polar.zero = static_cast<double>(word(panel.angle, zeroDirectionSetting)) * turn / 4;
    polar.sense = truth(panel.x.settings, reversedSetting) ? -1 : 1;
    polar.from = limits.x.low;
    polar.to = limits.x.high;
    return polar;
}

PanelLayout layoutPolar(PanelLayout layout, const Given& given, double top, double height) {
    PolarFrame polar = polarFrame(given.panel, given.look);
    const PolarBounds bounds = boundsOf(polar);
    const Em size = layout.sizes.number;
    layout.polar.angles = angleTicks(given.rules[acrossScale].ticks, polar);
    const double side = widestLabel(layout.polar.angles, size) + 1.2, above = size + 0.6;
    layout.polar.direction = directionOf(bounds);
    // An upright scale of the radius has its room at the left.
    const double left = layout.polar.direction.y == 0 ? 0 : scaleOffset + tick + toNumber + 4 * size.mm;
    const auto fitted = [&](double legendRoom) {
        const double width = std::max(5.0, given.room.width - 2 * (edge + side) - left - legendRoom),
                     high = std::max(5.0, height - 2 * above);
        polar.radius.length = std::min(width / (bounds.right - bounds.left), high / (bounds.top - bounds.bottom));
        const double r = polar.radius.length, w = r * (bounds.right - bounds.left),
                     h = r * (bounds.top - bounds.bottom);
        const Rect rect{given.room.x + edge + left + side + (width - w) / 2,
                        given.room.y + top + above + (high - h) / 2, w, h};
        polar.middle = {rect.x - r * bounds.left, rect.y + r * bounds.top};
        layout.frame.rect = rect;
        layout.frame.map = {{ScaleKind::Linear, rect.x - polar.middle.x, rect.right() - polar.middle.x, w},
                            {ScaleKind::Linear, polar.middle.y - rect.bottom(), polar.middle.y - rect.y, h}};
    };
    fitted(0);
    const auto decided = [&] {
        const PanelMap& map = layout.frame.map;
        const PanelLimits limits{
            {map.x.low, map.x.high}, {map.y.low, map.y.high}, ScaleKind::Linear, ScaleKind::Linear};
        return decideLegend(
            given.page, given.panel, given.reading,
            lookRound(given.look, polar,
                      layout.format.labelsClearNumbers ? std::array{side, above} : std::array{0.0, 0.0}),
            limits, layout.frame.rect.width, layout.frame.rect.height, layout.sizes.text);
    };
    layout.legend = decided();
    // There are no right ends for labels to stand at.
    if (layout.legend.place == LegendPlace::AtEnds) layout.legend.place = LegendPlace::Outside;
    const bool outside = layout.legend.place == LegendPlace::Outside && !given.panel.legend.at;
    if (outside) fitted(layout.legend.width + legendGap);
    layout.frame.polar = polar;
    layout.yTicks = clearTicks(given.rules[upScale].ticks, polar.radius, size);
    // The radius' scale stands below, where the horizontal scale of a plane panel is; the angle is named above.
    layout.xLabel = given.box(given.labels.up, layout.sizes.text);
    layout.yLabel = given.box(given.labels.across, layout.sizes.text);
    placeLegend(layout, given);
    if (outside)
        layout.legend.rect.x = std::min(layout.legend.rect.x + side, given.room.right() - edge - layout.legend.width);
    return layout;
}

} // namespace coulter
