#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <limits>
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
        std::array<Vertex, 3> v;           ///< the longest edge is from v[0] to v[1]; counterclockwise
        std::array<std::uint32_t, 3> edge; ///< from v[k] to the next one
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
    static constexpr std::uint32_t none = std::numeric_limits<std::uint32_t>::max();

    /// An edge knows the leaves on both its sides, and once it is halved its middle and its halves.
    struct Edge {
        Vertex a = 0, b = 0;
        Vertex middle = none;
        std::array<std::uint32_t, 2> halves{none, none}; ///< of a, of b
        std::array<std::uint32_t, 2> sides{none, none};
    };

    std::uint32_t edgeBetween(Vertex a, Vertex b);
    Vertex middleOf(std::uint32_t edge);
    /// The half of an edge at one of its ends; made if there is none yet.
    std::uint32_t halfAt(std::uint32_t edge, Vertex end);
    void add(const std::array<Vertex, 3>& v, const std::array<std::uint32_t, 3>& edge);
    void halve(std::uint32_t triangle);
    std::uint32_t neighbour(std::uint32_t triangle) const;

    std::vector<Place> places_;
    std::vector<Triangle> triangles_;
    std::vector<Edge> edges_;
};

} // namespace coulter
