#include "sampling/bisected_mesh.h"

#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace coulter;

namespace {

/// Twice the area of a triangle, in lattice units; positive when counterclockwise.
std::int64_t twiceArea(const BisectedMesh& mesh, const BisectedMesh::Triangle& t) {
    const auto &a = mesh.places()[t.v[0]], &b = mesh.places()[t.v[1]], &c = mesh.places()[t.v[2]];
    return static_cast<std::int64_t>(b.x - a.x) * (c.y - a.y) - static_cast<std::int64_t>(c.x - a.x) * (b.y - a.y);
}

std::int64_t squaredLength(const BisectedMesh& mesh, BisectedMesh::Vertex a, BisectedMesh::Vertex b) {
    const std::int64_t dx = mesh.places()[b].x - mesh.places()[a].x, dy = mesh.places()[b].y - mesh.places()[a].y;
    return dx * dx + dy * dy;
}

/// Leaves cover the rectangle once, meet at whole edges, and have their longest edge first.
void checkWhole(const BisectedMesh& mesh, std::int64_t width, std::int64_t height) {
    std::int64_t sum = 0;
    std::map<std::pair<BisectedMesh::Vertex, BisectedMesh::Vertex>, int> sides;
    for (const auto& t : mesh.triangles()) {
        if (!t.leaf) continue;
        REQUIRE(twiceArea(mesh, t) > 0);
        sum += twiceArea(mesh, t);
        REQUIRE(squaredLength(mesh, t.v[0], t.v[1]) == 2 * squaredLength(mesh, t.v[1], t.v[2]));
        REQUIRE(squaredLength(mesh, t.v[1], t.v[2]) == squaredLength(mesh, t.v[2], t.v[0]));
        for (std::size_t k = 0; k < 3; ++k) ++sides[{t.v[k], t.v[(k + 1) % 3]}];
    }
    CHECK(sum == 2 * width * height);
    for (const auto& [side, count] : sides) {
        REQUIRE(count == 1);
        if (sides.contains({side.second, side.first})) continue;
        const auto &a = mesh.places()[side.first], &b = mesh.places()[side.second];
        REQUIRE(((a.x == b.x && (a.x == 0 || a.x == width)) || (a.y == b.y && (a.y == 0 || a.y == height))));
    }
}

} // namespace

TEST_CASE("triangles stay whole, right-angled and without hanging corners, wherever they are halved") {
    BisectedMesh mesh(5, 3, 1 << 6);
    checkWhole(mesh, 5 << 6, 3 << 6);
    std::mt19937 engine(11);
    for (int round = 0; round < 400; ++round) {
        const std::size_t t = engine() % mesh.triangles().size();
        if (mesh.triangles()[t].leaf && mesh.canSplit(t)) mesh.split(t);
        if (round % 100 == 99) checkWhole(mesh, 5 << 6, 3 << 6);
    }
    CHECK(mesh.triangles().size() > 500);
}

TEST_CASE("one corner can be made as fine as the lattice, and only its neighbourhood follows") {
    BisectedMesh mesh(4, 4, 1 << 8);
    for (int level = 0; level < 12; ++level) {
        for (std::size_t t = 0; t < mesh.triangles().size(); ++t) {
            const auto& triangle = mesh.triangles()[t];
            const bool atCorner = triangle.v[0] == 0 || triangle.v[1] == 0 || triangle.v[2] == 0;
            if (triangle.leaf && atCorner && mesh.canSplit(t)) {
                mesh.split(t);
                break;
            }
        }
    }
    checkWhole(mesh, 4 << 8, 4 << 8);
    CHECK(mesh.triangles().size() < 400);
}

TEST_CASE("the middles of edges are shared between neighbours") {
    BisectedMesh mesh(1, 1, 1 << 4);
    const auto first = mesh.middles(0), second = mesh.middles(1);
    CHECK(first[0] == second[0]); // the diagonal
    const std::size_t known = mesh.places().size();
    CHECK(known == 4 + 5);
    mesh.split(0);
    CHECK(mesh.places().size() == known);
    CHECK_FALSE(mesh.triangles()[1].leaf);
    mesh.split(0); // a triangle that is no leaf any more stays as it is
    CHECK(mesh.triangles().size() == 6);
}
