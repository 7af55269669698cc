#include "drawing/space_canvas.h"

#include "drawing/surface_vectors.h"

#include <algorithm>
#include <cmath>

namespace coulter {

void SpaceCanvas::line(const std::vector<Place>& places, const Pen& pen) {
    Line line{{}, pen, owner_};
    line.points.reserve(places.size());
    for (const Place& place : places) line.points.push_back(frame_.seen(place));
    lines_.push_back(std::move(line));
}

std::vector<SpaceCanvas::Shown> SpaceCanvas::finish(Scene& scene, const std::stop_token& stop) const {
    std::vector<Shown> shownItems;
    if (surfaces_.empty() && lines_.empty()) return shownItems;
    const Rect room = frame_.rect.grown(1);
    auto polygons = vectors_ ? surfaceVectors(surfaces_, room, stop) : std::nullopt;
    // Beside polygons lines come out of hiding where dots of a fine print would.
    const double perMm = polygons ? std::max(dotsPerMm_, 600 / 25.4) : dotsPerMm_;
    SurfaceRaster raster(room, perMm);
    if (!surfaces_.empty()) {
        raster.paint(surfaces_);
        const std::size_t first = scene.items.size();
        if (polygons) {
            for (FillItem& item : *polygons) scene.items.emplace_back(std::move(item));
        } else {
            scene.items.emplace_back(raster.image(room));
        }
        for (const std::size_t each : owners_) shownItems.push_back({each, first, scene.items.size()});
    }
    Canvas canvas(scene, room, dotsPerMm_);
    for (const Line& line : lines_) {
        // In steps of half a dot: where it comes out of hiding is known no better.
        Polylines shown;
        bool broken = true;
        for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
            const SeenPoint &a = line.points[i], &b = line.points[i + 1];
            const double length = std::hypot(b.x - a.x, b.y - a.y);
            if (!(length < 1e4)) {
                broken = true;
                continue;
            }
            const int steps = surfaces_.empty() ? 1 : std::max(1, static_cast<int>(std::ceil(length * perMm * 2)));
            for (int k = 0; k < steps; ++k) {
                const auto on = [&](double share) {
                    return SeenPoint{a.x + share * (b.x - a.x), a.y + share * (b.y - a.y),
                                     a.towards + share * (b.towards - a.towards)};
                };
                const SeenPoint from = on(static_cast<double>(k) / steps), to = on((k + 1.0) / steps);
                if (raster.hides(on((k + 0.5) / steps))) {
                    broken = true;
                    continue;
                }
                if (broken) shown.push_back({{from.x, from.y}});
                broken = false;
                // One piece as long as it goes straight on.
                auto& piece = shown.back();
                if (k > 0 && piece.size() > 1 && steps > 1)
                    piece.back() = {to.x, to.y};
                else
                    piece.push_back({to.x, to.y});
            }
        }
        const std::size_t first = scene.items.size();
        canvas.stroke(shown, line.pen);
        shownItems.push_back({line.owner, first, scene.items.size()});
    }
    return shownItems;
}

} // namespace coulter
