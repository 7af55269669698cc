#include "drawing/surface_raster.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

constexpr int tileSize = 32;
constexpr float nothing = -std::numeric_limits<float>::infinity();
/// Where a dot is looked at: no two in one row or column.
constexpr std::array<std::array<double, 2>, 4> offsets{
    {{0.375, 0.125}, {0.875, 0.375}, {0.125, 0.625}, {0.625, 0.875}}};
/// More dots than that are not painted: on larger sheets each is larger.
constexpr double mostSurfaceDots = 24e6;

struct ScreenCorner {
    double x, y; // dots
    float depth, place, light;
};

std::uint32_t dotOf(Colour c) { return 0xff000000U | c.red * 0x10000U | c.green * 0x100U | c.blue; }

} // namespace

SurfaceRaster::SurfaceRaster(const Rect& room, double dotsPerMm) : perMm_(dotsPerMm) {
    while (room.width * room.height * perMm_ * perMm_ > mostSurfaceDots) perMm_ /= 2;
    left_ = static_cast<int>(std::floor(room.x * perMm_));
    top_ = static_cast<int>(std::floor(room.y * perMm_));
    width_ = static_cast<int>(std::ceil(room.right() * perMm_)) - left_;
    height_ = static_cast<int>(std::ceil(room.bottom() * perMm_)) - top_;
    const std::size_t count = static_cast<std::size_t>(width_) * static_cast<std::size_t>(height_);
    dots_.assign(count, 0);
    depth_.assign(count * samples, nothing);
}

void SurfaceRaster::paint(const std::vector<Faces>& surfaces) {
    const int across = (width_ + tileSize - 1) / tileSize, down = (height_ + tileSize - 1) / tileSize;
    struct Reference {
        std::uint32_t surface, triangle;
    };
    const auto cornerOf = [&](const Faces& faces, std::uint32_t i) {
        return ScreenCorner{faces.points[i].x * perMm_ - left_, faces.points[i].y * perMm_ - top_,
                            static_cast<float>(faces.points[i].towards), faces.place[i],
                            faces.light.empty() ? 1.0F : faces.light[i]};
    };
    // Which tiles a triangle reaches, first to count, then to keep: in their order in every tile.
    std::vector<std::size_t> starts(static_cast<std::size_t>(across * down) + 1, 0);
    const auto eachTile = [&](const Faces& faces, const std::array<std::uint32_t, 3>& t, const auto& call) {
        const SeenPoint &a = faces.points[t[0]], &b = faces.points[t[1]], &c = faces.points[t[2]];
        const double least = std::min({a.x, b.x, c.x}) * perMm_ - left_,
                     most = std::max({a.x, b.x, c.x}) * perMm_ - left_,
                     upper = std::min({a.y, b.y, c.y}) * perMm_ - top_,
                     lower = std::max({a.y, b.y, c.y}) * perMm_ - top_;
        if (!(most >= 0 && lower >= 0 && least < width_ && upper < height_)) return;
        const int x0 = std::max(0, static_cast<int>(least) / tileSize),
                  y0 = std::max(0, static_cast<int>(upper) / tileSize),
                  x1 = std::min(across - 1, static_cast<int>(std::min(most, 1e6)) / tileSize),
                  y1 = std::min(down - 1, static_cast<int>(std::min(lower, 1e6)) / tileSize);
        for (int y = y0; y <= y1; ++y) {
            for (int x = x0; x <= x1; ++x) call(static_cast<std::size_t>(y * across + x));
        }
    };
    for (const Faces& faces : surfaces) {
        for (const auto& t : faces.triangles) eachTile(faces, t, [&](std::size_t tile) { ++starts[tile + 1]; });
    }
    for (std::size_t i = 1; i < starts.size(); ++i) starts[i] += starts[i - 1];
    std::vector<Reference> kept(starts.back());
    std::vector<std::size_t> next(starts.begin(), starts.end() - 1);
    for (std::uint32_t s = 0; s < surfaces.size(); ++s) {
        for (std::uint32_t t = 0; t < surfaces[s].triangles.size(); ++t)
            eachTile(surfaces[s], surfaces[s].triangles[t], [&](std::size_t tile) { kept[next[tile]++] = {s, t}; });
    }
    tbb::parallel_for(0, across * down, [&](int tile) {
        const auto index = static_cast<std::size_t>(tile);
        if (starts[index] == starts[index + 1]) return;
        const int x0 = tile % across * tileSize, y0 = tile / across * tileSize, x1 = std::min(width_, x0 + tileSize),
                  y1 = std::min(height_, y0 + tileSize);
        std::array<std::uint32_t, tileSize * tileSize * samples> colours{};
        std::array<float, tileSize * tileSize * samples> depths;
        depths.fill(nothing);
        for (std::size_t r = starts[index]; r < starts[index + 1]; ++r) {
            const Faces& faces = surfaces[kept[r].surface];
            const auto& t = faces.triangles[kept[r].triangle];
            const ScreenCorner a = cornerOf(faces, t[0]), b = cornerOf(faces, t[1]), c = cornerOf(faces, t[2]);
            const double det = (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
            if (!(std::abs(det) > 1e-12)) continue; // seen edge on
            const float mean = (a.place + b.place + c.place) / 3, meanLight = (a.light + b.light + c.light) / 3;
            const auto shade = [&](float place, float light) { return dotOf(faces.shade(place, light)); };
            const std::uint32_t flat = shade(mean, meanLight);
            const int fromX = std::max(x0, static_cast<int>(std::floor(std::min({a.x, b.x, c.x})))),
                      toX = std::min(x1 - 1, static_cast<int>(std::floor(std::max({a.x, b.x, c.x})))),
                      fromY = std::max(y0, static_cast<int>(std::floor(std::min({a.y, b.y, c.y})))),
                      toY = std::min(y1 - 1, static_cast<int>(std::floor(std::max({a.y, b.y, c.y}))));
            // Weights of b and c fall and rise evenly across the sheet.
            const double bx = (c.y - a.y) / det, by = -(c.x - a.x) / det, cx = -(b.y - a.y) / det,
                         cy = (b.x - a.x) / det;
            for (int y = fromY; y <= toY; ++y) {
                for (int x = fromX; x <= toX; ++x) {
                    const double dx = x - a.x, dy = y - a.y;
                    const std::size_t at = static_cast<std::size_t>(((y - y0) * tileSize + x - x0) * samples);
                    std::uint32_t colour = flat;
                    bool coloured = faces.flat;
                    for (std::size_t s = 0; s < samples; ++s) {
                        const double sx = dx + offsets[s][0], sy = dy + offsets[s][1];
                        const double wb = bx * sx + by * sy, wc = cx * sx + cy * sy;
                        if (wb < 0 || wc < 0 || wb + wc > 1) continue;
                        const float depth =
                            static_cast<float>(a.depth + wb * (b.depth - a.depth) + wc * (c.depth - a.depth));
                        if (!(depth > depths[at + s])) continue;
                        if (!coloured) { // once for the dot, at its middle
                            const float mb = static_cast<float>(bx * (dx + 0.5) + by * (dy + 0.5)),
                                        mc = static_cast<float>(cx * (dx + 0.5) + cy * (dy + 0.5));
                            const auto inside = [](float value, float p, float q, float o) {
                                return std::clamp(value, std::min({p, q, o}), std::max({p, q, o}));
                            };
                            colour = shade(inside(a.place + mb * (b.place - a.place) + mc * (c.place - a.place),
                                                  a.place, b.place, c.place),
                                           inside(a.light + mb * (b.light - a.light) + mc * (c.light - a.light),
                                                  a.light, b.light, c.light));
                            coloured = true;
                        }
                        depths[at + s] = depth;
                        colours[at + s] = colour;
                    }
                }
            }
        }
        for (int y = y0; y < y1; ++y) {
            for (int x = x0; x < x1; ++x) {
                const std::size_t from = static_cast<std::size_t>(((y - y0) * tileSize + x - x0) * samples),
                                  to = static_cast<std::size_t>(y) * static_cast<std::size_t>(width_) +
                                       static_cast<std::size_t>(x);
                std::uint32_t dot = 0;
                for (unsigned shift = 0; shift < 32; shift += 8) {
                    std::uint32_t sum = samples / 2;
                    for (std::size_t s = 0; s < samples; ++s) sum += colours[from + s] >> shift & 0xffU;
                    dot |= sum / samples << shift;
                }
                dots_[to] = dot;
                for (std::size_t s = 0; s < samples; ++s) depth_[to * samples + s] = depths[from + s];
            }
        }
    });
}

ImageItem SurfaceRaster::image(const Rect& clip) const {
    return {{left_ / perMm_, top_ / perMm_, width_ / perMm_, height_ / perMm_}, clip, width_, height_, dots_};
}

bool SurfaceRaster::hides(const SeenPoint& point) const {
    const int x = static_cast<int>(std::floor(point.x * perMm_)) - left_,
              y = static_cast<int>(std::floor(point.y * perMm_)) - top_;
    if (x < 0 || y < 0 || x >= width_ || y >= height_) return false;
    const float* const depth =
        depth_.data() +
        (static_cast<std::size_t>(y) * static_cast<std::size_t>(width_) + static_cast<std::size_t>(x)) * samples;
    float near = nothing, far = std::numeric_limits<float>::infinity();
    int covered = 0;
    for (int s = 0; s < samples; ++s) {
        if (depth[s] == nothing) continue;
        ++covered;
        near = std::max(near, depth[s]);
        far = std::min(far, depth[s]);
    }
    // A dot that is half clear hides nothing; what lies on a slope is as near as the slope is within a dot.
    return covered > samples / 2 && point.towards < near - (2 * (near - far) + 2 / perMm_);
}

} // namespace coulter
