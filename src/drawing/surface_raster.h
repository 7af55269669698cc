#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <vector>

namespace coulter {

/// Triangles of one surface.
struct Faces {
    std::vector<SeenPoint> points;
    std::vector<float> place; ///< of each point, among the colours: 0 the first, 1 the last
    std::vector<float> light; ///< of each point: 1 as the colour is; empty: everywhere
    std::vector<std::array<std::uint32_t, 3>> triangles;
    std::vector<Colour> colours; ///< at least one
    bool flat = false;           ///< each triangle has one colour throughout

    /// The colour of a place among the colours, in some light.
    Colour shade(float at, float lit) const {
        const float last = static_cast<float>(colours.size() - 1),
                    step = std::isnan(at) ? 0 : std::clamp(at * last + 0.5F, 0.0F, last);
        const auto channel = [&](std::uint8_t value) {
            return static_cast<std::uint8_t>(std::clamp(std::lround(static_cast<float>(value) * lit), 0L, 255L));
        };
        const Colour& c = colours[static_cast<std::size_t>(step)];
        return {channel(c.red), channel(c.green), channel(c.blue)};
    }
};

/// A picture of surfaces by what is nearest to the eye at each of four places within every dot.
///
/// Claims: a dot shows the mean of its four places; where surfaces cross, each is seen where it is nearer; triangles
/// that share an edge leave no gap; the dots do not depend on the number of threads.
/// Method: a depth buffer (E. Catmull, "A subdivision algorithm for computer display of curved surfaces", 1974), by
/// tiles of 32 × 32 dots, each with all of its triangles in their order; samples on a turned grid.
class SurfaceRaster {
public:
    /// @param room       mm on the sheet that is painted
    SurfaceRaster(const Rect& room, double dotsPerMm);
    void paint(const std::vector<Faces>& surfaces);
    /// The dots, clear where there is nothing.
    ImageItem image(const Rect& clip) const;
    /// Whether a surface is nearer to the eye than a place; what lies on it is not hidden by it.
    bool hides(const SeenPoint& point) const;

private:
    static constexpr int samples = 4;
    int left_ = 0, top_ = 0, width_ = 0, height_ = 0; // dots of the sheet's raster
    double perMm_ = 1;
    std::vector<std::uint32_t> dots_;
    std::vector<float> depth_; ///< of each sample, towards the eye; −inf: nothing
};

} // namespace coulter
