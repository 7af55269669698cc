#pragma once
#include "drawing/canvas.h"
#include "drawing/mark_places.h"

#include <functional>
#include <memory>

namespace coulter {

// What a million of anything becomes, without a visible difference.

/// More points or lines than that are thinned.
inline constexpr std::size_t mostPlainPoints = 50'000;
/// mm: what is closer than that is one place. A tenth of the finest line that print shows.
inline constexpr double finestDetail = 0.02;

/// Calls with each number below a count, on all of the processor's cores.
void inParallel(std::size_t count, const std::function<void(std::size_t)>& call);

/// A line that covers the same paper: of a line that runs on to one side the first, lowest, highest and last point of
/// each column, of any other those that are not just beside the one before.
std::vector<Point> thinnedLine(const std::vector<Point>& line);

/// Straight lines, one after the other; once there are very many, upright and level ones become what they cover
/// together within a rectangle, to a column or row of the finest detail. Others stay as they are.
class ManySegments {
public:
    /// @param mostPlain  so many are kept as they are
    explicit ManySegments(const Rect& room, std::size_t mostPlain = mostPlainPoints);
    ManySegments(ManySegments&&) noexcept;
    ~ManySegments();
    void add(const Point& a, const Point& b);
    /// Those of another within the same rectangle after its own.
    void append(const ManySegments& other);
    Polylines lines() const;

private:
    struct Raster;
    Rect room_;
    std::size_t mostPlain_;
    std::vector<Segment> plain_;
    std::unique_ptr<Raster> raster_;
};

/// The straight lines of so many rows, of which `add(lines, row)` gives each its own; rows are shared out to the
/// processor's cores, and the outcome does not depend on how many there are.
template <typename Add> Polylines linesOfRows(const Rect& room, std::size_t rows, const Add& add) {
    const std::size_t parts = rows > mostPlainPoints ? 4 : 1;
    std::vector<ManySegments> some;
    for (std::size_t k = 0; k < parts; ++k) some.emplace_back(room, parts > 1 ? 0 : mostPlainPoints);
    inParallel(parts, [&](std::size_t k) {
        for (std::size_t i = rows * k / parts; i < rows * (k + 1) / parts; ++i) add(some[k], i);
    });
    for (std::size_t k = 1; k < parts; ++k) some[0].append(some[k]);
    return some[0].lines();
}

/// All that is inside one of many alike shapes, as dots.
/// @param shape   polygons round (0, 0), mm
/// @param clip    places outside it are left out
ImageItem denseMarks(const MarkPlaces& places, const Polylines& shape, const Paint& paint, const Rect& clip,
                     double dotsPerMm);

/// The outline of a shape as polygons, as a pen of this width draws it.
Polylines outlined(const Polylines& shape, double width);

} // namespace coulter
