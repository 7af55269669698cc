#include "drawing/canvas.h"

#include "drawing/clip_polygon.h"
#include "drawing/clip_polyline.h"
#include "drawing/thinning.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <numbers>
#include <optional>
#include <span>

namespace coulter {
namespace {

/// More marks than that become dots.
constexpr std::size_t mostPlainMarks = 20'000;

Point bounded(Point p) { return {std::clamp(p.x, -1e9, 1e9), std::clamp(p.y, -1e9, 1e9)}; }

} // namespace

std::vector<double> dashesOf(std::size_t pattern, double width) {
    const double w = std::max(width, 0.2);
    switch (pattern) {
    case 1: return {6 * w, 3.5 * w};
    case 2: return {0.01, 2.6 * w};
    case 3: return {6 * w, 3 * w, 0.01, 3 * w};
    case 4: return {12 * w, 3.5 * w};
    case 5: return {6 * w, 3 * w, 0.01, 2.6 * w, 0.01, 3 * w};
    default: return {};
    }
}

void Canvas::stroke(const Polylines& lines, const Pen& pen) {
    // Half a line's width of room, so that a curve along the panel's edge is not cut in half.
    const Rect room = clip_.grown(pen.width / 2 + 0.02);
    StrokeItem item{{}, pen.colour, pen.width, pen.dashes, pen.roundEnds, pen.opacity};
    std::size_t count = 0;
    for (const auto& line : lines) count += line.size();
    if (thins_ && count > mostPlainPoints) {
        Polylines fewer;
        for (const auto& line : lines) fewer.push_back(thinnedLine(line));
        return Canvas(scene_, clip_, dotsPerMm_, letterSize_, false).stroke(fewer, pen);
    }
    for (const auto& line : lines) {
        std::vector<Point> points;
        points.reserve(line.size());
        for (const Point& p : line) points.push_back(bounded(p));
        if (points.size() == 1) points.push_back(points[0]);
        for (auto& piece : clipPolyline(points, room)) item.lines.push_back(std::move(piece));
    }
    if (!item.lines.empty()) scene_.items.emplace_back(std::move(item));
}

void Canvas::fill(const Polylines& polygons, const Paint& paint) {
    FillItem item{{}, paint.colour, paint.opacity};
    for (const auto& polygon : polygons) {
        std::vector<Point> points;
        points.reserve(polygon.size());
        for (const Point& p : polygon) points.push_back(bounded(p));
        points = clipPolygon(points, clip_);
        if (points.size() > 2) item.polygons.push_back(std::move(points));
    }
    if (!item.polygons.empty()) scene_.items.emplace_back(std::move(item));
}

namespace {

/// The places within a rectangle, one after the other; none if there are more than so many.
std::optional<std::vector<Point>> placesWithin(const MarkPlaces& places, const Rect& room, std::size_t most) {
    constexpr std::size_t block = 512;
    std::vector<Point> within;
    std::array<Point, block> some;
    for (std::size_t begin = 0; begin < places.count; begin += block) {
        const std::span<Point> now(some.data(), std::min(block, places.count - begin));
        places.tell(begin, now);
        for (const Point& p : now) {
            if (!room.contains(p)) continue;
            if (within.size() >= most) return std::nullopt;
            within.push_back(p);
        }
    }
    return within;
}

} // namespace

void Canvas::marks(const MarkPlaces& places, const Polylines& shape, const Paint* filling, const Pen* outline) {
    const Rect room = clip_.grown(0.1);
    const auto found = placesWithin(places, room, thins_ ? mostPlainMarks : places.count);
    if (!found) {
        if (filling) image(denseMarks(places, shape, *filling, room, dotsPerMm_));
        if (outline)
            image(denseMarks(places, outlined(shape, outline->width), {outline->colour, outline->opacity}, room,
                             dotsPerMm_));
        return;
    }
    const std::vector<Point>& within = *found;
    Polylines all;
    for (const Point& place : within) {
        for (const auto& line : shape) {
            std::vector<Point> moved;
            for (const Point& p : line) moved.push_back({place.x + p.x, place.y + p.y});
            all.push_back(std::move(moved));
        }
    }
    if (all.empty()) return;
    if (filling) scene_.items.emplace_back(FillItem{all, filling->colour, filling->opacity, all.size() == 1});
    if (outline)
        scene_.items.emplace_back(StrokeItem{std::move(all), outline->colour, outline->width, outline->dashes,
                                             outline->roundEnds, outline->opacity});
}

std::vector<Point> circle(double radius) {
    std::vector<Point> points;
    for (int k = 0; k <= 48; ++k) {
        const double angle = 2 * std::numbers::pi * k / 48;
        points.push_back({radius * std::cos(angle), radius * std::sin(angle)});
    }
    return points;
}

} // namespace coulter
