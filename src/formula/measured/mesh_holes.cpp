#include "formula/measured/mesh_holes.h"

#include <algorithm>

namespace coulter {
namespace {

struct Edge {
    std::uint32_t from, to;
    std::pair<std::uint32_t, std::uint32_t> either() const { return std::minmax(from, to); }
};

/// Edges of one element alone, by the nodes that they begin at.
std::vector<Edge> borderOf(const ElementMesh& mesh) {
    std::vector<Edge> edges;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const std::size_t corners = mesh.cornersOf(e);
        for (std::size_t k = 0; k < corners; ++k)
            edges.push_back({mesh.elements[e][k], mesh.elements[e][(k + 1) % corners]});
    }
    std::ranges::sort(edges, {}, &Edge::either);
    std::vector<Edge> border;
    for (std::size_t i = 0; i < edges.size();) {
        std::size_t end = i + 1;
        while (end < edges.size() && edges[end].either() == edges[i].either()) ++end;
        if (end == i + 1) border.push_back(edges[i]);
        i = end;
    }
    std::ranges::sort(border, {}, &Edge::from);
    return border;
}

} // namespace

std::vector<std::vector<std::uint32_t>> holesOf(const ElementMesh& mesh) {
    const std::vector<Edge> border = borderOf(mesh);
    std::vector<bool> used(border.size());
    std::vector<std::vector<std::uint32_t>> holes;
    for (std::size_t first = 0; first < border.size(); ++first) {
        if (used[first]) continue;
        std::vector<std::uint32_t> loop;
        double area = 0; // twice, counter-clockwise
        for (std::size_t at = first;;) {
            used[at] = true;
            const Edge& edge = border[at];
            loop.push_back(edge.from);
            // From the first node on, so that places far from the origin lose no digits.
            const double x0 = mesh.x[border[first].from], y0 = mesh.y[border[first].from];
            area +=
                (mesh.x[edge.from] - x0) * (mesh.y[edge.to] - y0) - (mesh.x[edge.to] - x0) * (mesh.y[edge.from] - y0);
            if (edge.to == border[first].from) break;
            auto next =
                static_cast<std::size_t>(std::ranges::lower_bound(border, edge.to, {}, &Edge::from) - border.begin());
            while (next < border.size() && border[next].from == edge.to && used[next]) ++next;
            if (next == border.size() ||
                border[next].from != edge.to) { // elements overlap: it is no border that closes
                area = 0;
                break;
            }
            at = next;
        }
        if (area < 0) holes.push_back(std::move(loop));
    }
    return holes;
}

} // namespace coulter
