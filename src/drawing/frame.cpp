#include "drawing/frame.h"

#include "drawing/places_on_sheet.h"

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
    return {{ca, sa, 0}, {-sa * se, ca * se, ce}, {sa * ce, -ca * ce, se}};
}

bool SpaceBox::isPlain() const {
    return std::ranges::all_of(maps, [](const AxisMap& map) { return map.kind == ScaleKind::Linear; }) &&
           std::ranges::none_of(reversed, [](bool each) { return each; }) &&
           std::ranges::all_of(stretch, [](double each) { return each == 1; });
}

std::array<double, 3> SpaceBox::seen(const Place& place) const {
    std::array<double, 3> found{};
    const auto add = [&](std::size_t k, double at) {
        found[0] += axes.right[k] * at;
        found[1] += axes.up[k] * at;
        found[2] += axes.towards[k] * at;
    };
    for (std::size_t k = 0; k < 3; ++k) add(k, along(k, place[k]));
    if (distance == 0) return found;
    std::array<double, 3> middle{};
    for (std::size_t k = 0; k < 3; ++k) {
        const double at = (along(k, maps[k].low) + along(k, maps[k].high)) / 2;
        middle[0] += axes.right[k] * at;
        middle[1] += axes.up[k] * at;
        middle[2] += axes.towards[k] * at;
    }
    const double nearer = distance / std::max(1e-9, distance - (found[2] - middle[2]));
    return {middle[0] + (found[0] - middle[0]) * nearer, middle[1] + (found[1] - middle[1]) * nearer,
            middle[2] + (found[2] - middle[2]) * nearer}; // planes stay planes
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
    const double towards = k == 0 ? axes.right[1] * axes.up[2] - axes.right[2] * axes.up[1]
                                  : axes.right[2] * axes.up[0] - axes.right[0] * axes.up[2];
    const bool lowest = face == Face::Floor ? low < high : towards * low < towards * high;
    return lowest ? maps[k].low : maps[k].high;
}

bool PolarFrame::isWhole() const { return to - from >= 2 * std::numbers::pi * (1 - 1e-12); }

Point PolarFrame::onSheet(double angle, double r) const {
    const double rho = radius.toSheet(r), phi = turned(angle);
    return {middle.x + rho * std::cos(phi), middle.y - rho * std::sin(phi)};
}

Frame Frame::onScale(std::size_t number) const {
    Frame frame = *this;
    if (number == 0 || number > further.size()) return frame;
    frame.map.y = further[number - 1].map;
    frame.downwards = further[number - 1].downwards;
    return frame;
}

Point Frame::onSheet(const Place& place) const {
    const auto [right, up, towards] = space->seen(place);
    return onSheet(right, up);
}

SeenPoint Frame::seen(const Place& place) const {
    const auto [right, up, towards] = space->seen(place);
    const Point at = onSheet(right, up);
    return {at.x, at.y, towards * map.x.length / (map.x.high - map.x.low)};
}

std::vector<Point> onSheet(const Frame& frame, const std::vector<double>& x, const std::vector<double>& y) {
    std::vector<Point> places(x.size());
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, x.size(), 16'384), [&](const auto& part) {
        const auto stretch = [&](auto& numbers) { return std::span(numbers).subspan(part.begin(), part.size()); };
        placesOnSheet(frame, stretch(x), stretch(y), stretch(places));
    });
    return places;
}

} // namespace coulter
