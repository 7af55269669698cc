#include "composition/polar_parts.h"

#include "composition/layout_parts.h"
#include "drawing/canvas.h"
#include "drawing/colours.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {

using namespace distance;

namespace {

constexpr double rimWidth = 0.18, gridWidth = 0.12; // mm
constexpr double fullTurn = 2 * std::numbers::pi;

void stroke(Scene& scene, Polylines lines, Colour colour, double width) {
    scene.items.emplace_back(StrokeItem{std::move(lines), colour, width, {}, false});
}

/// Part of a circle round the middle, as far as it is shown.
std::vector<Point> arc(const PolarFrame& polar, double r) {
    const double to = polar.isWhole() ? polar.from + fullTurn : polar.to;
    // Chords that stay within a hundredth of a mm.
    const double mm = std::max(0.1, polar.radius.toSheet(r)), step = 2 * std::acos(std::max(0.0, 1 - 0.005 / mm));
    const int parts = std::max(8, static_cast<int>(std::ceil((to - polar.from) / step)));
    std::vector<Point> points;
    for (int i = 0; i <= parts; ++i) points.push_back(polar.onSheet(polar.from + (to - polar.from) * i / parts, r));
    return points;
}

} // namespace

void drawPolarGrid(Scene& scene, const PanelLayout& layout) {
    const PolarFrame& polar = *layout.frame.polar;
    const AxisMap& radius = polar.radius;
    Polylines lines;
    for (const double r : layout.yTicks.places) {
        if (radius.toSheet(r) > 0.01 && radius.toSheet(r) < radius.length - 0.01) lines.push_back(arc(polar, r));
    }
    for (const double angle : layout.polar.angles.places)
        lines.push_back({polar.middle, polar.onSheet(angle, radius.high)});
    stroke(scene, std::move(lines), gridColour, gridWidth);
    Polylines rim{arc(polar, radius.high)};
    if (!polar.isWhole()) {
        rim[0].insert(rim[0].begin(), polar.middle);
        rim[0].push_back(polar.middle);
    }
    stroke(scene, std::move(rim), inkColour, rimWidth);
}

void drawPolarScales(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout) {
    const PolarFrame& polar = *layout.frame.polar;
    const Rect& f = layout.frame.rect;
    const Em size = layout.sizes.number;
    const auto hit = [&](ItemKind kind, std::size_t which, const Rect& rect) {
        hits.push_back({{kind, panel, which, 0}, rect});
    };
    const auto label = [&](const Box& box, std::size_t which, double x, double baseline) {
        addBox(scene, box, x, baseline, inkColour);
        if (box.height() > 0) hit(ItemKind::ScaleLabel, which, {x, baseline - box.ascent, box.width, box.height()});
    };
    Polylines lines;
    // Angles: each number beyond the rim, as far as it needs in its direction.
    for (std::size_t i = 0; i < layout.polar.angles.places.size(); ++i) {
        const double phi = polar.turned(layout.polar.angles.places[i]), c = std::cos(phi), s = std::sin(phi);
        const Point rim = polar.onSheet(layout.polar.angles.places[i], polar.radius.high);
        lines.push_back({rim, {rim.x + 0.8 * c, rim.y - 0.8 * s}});
        const Box number = tickBox(layout.polar.angles, i, size);
        const double reach = 1.4, cap = 0.66 * size;
        const Point middle{rim.x + c * (reach + number.width / 2), rim.y - s * (reach + cap / 2)};
        addBox(scene, number, middle.x - number.width / 2, middle.y + cap / 2, inkColour);
        hit(ItemKind::Scale, acrossScale, {middle.x - number.width / 2, middle.y - cap / 2, number.width, cap});
    }
    // The radius: from below the middle out to below the rim.
    const Point along = layout.polar.direction;
    const bool level = along.y == 0;
    const double widest = widestLabel(layout.polar.angles, size);
    const double offset = scaleOffset + 0.6 + (level ? size.mm : widest);
    const Point start = level ? Point{polar.middle.x, f.bottom() + offset} : Point{f.x - offset, polar.middle.y};
    const auto at = [&](double r) {
        const double mm = polar.radius.toSheet(r);
        return Point{start.x + along.x * mm, start.y + along.y * mm};
    };
    const Point end = at(polar.radius.high);
    lines.push_back({start, end});
    double reach = 0;
    for (std::size_t i = 0; i < layout.yTicks.places.size(); ++i) {
        const Point p = at(layout.yTicks.places[i]);
        lines.push_back({p, level ? Point{p.x, p.y + tick} : Point{p.x - tick, p.y}});
        if (layout.yTicks.labels[i].empty()) continue;
        const Box number = tickBox(layout.yTicks, i, size);
        const double x = level ? p.x - number.width / 2 : p.x - tick - toNumber - number.width,
                     baseline = level ? p.y + tick + 0.6 + 0.72 * size : p.y + 0.33 * size;
        addBox(scene, number, x, baseline, inkColour);
        reach = std::max(reach, level ? baseline + number.descent - p.y : p.x - x);
    }
    for (const double minor : layout.yTicks.minor) {
        const Point p = at(minor);
        lines.push_back({p, level ? Point{p.x, p.y + tick / 2} : Point{p.x - tick / 2, p.y}});
    }
    stroke(scene, std::move(lines), inkColour, rimWidth);
    const double left = std::min(start.x, end.x), upper = std::min(start.y, end.y);
    hit(ItemKind::Scale, upScale,
        level ? Rect{left, upper - 0.5, std::abs(end.x - start.x), reach + 0.5}
              : Rect{start.x - reach, upper, reach + 0.5, std::abs(end.y - start.y)});
    const Box& radius = layout.xLabel;
    if (level)
        label(radius, upScale,
              std::clamp((start.x + end.x) / 2 - radius.width / 2, layout.room.x + edge,
                         std::max(layout.room.x + edge, layout.room.right() - edge - radius.width)),
              start.y + reach + 0.8 + radius.ascent);
    else
        label(radius, upScale, std::max(layout.room.x + edge, start.x - reach),
              upper - layout.toLabel() - radius.descent);
    label(layout.yLabel, acrossScale, level ? layout.room.x + edge : f.right() - layout.yLabel.width,
          f.y - size - 3 - layout.yLabel.descent);
}

} // namespace coulter
