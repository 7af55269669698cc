#include "sampling/bisected_mesh.h"

#include <algorithm>
#include <cstdlib>
#include <limits>

namespace coulter {
namespace {

constexpr std::size_t nobody = std::numeric_limits<std::size_t>::max();

} // namespace

BisectedMesh::BisectedMesh(int across, int up, std::int32_t size) {
    for (int j = 0; j <= up; ++j) {
        for (int i = 0; i <= across; ++i) places_.push_back({i * size, j * size});
    }
    const auto at = [&](int i, int j) { return static_cast<Vertex>(j * (across + 1) + i); };
    for (int j = 0; j < up; ++j) {
        for (int i = 0; i < across; ++i) {
            const Vertex a = at(i, j), b = at(i + 1, j), c = at(i + 1, j + 1), d = at(i, j + 1);
            if ((i + j) % 2 == 0) { // diagonals alternate, so that no direction is preferred
                add({c, a, b});
                add({a, c, d});
            } else {
                add({d, b, c});
                add({b, d, a});
            }
        }
    }
}

std::uint64_t BisectedMesh::key(Vertex a, Vertex b) {
    return (static_cast<std::uint64_t>(std::min(a, b)) << 32) | std::max(a, b);
}

void BisectedMesh::add(const std::array<Vertex, 3>& v) {
    const std::size_t index = triangles_.size();
    triangles_.push_back({v, true});
    for (std::size_t k = 0; k < 3; ++k) {
        const auto [at, isNew] = sides_.try_emplace(key(v[k], v[(k + 1) % 3]), std::array{index, nobody});
        if (!isNew) (at->second[0] == nobody ? at->second[0] : at->second[1]) = index;
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

BisectedMesh::Vertex BisectedMesh::middleOf(Vertex a, Vertex b) {
    const auto [at, isNew] = middles_.try_emplace(key(a, b), static_cast<Vertex>(places_.size()));
    if (isNew) places_.push_back({(places_[a].x + places_[b].x) / 2, (places_[a].y + places_[b].y) / 2});
    return at->second;
}

std::array<BisectedMesh::Vertex, 3> BisectedMesh::middles(std::size_t triangle) {
    const std::array<Vertex, 3> v = triangles_[triangle].v;
    return {middleOf(v[0], v[1]), middleOf(v[1], v[2]), middleOf(v[2], v[0])};
}

std::size_t BisectedMesh::neighbour(std::size_t triangle) const {
    const auto& v = triangles_[triangle].v;
    const auto& both = sides_.at(key(v[0], v[1]));
    return both[0] == triangle ? both[1] : both[0];
}

void BisectedMesh::halve(std::size_t triangle) {
    const std::array<Vertex, 3> v = triangles_[triangle].v;
    const Vertex m = middleOf(v[0], v[1]);
    triangles_[triangle].leaf = false;
    for (std::size_t k = 0; k < 3; ++k) {
        auto& both = sides_.at(key(v[k], v[(k + 1) % 3]));
        (both[0] == triangle ? both[0] : both[1]) = nobody;
    }
    add({v[2], v[0], m});
    add({v[1], v[2], m});
}

void BisectedMesh::split(std::size_t triangle) {
    if (!triangles_[triangle].leaf) return;
    std::size_t other = neighbour(triangle);
    if (other != nobody) {
        const auto& mine = triangles_[triangle].v;
        const auto& theirs = triangles_[other].v;
        if (key(mine[0], mine[1]) != key(theirs[0], theirs[1])) {
            split(other); // its longest edge is another one: halved first, it has ours as its longest
            other = neighbour(triangle);
        }
    }
    halve(triangle);
    if (other != nobody) halve(other);
}

} // namespace coulter
