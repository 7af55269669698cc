#include "sampling/bisected_mesh.h"

#include <algorithm>
#include <map>
#include <utility>

namespace coulter {

BisectedMesh::BisectedMesh(int across, int up, std::int32_t size) {
    for (int j = 0; j <= up; ++j) {
        for (int i = 0; i <= across; ++i) places_.push_back({i * size, j * size});
    }
    const auto at = [&](int i, int j) { return static_cast<Vertex>(j * (across + 1) + i); };
    std::map<std::pair<Vertex, Vertex>, std::uint32_t> known;
    const auto edge = [&](Vertex a, Vertex b) {
        const auto [place, isNew] =
            known.try_emplace({std::min(a, b), std::max(a, b)}, static_cast<std::uint32_t>(edges_.size()));
        return isNew ? edgeBetween(a, b) : place->second;
    };
    const auto triangle = [&](Vertex a, Vertex b, Vertex c) { add({a, b, c}, {edge(a, b), edge(b, c), edge(c, a)}); };
    for (int j = 0; j < up; ++j) {
        for (int i = 0; i < across; ++i) {
            const Vertex a = at(i, j), b = at(i + 1, j), c = at(i + 1, j + 1), d = at(i, j + 1);
            if ((i + j) % 2 == 0) { // diagonals alternate, so that no direction is preferred
                triangle(c, a, b);
                triangle(a, c, d);
            } else {
                triangle(d, b, c);
                triangle(b, d, a);
            }
        }
    }
}

std::uint32_t BisectedMesh::edgeBetween(Vertex a, Vertex b) {
    edges_.push_back({a, b});
    return static_cast<std::uint32_t>(edges_.size() - 1);
}

void BisectedMesh::add(const std::array<Vertex, 3>& v, const std::array<std::uint32_t, 3>& edge) {
    const auto index = static_cast<std::uint32_t>(triangles_.size());
    triangles_.push_back({v, edge, true});
    for (const std::uint32_t each : edge) {
        auto& sides = edges_[each].sides;
        (sides[0] == none ? sides[0] : sides[1]) = index;
    }
}

bool BisectedMesh::canSplit(std::size_t triangle) const {
    const auto& v = triangles_[triangle].v;
    for (std::size_t k = 0; k < 3; ++k) {
        const Place a = places_[v[k]], b = places_[v[(k + 1) % 3]];
        if ((a.x + b.x) % 2 != 0 || (a.y + b.y) % 2 != 0) return false;
    }
    return true;
}

BisectedMesh::Vertex BisectedMesh::middleOf(std::uint32_t edge) {
    Edge& e = edges_[edge];
    if (e.middle == none) {
        e.middle = static_cast<Vertex>(places_.size());
        places_.push_back({(places_[e.a].x + places_[e.b].x) / 2, (places_[e.a].y + places_[e.b].y) / 2});
    }
    return e.middle;
}

std::array<BisectedMesh::Vertex, 3> BisectedMesh::middles(std::size_t triangle) {
    const std::array<std::uint32_t, 3> edge = triangles_[triangle].edge;
    const Vertex first = middleOf(edge[0]), second = middleOf(edge[1]), third = middleOf(edge[2]);
    return {first, second, third};
}

std::uint32_t BisectedMesh::halfAt(std::uint32_t edge, Vertex end) {
    const std::size_t which = edges_[edge].a == end ? 0 : 1;
    if (edges_[edge].halves[which] == none) {
        const std::uint32_t made = edgeBetween(end, edges_[edge].middle);
        edges_[edge].halves[which] = made;
    }
    return edges_[edge].halves[which];
}

std::uint32_t BisectedMesh::neighbour(std::uint32_t triangle) const {
    const auto& sides = edges_[triangles_[triangle].edge[0]].sides;
    return sides[0] == triangle ? sides[1] : sides[0];
}

void BisectedMesh::halve(std::uint32_t triangle) {
    const auto [v, edge, leaf] = triangles_[triangle];
    const Vertex m = middleOf(edge[0]);
    triangles_[triangle].leaf = false;
    for (const std::uint32_t each : edge) {
        auto& sides = edges_[each].sides;
        (sides[0] == triangle ? sides[0] : sides[1]) = none;
    }
    const std::uint32_t first = halfAt(edge[0], v[0]), second = halfAt(edge[0], v[1]), across = edgeBetween(m, v[2]);
    add({v[2], v[0], m}, {edge[2], first, across});
    add({v[1], v[2], m}, {edge[1], across, second});
}

void BisectedMesh::split(std::size_t index) {
    const auto triangle = static_cast<std::uint32_t>(index);
    if (!triangles_[triangle].leaf) return;
    std::uint32_t other = neighbour(triangle);
    if (other != none && triangles_[other].edge[0] != triangles_[triangle].edge[0]) {
        split(other); // its longest edge is another one: halved first, it has ours as its longest
        other = neighbour(triangle);
    }
    halve(triangle);
    if (other != none) halve(other);
}

} // namespace coulter
