#pragma once
#include "drawing/canvas.h"

#include <memory>

namespace coulter {

// What a million of anything becomes, without a visible difference.

/// More points or lines than that are thinned.
inline constexpr std::size_t mostPlainPoints = 50'000;
/// mm: what is closer than that is one place. A tenth of the finest line that print shows.
inline constexpr double finestDetail = 0.02;

/// A line that covers the same paper: of a line that runs on to one side the first, lowest, highest and last point of
/// each column, of any other those that are not just beside the one before.
std::vector<Point> thinnedLine(const std::vector<Point>& line);

/// Straight lines, one after the other; once there are very many, upright and level ones become what they cover
/// together within a rectangle, to a column or row of the finest detail. Others stay as they are.
class ManySegments {
public:
    explicit ManySegments(const Rect& room);
    ~ManySegments();
    void add(Point a, Point b);
    Polylines lines() const;

private:
    struct Raster;
    Rect room_;
    std::vector<Segment> plain_;
    std::unique_ptr<Raster> raster_;
};

/// All that is inside one of many alike shapes, as dots.
/// @param shape   polygons round (0, 0), mm
/// @param clip    outside it nothing is drawn; places are within it
ImageItem denseMarks(const std::vector<Point>& places, const Polylines& shape, const Paint& paint, const Rect& clip,
                     double dotsPerMm);

/// The outline of a shape as polygons, as a pen of this width draws it.
Polylines outlined(const Polylines& shape, double width);

} // namespace coulter
