#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <unordered_map>
#include <vector>

namespace coulter {

/// Right-angled triangles over a rectangle that are halved at the middle of their longest edge, always together with
/// the neighbour there, so that all meet at whole edges. Vertices are points of a lattice of whole numbers.
class BisectedMesh {
public:
    using Vertex = std::uint32_t;
    struct Place {
        std::int32_t x = 0, y = 0;
    };
    struct Triangle {
        std::array<Vertex, 3> v; ///< the longest edge is from v[0] to v[1]; counterclockwise
        bool leaf = true;
    };

    /// So many squares, of `size` lattice units (a power of two) each; two triangles in every square.
    BisectedMesh(int across, int up, std::int32_t size);

    const std::vector<Place>& places() const { return places_; }
    const std::vector<Triangle>& triangles() const { return triangles_; }
    /// Whether the lattice has the middles of all its edges.
    bool canSplit(std::size_t triangle) const;
    /// The vertices in the middle of a triangle's edges, the longest first; made if there are none yet.
    std::array<Vertex, 3> middles(std::size_t triangle);
    /// Halves a triangle, and whatever its neighbours need for it.
    void split(std::size_t triangle);

private:
    static std::uint64_t key(Vertex a, Vertex b);
    Vertex middleOf(Vertex a, Vertex b);
    void add(const std::array<Vertex, 3>& v);
    void halve(std::size_t triangle);
    std::size_t neighbour(std::size_t triangle) const;

    std::vector<Place> places_;
    std::vector<Triangle> triangles_;
    std::unordered_map<std::uint64_t, Vertex> middles_;
    std::unordered_map<std::uint64_t, std::array<std::size_t, 2>> sides_; ///< leaves on both sides of an edge
};

} // namespace coulter
