#include "drawing/surface_vectors.h"

#include "drawing/surface_order.h"

namespace coulter {
namespace {

constexpr double seam = 0.13;       // mm that a polygon reaches under one that is painted later beside it
constexpr double leastStrip = 1e-3; // mm² of what a strip has of a piece; less shows nothing

/// Who has an edge in common, on either side of it, and when they are painted.
class Neighbours {
public:
    Neighbours(const std::vector<Piece>& pieces, const std::vector<std::uint32_t>& order, std::uint32_t edges)
        : pieces_(pieces), users_(edges + 1) {
        for (std::size_t when = 0; when < order.size(); ++when) {
            const Piece& piece = pieces[order[when]];
            for (std::size_t i = 0; i < piece.corners.size(); ++i) {
                const SharedSide& edge = piece.corners[i].edge;
                if (edge.number > 0) users_[edge.number][edge.side].push_back({when, order[when], i});
            }
        }
    }

    /// A piece with strips along its edges of those beside it that are painted later: under them, so that they need
    /// not reach it. The first polygon is its own, larger by the strips along whole edges.
    std::vector<std::vector<Point>> outline(std::uint32_t index, std::size_t when) const {
        const auto& corners = pieces_[index].corners;
        std::vector<std::vector<Point>> polygons(1);
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Corner &a = corners[i], &b = corners[(i + 1) % corners.size()];
            polygons[0].push_back({a.x, a.y});
            if (a.edge.number == 0) continue;
            for (const User& user : users_[a.edge.number][1U - a.edge.side]) {
                if (user.when <= when) continue;
                std::vector<Point> strip = stripOf(user, a, b);
                if (strip.size() < 3 || !hasPartOf(strip, a, b)) continue; // it is beside another part of the edge
                const bool isWhole = isAt(strip[0], b) && isAt(strip[1], a);
                if (isWhole)
                    polygons[0].insert(polygons[0].end(), strip.begin() + 2, strip.end());
                else
                    polygons.push_back(std::move(strip));
                addBehind(user, a, b, when, index, polygons);
            }
        }
        return polygons;
    }

private:
    struct User {
        std::size_t when;
        std::uint32_t piece;
        std::size_t corner; ///< at which the edge begins
    };
    static bool isAt(Point p, const Corner& c) { return std::hypot(p.x - c.x, p.y - c.y) < 1e-7; }

    /// The first side of a strip lies along the edge.
    static bool hasPartOf(const std::vector<Point>& strip, const Corner& a, const Corner& b) {
        const double length = sideLength(a, b), dx = (b.x - a.x) / length, dy = (b.y - a.y) / length;
        const auto along = [&](const Point& p) { return std::clamp((p.x - a.x) * dx + (p.y - a.y) * dy, 0.0, length); };
        return std::abs(along(strip[0]) - along(strip[1])) > 1e-6;
    }

    /// Where pieces are narrower than a strip, what it has of those beyond them.
    void addBehind(const User& first, const Corner& a, const Corner& b, std::size_t when, std::uint32_t own,
                   std::vector<std::vector<Point>>& polygons) const {
        constexpr std::size_t most = 24;
        std::vector<std::uint32_t> met{own, first.piece};
        for (std::size_t at = 1; at < met.size() && met.size() < most; ++at) {
            for (const Corner& c : pieces_[met[at]].corners) {
                if (c.edge.number == 0) continue;
                for (const User& user : users_[c.edge.number][1U - c.edge.side]) {
                    if (user.when <= when || std::ranges::find(met, user.piece) != met.end()) continue;
                    std::vector<Point> strip = stripOf(user, a, b);
                    if (strip.size() < 3 || areaOf(strip) < leastStrip) continue;
                    met.push_back(user.piece);
                    polygons.push_back(std::move(strip));
                }
            }
        }
    }

    /// What of a piece is within the width of a strip along an edge, first where the edge ends.
    std::vector<Point> stripOf(const User& user, const Corner& a, const Corner& b) const {
        const auto& corners = pieces_[user.piece].corners;
        const double length = sideLength(a, b);
        if (!(length > 1e-7)) return {};
        std::vector<Point> polygon, kept;
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Corner& c = corners[(user.corner + i) % corners.size()];
            polygon.push_back({c.x, c.y});
        }
        const double dx = (b.x - a.x) / length, dy = (b.y - a.y) / length;
        const auto keep = [&](const auto& room) { // where it is not negative
            kept.clear();
            for (std::size_t i = 0; i < polygon.size(); ++i) {
                const Point p = polygon[i], q = polygon[(i + 1) % polygon.size()];
                const double from = room(p), to = room(q);
                if (from >= 0) kept.push_back(p);
                if ((from > 0 && to < 0) || (from < 0 && to > 0)) {
                    const double share = from / (from - to);
                    kept.push_back({p.x + share * (q.x - p.x), p.y + share * (q.y - p.y)});
                }
            }
            std::swap(polygon, kept);
        };
        constexpr double near = 1e-8; // mm
        keep([&](Point p) { return seam - std::abs((p.x - a.x) * dy - (p.y - a.y) * dx); });
        keep([&](Point p) { return (p.x - a.x) * dx + (p.y - a.y) * dy + seam + near; });
        keep([&](Point p) { return seam + near - (p.x - b.x) * dx - (p.y - b.y) * dy; });
        return polygon;
    }

    const std::vector<Piece>& pieces_;
    std::vector<std::array<std::vector<User>, 2>> users_;
};

} // namespace

std::optional<std::vector<FillItem>> surfaceVectors(const std::vector<Faces>& surfaces, const Rect& room,
                                                    const std::stop_token& stop) {
    std::size_t triangles = 0;
    for (const Faces& faces : surfaces) triangles += faces.triangles.size();
    if (triangles > mostVectorTriangles) return std::nullopt;
    Pieces made = piecesOf(surfaces, room, stop);
    const auto order = paintingOrder(made, room, stop);
    if (!order) return std::nullopt;
    const Neighbours neighbours(made.pieces, *order, made.edges);
    std::vector<FillItem> items;
    for (std::size_t when = 0; when < order->size() && !stop.stop_requested(); ++when) {
        const std::uint32_t piece = (*order)[when];
        items.push_back({neighbours.outline(piece, when), made.pieces[piece].colour, 1, false});
    }
    return items;
}

} // namespace coulter
