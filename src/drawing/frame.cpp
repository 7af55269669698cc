#include "drawing/frame.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace coulter {

ViewAxes viewAxes(const View& view) {
    const double degree = std::numbers::pi / 180;
    const double ca = std::cos(view.azimuth * degree), sa = std::sin(view.azimuth * degree),
                 ce = std::cos(view.elevation * degree), se = std::sin(view.elevation * degree);
    return {{ca, sa, 0}, {-sa * se, ca * se, ce}};
}

bool SpaceBox::isPlain() const {
    return std::ranges::all_of(maps, [](const AxisMap& map) { return map.kind == ScaleKind::Linear; }) &&
           std::ranges::none_of(reversed, [](bool each) { return each; });
}

double SpaceBox::along(std::size_t k, double value) const {
    const double place = maps[k].kind == ScaleKind::Logarithmic ? maps[k].toSheet(value) : value;
    return reversed[k] ? -place : place;
}

double SpaceBox::faceAt(Face face) const { return along(static_cast<std::size_t>(face), faceValue(face)); }

double SpaceBox::faceValue(Face face) const {
    const auto k = static_cast<std::size_t>(face);
    const double low = along(k, maps[k].low), high = along(k, maps[k].high);
    // Towards the eye: across both directions of the sheet.
    const auto& [right, up] = axes;
    const double towards = k == 0 ? right[1] * up[2] - right[2] * up[1] : right[2] * up[0] - right[0] * up[2];
    const bool lowest = face == Face::Floor ? low < high : towards * low < towards * high;
    return lowest ? maps[k].low : maps[k].high;
}

bool PolarFrame::isWhole() const { return to - from >= 2 * std::numbers::pi * (1 - 1e-12); }

Point PolarFrame::onSheet(double angle, double r) const {
    const double rho = radius.toSheet(r), phi = turned(angle);
    return {middle.x + rho * std::cos(phi), middle.y - rho * std::sin(phi)};
}

Point Frame::onSheet(const Place& place) const {
    double right = 0, up = 0;
    for (std::size_t k = 0; k < 3; ++k) {
        const double at = space->along(k, place[k]);
        right += space->axes.right[k] * at;
        up += space->axes.up[k] * at;
    }
    return onSheet(right, up);
}

std::vector<Point> onSheet(const Frame& frame, const std::vector<double>& x, const std::vector<double>& y) {
    std::vector<Point> places(x.size());
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, x.size(), 16'384), [&](const auto& part) {
        for (std::size_t i = part.begin(); i < part.end(); ++i) places[i] = frame.onSheet(x[i], y[i]);
    });
    return places;
}

} // namespace coulter
