#include "drawing/surface_pieces.h"

#include <map>

namespace coulter {
namespace {

constexpr int mostDifference = 6; // of 255, between corners of one colour

} // namespace

double areaOf(const std::vector<Point>& polygon) {
    double twice = 0;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    return std::abs(twice) / 2;
}

std::array<Piece, 2> cut(const Piece& piece, std::uint32_t number, const std::function<double(const Corner&)>& height) {
    std::array<Piece, 2> parts{piece, piece};
    for (Piece& part : parts) part.corners.clear();
    const auto& corners = piece.corners;
    const auto add = [&](std::size_t side, Corner corner, bool alongCut) {
        if (alongCut) corner.edge = {number, static_cast<std::uint8_t>(side)};
        parts[side].corners.push_back(corner);
    };
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const Corner &a = corners[i], &b = corners[(i + 1) % corners.size()];
        const double from = height(a), to = height(b);
        if (from >= 0) add(0, a, from == 0 && to < 0);
        if (from <= 0) add(1, a, from == 0 && to > 0);
        if ((from > 0 && to < 0) || (from < 0 && to > 0)) {
            const Corner on = mixed(a, b, from / (from - to));
            add(0, on, from > 0);
            add(1, on, from < 0);
        }
    }
    for (Piece& part : parts) {
        if (part.corners.size() < 3)
            part.corners.clear();
        else
            part.measure();
    }
    return parts;
}

namespace {

/// The edges that triangles of one surface have in common, on the sheet on both sides of it.
class SharedEdges {
public:
    SharedEdges(const Faces& faces, std::uint32_t& numbers) : faces_(faces), numbers_(numbers) {
        // Points at one place count as one, as where a surface closes.
        std::map<std::array<long long, 3>, std::uint32_t> places;
        for (const SeenPoint& p : faces.points) {
            const auto rounded = [](double mm) { return std::llround(std::clamp(mm, -1e9, 1e9) * 1e6); };
            const std::array<long long, 3> place{rounded(p.x), rounded(p.y), rounded(p.towards)};
            point_.push_back(places.try_emplace(place, static_cast<std::uint32_t>(places.size())).first->second);
        }
        for (const auto& t : faces.triangles) {
            for (std::size_t k = 0; k < 3; ++k) {
                Edge& edge = edges_[key(t[k], t[(k + 1) % 3])];
                if (edge.number == 0) edge.number = ++numbers_;
                edge.isOn[sideOf(t[k], t[(k + 1) % 3], t[(k + 2) % 3])] = true;
            }
        }
    }
    SharedSide of(std::uint32_t a, std::uint32_t b, std::uint32_t third) const {
        const Edge& edge = edges_.at(key(a, b));
        return edge.isOn[0] && edge.isOn[1] ? SharedSide{edge.number, sideOf(a, b, third)} : SharedSide{};
    }

private:
    struct Edge {
        std::uint32_t number = 0;
        std::array<bool, 2> isOn{};
    };
    std::pair<std::uint32_t, std::uint32_t> key(std::uint32_t a, std::uint32_t b) const {
        return std::minmax(point_[a], point_[b]);
    }
    std::uint8_t sideOf(std::uint32_t a, std::uint32_t b, std::uint32_t third) const {
        if (point_[a] > point_[b]) std::swap(a, b);
        const SeenPoint &p = faces_.points[a], &q = faces_.points[b], &r = faces_.points[third];
        return (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y) > 0 ? 1 : 0;
    }
    const Faces& faces_;
    std::uint32_t& numbers_;
    std::vector<std::uint32_t> point_;
    std::map<std::pair<std::uint32_t, std::uint32_t>, Edge> edges_;
};

/// Triangles, each cut until its colours are nearly one.
class PieceMaker {
public:
    PieceMaker(const Rect& room, int difference) : room_(room), difference_(difference) {}

    void add(const Faces& faces, std::uint32_t surface) {
        faces_ = &faces;
        surface_ = surface;
        const SharedEdges shared(faces, made.edges);
        for (auto t : faces.triangles) {
            if (turnOf(faces.points[t[0]], faces.points[t[1]], faces.points[t[2]]) < 0) std::swap(t[1], t[2]);
            std::array<Corner, 3> corners;
            for (std::size_t k = 0; k < 3; ++k)
                corners[k] = {faces.points[t[k]].x,
                              faces.points[t[k]].y,
                              faces.points[t[k]].towards,
                              faces.place[t[k]],
                              faces.light.empty() ? 1.0 : static_cast<double>(faces.light[t[k]]),
                              shared.of(t[k], t[(k + 1) % 3], t[(k + 2) % 3])};
            if (turnOf(corners[0], corners[1], corners[2]) > 1e-12) triangle(corners); // else it is seen edge on
            if (made.pieces.size() > mostPieces) return;
        }
    }

    Pieces made;

private:
    Colour colourOf(double place, double light) const {
        return faces_->shade(static_cast<float>(place), static_cast<float>(light));
    }

    template <typename At> static double turnOf(const At& a, const At& b, const At& c) {
        return (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
    }

    void triangle(const std::array<Corner, 3>& corners) {
        Piece piece;
        piece.corners.assign(corners.begin(), corners.end());
        piece.surface = surface_;
        piece.measure();
        if (!piece.box.intersects(room_)) return;
        const Corner &a = corners[0], &b = corners[1], &c = corners[2];
        const double det = turnOf(a, b, c);
        piece.across = ((b.depth - a.depth) * (c.y - a.y) - (c.depth - a.depth) * (b.y - a.y)) / det;
        piece.down = ((c.depth - a.depth) * (b.x - a.x) - (b.depth - a.depth) * (c.x - a.x)) / det;
        put(std::move(piece), 0);
    }

    /// Cut along lines of one place among the colours, or of one brightness, whichever changes the colour more.
    void put(Piece piece, int depth) {
        const auto [place, light] = rangesOf(piece);
        const double middle = (place.first + place.second) / 2, bright = (light.first + light.second) / 2;
        const int byPlace = apart(colourOf(place.first, bright), colourOf(place.second, bright)),
                  byLight = apart(colourOf(middle, light.first), colourOf(middle, light.second));
        const bool isLarge = std::max(piece.box.width, piece.box.height) > 8 * smallestPiece;
        if (!faces_->flat && depth < 12 && isLarge && std::max(byPlace, byLight) > difference_) {
            const bool ofPlace = byPlace >= byLight;
            for (Piece& part : cut(piece, ++made.edges,
                                   [&](const Corner& c) { return ofPlace ? c.place - middle : c.light - bright; })) {
                if (!part.corners.empty()) put(std::move(part), depth + 1);
            }
            return;
        }
        double meanPlace = 0, meanLight = 0;
        for (const Corner& c : piece.corners) {
            meanPlace += c.place / static_cast<double>(piece.corners.size());
            meanLight += c.light / static_cast<double>(piece.corners.size());
        }
        piece.colour = colourOf(meanPlace, meanLight);
        made.pieces.push_back(std::move(piece));
    }

    static std::array<std::pair<double, double>, 2> rangesOf(const Piece& piece) {
        const auto place = std::ranges::minmax(piece.corners, {}, &Corner::place),
                   light = std::ranges::minmax(piece.corners, {}, &Corner::light);
        return {std::pair{place.min.place, place.max.place}, std::pair{light.min.light, light.max.light}};
    }

    static int apart(const Colour& p, const Colour& q) {
        return std::max({std::abs(p.red - q.red), std::abs(p.green - q.green), std::abs(p.blue - q.blue)});
    }

    Rect room_;
    int difference_;
    const Faces* faces_ = nullptr;
    std::uint32_t surface_ = 0;
};

} // namespace

Pieces piecesOf(const std::vector<Faces>& surfaces, const Rect& room, const std::stop_token& stop) {
    for (int difference = mostDifference;; difference *= 2) {
        PieceMaker maker(room, difference);
        for (std::uint32_t i = 0; i < surfaces.size() && !stop.stop_requested(); ++i) maker.add(surfaces[i], i);
        if (maker.made.pieces.size() <= mostPieces || difference > 255) return std::move(maker.made);
    }
}

} // namespace coulter
