#pragma once
#include "drawing/frame.h"
#include "drawing/surface_raster.h"

namespace coulter {

/// Where kinds of plot draw what can hide and be hidden in space: all of a panel, shown together at the end.
class SpaceCanvas {
public:
    /// @param vectors  surfaces become polygons, unless they have too many of them for that
    SpaceCanvas(const Frame& frame, double dotsPerMm, bool vectors)
        : frame_(frame), dotsPerMm_(dotsPerMm), vectors_(vectors) {}

    /// Whose the things are that come next; see `Shown`.
    void owner(std::size_t index) { owner_ = index; }
    void faces(Faces faces) {
        surfaces_.push_back(std::move(faces));
        owners_.push_back(owner_);
    }
    /// A line in space, left out where a surface is before it.
    void line(const std::vector<Place>& places, const Pen& pen);
    bool hasFaces() const { return !surfaces_.empty(); }
    /// Items of a scene, and whose they are.
    struct Shown {
        std::size_t owner = 0, first = 0, last = 0;
    };
    /// Adds everything to a scene: surfaces as one picture, or as polygons, which are each one's; then lines.
    std::vector<Shown> finish(Scene& scene, const std::stop_token& stop = {}) const;

private:
    struct Line {
        std::vector<SeenPoint> points;
        Pen pen;
        std::size_t owner = 0;
    };
    const Frame& frame_;
    double dotsPerMm_;
    bool vectors_;
    std::size_t owner_ = 0;
    std::vector<Faces> surfaces_;
    std::vector<std::size_t> owners_; ///< of the surfaces
    std::vector<Line> lines_;
};

} // namespace coulter
