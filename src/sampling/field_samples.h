#pragma once
#include "sampling/unset.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <vector>

namespace coulter {

struct DotSamples;
struct ZeroProof;

/// Values of a field over two variables, at the points of a meshgrid or at those of a mesh of triangles.
struct FieldSamples {
    std::vector<double> columns, rows; ///< of a meshgrid: x of its columns, y of its rows; both empty for a mesh
    std::vector<double> x, y;          ///< of a mesh: its points; at a jump two stand at one place
    /// By component. Of a mesh: of every point. Of a meshgrid: row by row, rows[0] first. NaN where undefined.
    std::vector<UnsetNumbers> values;
    /// Of a mesh: points of each triangle. They meet at whole edges, without cracks, and leave out what is undefined.
    std::vector<std::array<std::uint32_t, 3>> triangles;
    /// Of a mesh that knows the field's pieces: whether a point stands at a jump, with the value of its side; shorter
    /// where none follows, and empty if there are no pieces.
    std::vector<bool> atJump;
    std::size_t evaluations = 0;
    bool finished = true; ///< false if it was stopped, or the field asked for more points than are allowed
    bool tooDear = false; ///< not finished because its values take too long to compute
    std::shared_ptr<const ZeroProof> zeroProof = nullptr; ///< where only zeros matter: what is proven of their lines

    std::shared_ptr<const DotSamples> dots = nullptr; ///< of a picture by dots: these alone, without any points

    bool isMesh() const { return columns.empty(); }
    std::size_t pointCount() const { return isMesh() ? x.size() : columns.size() * rows.size(); }
    double xAt(std::size_t point) const { return isMesh() ? x[point] : columns[point % columns.size()]; }
    double yAt(std::size_t point) const { return isMesh() ? y[point] : rows[point / columns.size()]; }
    /// The value at a point; of a vector its length.
    double sizeAt(std::size_t point) const { return values.size() == 1 ? values[0][point] : lengthAt(point); }

private:
    double lengthAt(std::size_t point) const;
};

} // namespace coulter
