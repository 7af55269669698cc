#pragma once
#include "sampling/field_samples.h"

#include <array>
#include <cstdint>
#include <memory>
#include <utility>
#include <vector>

namespace coulter {

// Which cells of a field's samples a level runs through, and how.

/// Where a line passes from one cell to the next: between two points of the samples, the smaller one first.
using CellEdge = std::uint64_t;
inline CellEdge cellEdge(std::uint64_t a, std::uint64_t b) { return a < b ? a << 32 | b : b << 32 | a; }
inline std::uint32_t firstPoint(CellEdge edge) { return static_cast<std::uint32_t>(edge >> 32); }
inline std::uint32_t secondPoint(CellEdge edge) { return static_cast<std::uint32_t>(edge); }

/// The points of a cell, counterclockwise; three or four.
struct Cell {
    std::array<std::uint32_t, 4> points{};
    std::size_t count = 0;
};

/// For every point of the samples, how many of the ascending levels are at or below its value; all of them are below
/// an infinite one.
class LevelCounts {
public:
    static constexpr std::uint16_t undefined = 0xffff;
    LevelCounts(const FieldSamples& samples, const std::vector<double>& levels);
    std::uint16_t operator[](std::size_t point) const { return counts_[point]; }
    const std::uint16_t* all() const { return counts_.get(); }
    std::size_t size() const { return size_; }
    bool anyUndefined() const { return anyUndefined_; }
    /// Whether some point is exactly at a level.
    bool touches(std::size_t level) const { return touches_[level] != 0; }

private:
    std::size_t size_;
    std::unique_ptr<std::uint16_t[]> counts_; ///< first written where they are counted, on all cores
    std::vector<char> touches_;
    bool anyUndefined_ = false;
};

/// Cells of samples by number: triangles of a mesh; of a meshgrid its rectangles, and where one corner of them is
/// undefined the triangle of the others.
class Cells {
public:
    Cells(const FieldSamples& samples, const LevelCounts& counts) : samples_(samples), counts_(counts) {}
    Cell operator[](std::size_t cell) const {
        if (samples_.isMesh()) return triangle(cell);
        Cell found;
        const auto width = static_cast<std::uint32_t>(samples_.columns.size()),
                   corner = static_cast<std::uint32_t>(cell);
        if (corner % width + 1 == width) return found;
        for (const std::uint32_t point : {corner, corner + 1, corner + width + 1, corner + width}) {
            if (counts_[point] != LevelCounts::undefined) found.points[found.count++] = point;
        }
        if (found.count < 3) found.count = 0;
        return found;
    }
    /// Of each level, the cells that it runs through, in their order.
    std::vector<std::vector<std::uint32_t>> crossed(std::size_t levels) const;
    /// Whether all of some cell is exactly at a level.
    bool hasPlateau(std::size_t level, double value) const;
    /// Cells that reach from a level, exactly, to above it.
    std::vector<std::uint32_t> reaching(std::size_t level, double value) const;
    /// Edges of cells that no other cell has, in the direction that has the cell on its left.
    std::vector<std::pair<std::uint32_t, std::uint32_t>> border() const;

private:
    std::size_t size() const;
    Cell triangle(std::size_t cell) const; ///< of a mesh
    bool isFlat(const Cell& cell) const;   ///< without an area, as beside a jump
    const FieldSamples& samples_;
    const LevelCounts& counts_;
};

} // namespace coulter
