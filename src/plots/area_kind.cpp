// The area between a curve and another one, usually zero.
#include "plots/common_settings.h"
#include "plots/curve_source.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting opacitySetting{.key = "opacity",
                             .label = "opacity",
                             .meaning = "1 hides what is below, 0 shows nothing",
                             .type = SettingType::Number,
                             .usual = 0.3,
                             .least = 0,
                             .greatest = 1,
                             .step = 0.05};

const Setting* const settings[] = {&toSetting, &colourSetting, &opacitySetting};

Paint paintOf(const Drawn& drawn) { return {drawn.colour, number(drawn.settings, opacitySetting)}; }

/// A stretch on the sheet from one value of the variable to another, as its chords have it there.
std::vector<Point> between(const Stretch& stretch, double low, double high, const Frame& frame) {
    std::vector<Point> points;
    const auto place = [&](std::size_t i) {
        Point p = frame.onSheet(stretch.x[i], stretch.y[i]);
        if (!std::isfinite(p.y)) p.y = frame.beyondZero(); // below all that a logarithmic scale shows
        return p;
    };
    const auto on = [&](std::size_t i, double x) { // on the chord that ends at point i
        const Point a = place(i - 1), b = place(i);
        const double at = frame.onSheet(x, 1).x, part = b.x != a.x ? std::clamp((at - a.x) / (b.x - a.x), 0.0, 1.0) : 0;
        return Point{at, a.y + part * (b.y - a.y)};
    };
    for (std::size_t i = 0; i < stretch.x.size(); ++i) {
        const double x = stretch.x[i];
        if (i > 0 && stretch.x[i - 1] < low && x > low) points.push_back(on(i, low));
        if (x >= low && x <= high) points.push_back(place(i));
        if (i > 0 && stretch.x[i - 1] < high && x > high) points.push_back(on(i, high));
    }
    return points;
}

/// One polygon wherever both curves are there; where they cross it turns inside out, which fills both sides.
void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    Polylines polygons;
    for (const Stretch& upper : curveSamplesOf(drawn, 0)->stretches) {
        for (const Stretch& lower : curveSamplesOf(drawn, 1)->stretches) {
            const double low = std::max(upper.x.front(), lower.x.front()),
                         high = std::min(upper.x.back(), lower.x.back());
            if (!(low < high)) continue;
            std::vector<Point> polygon = between(upper, low, high, frame), back = between(lower, low, high, frame);
            polygon.insert(polygon.end(), back.rbegin(), back.rend());
            polygons.push_back(std::move(polygon));
        }
    }
    canvas.fill(polygons, paintOf(drawn));
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double top = rect.y + 0.2 * rect.height, bottom = rect.y + 0.8 * rect.height;
    canvas.fill({{{rect.x, top}, {rect.right(), top}, {rect.right(), bottom}, {rect.x, bottom}}}, paintOf(drawn));
}

} // namespace

extern const PlotKind areaKind;
const PlotKind areaKind{.name = "area",
                        .meaning = "the area between a curve and zero, or between two curves",
                        .runs = Runs::Along,
                        .layer = Layer::Area,
                        .settings = settings,
                        .fits = isNumberAlongOne,
                        .read = readCurvesWithFoot,
                        .draw = draw,
                        .swatch = swatch};

} // namespace coulter
