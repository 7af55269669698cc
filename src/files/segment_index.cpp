#include "files/segment_index.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double mostCells = 400; ///< along either side

double distanceFrom(Point p, Point a, Point b) {
    const double dx = b.x - a.x, dy = b.y - a.y, square = dx * dx + dy * dy;
    const double part = square > 0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / square, 0.0, 1.0) : 0;
    return std::hypot(p.x - a.x - part * dx, p.y - a.y - part * dy);
}

} // namespace

SegmentIndex::SegmentIndex(const std::vector<std::vector<Point>>& lines) {
    double right = -HUGE_VAL, bottom = -HUGE_VAL;
    left_ = top_ = HUGE_VAL;
    for (const auto& line : lines) {
        for (std::size_t i = 0; i < line.size(); ++i) {
            const Point a = line[i], b = i + 1 < line.size() ? line[i + 1] : a;
            if (!std::isfinite(a.x + a.y + b.x + b.y) || (i + 1 == line.size() && line.size() > 1)) continue;
            segments_.push_back({a, b});
            for (const Point& p : {a, b}) {
                left_ = std::min(left_, p.x), right = std::max(right, p.x);
                top_ = std::min(top_, p.y), bottom = std::max(bottom, p.y);
            }
        }
    }
    if (segments_.empty()) return;
    size_ = std::max({size_, (right - left_) / mostCells, (bottom - top_) / mostCells});
    columns_ = static_cast<long>((right - left_) / size_) + 1;
    rows_ = static_cast<long>((bottom - top_) / size_) + 1;
    cells_.resize(static_cast<std::size_t>(columns_ * rows_));
    for (std::uint32_t s = 0; s < segments_.size(); ++s) {
        const auto& [a, b] = segments_[s];
        const auto column = [&](double x) {
            return std::clamp(static_cast<long>((x - left_) / size_), 0L, columns_ - 1);
        };
        const auto row = [&](double y) { return std::clamp(static_cast<long>((y - top_) / size_), 0L, rows_ - 1); };
        for (long r = row(std::min(a.y, b.y)); r <= row(std::max(a.y, b.y)); ++r) {
            for (long c = column(std::min(a.x, b.x)); c <= column(std::max(a.x, b.x)); ++c)
                cells_[cellOf(c, r)].push_back(s);
        }
    }
}

double SegmentIndex::distance(Point p) const {
    if (segments_.empty() || !std::isfinite(p.x + p.y)) return HUGE_VAL;
    constexpr double far = 1e9; // cells
    const long column = static_cast<long>(std::clamp(std::floor((p.x - left_) / size_), -far, far)),
               row = static_cast<long>(std::clamp(std::floor((p.y - top_) / size_), -far, far));
    double best = HUGE_VAL;
    // Ring by ring round the point's own cell, until what is farther out cannot be nearer.
    const long first = std::max({0L, -column, column - columns_ + 1, -row, row - rows_ + 1});
    for (long ring = first; ring <= first + columns_ + rows_; ++ring) {
        if (best <= static_cast<double>(ring - 1) * size_) break;
        for (long r = std::max(0L, row - ring); r <= std::min(rows_ - 1, row + ring); ++r) {
            const auto look = [&](long c) {
                if (c < 0 || c >= columns_) return;
                for (const std::uint32_t k : cells_[cellOf(c, r)])
                    best = std::min(best, distanceFrom(p, segments_[k].a, segments_[k].b));
            };
            if (r == row - ring || r == row + ring) {
                for (long c = std::max(0L, column - ring); c <= std::min(columns_ - 1, column + ring); ++c) look(c);
            } else {
                look(column - ring);
                look(column + ring);
            }
        }
    }
    return best;
}

} // namespace coulter
