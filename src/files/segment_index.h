#pragma once
#include "drawing/scene.h"

#include <array>
#include <cstddef>
#include <vector>

namespace coulter {

/// Line segments on a sheet, sorted into square cells, so that the nearest one to a point is found near it.
class SegmentIndex {
public:
    explicit SegmentIndex(const std::vector<std::vector<Point>>& lines);
    bool isEmpty() const { return segments_.empty(); }
    /// mm from the nearest segment; inf if there is none.
    double distance(Point p) const;

private:
    struct Segment {
        Point a, b;
    };
    std::size_t cellOf(long column, long row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column);
    }
    std::vector<Segment> segments_;
    std::vector<std::vector<std::uint32_t>> cells_;
    double left_ = 0, top_ = 0, size_ = 2; ///< mm
    long columns_ = 0, rows_ = 0;
};

} // namespace coulter
