#pragma once
#include "drawing/surface_raster.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <stop_token>
#include <vector>

namespace coulter {

// Triangles of surfaces as the pieces of one colour that they are painted with.

/// An edge that polygons on either side of it have in common; no number: none, or all lie on one side.
struct SharedSide {
    std::uint32_t number = 0;
    std::uint8_t side = 0;
};

struct Corner {
    double x = 0, y = 0, depth = 0, place = 0, light = 1;
    SharedSide edge = {}; ///< to the next corner
};

inline Corner mixed(const Corner& a, const Corner& b, double share) {
    const auto mix = [&](double p, double q) { return p + share * (q - p); };
    return {mix(a.x, b.x), mix(a.y, b.y), mix(a.depth, b.depth), mix(a.place, b.place), mix(a.light, b.light), a.edge};
}

inline double sideLength(const Corner& a, const Corner& b) { return std::hypot(b.x - a.x, b.y - a.y); }

/// A convex polygon in a plane of space.
struct Piece {
    std::vector<Corner> corners;
    Colour colour;
    Rect box;
    double across = 0, down = 0;    ///< mm towards the eye for each mm of the sheet
    double least = 0, greatest = 0; ///< towards the eye
    std::uint32_t surface = 0;

    double depthAt(double x, double y) const {
        const Corner& at = corners[0];
        return std::clamp(at.depth + across * (x - at.x) + down * (y - at.y), least, greatest);
    }
    double middle() const { return (least + greatest) / 2; }
    void measure() {
        double left = HUGE_VAL, right = -HUGE_VAL, top = HUGE_VAL, bottom = -HUGE_VAL;
        least = HUGE_VAL;
        greatest = -HUGE_VAL;
        for (const Corner& c : corners) {
            left = std::min(left, c.x);
            right = std::max(right, c.x);
            top = std::min(top, c.y);
            bottom = std::max(bottom, c.y);
            least = std::min(least, c.depth);
            greatest = std::max(greatest, c.depth);
        }
        box = {left, top, right - left, bottom - top};
    }
};

double areaOf(const std::vector<Point>& polygon);

inline constexpr double leastOverlap = 1e-9;  ///< mm²; less is an edge in common
inline constexpr double smallestPiece = 0.05; ///< mm; what is smaller is not cut
inline constexpr std::size_t mostPieces = 150'000;

/// A piece on both sides of a line of the sheet, by a height over it that is linear; empty where there is nothing.
/// @param number  of the edge that both get
std::array<Piece, 2> cut(const Piece& piece, std::uint32_t number, const std::function<double(const Corner&)>& height);

struct Pieces {
    std::vector<Piece> pieces;
    std::uint32_t edges = 0; ///< numbers of edges in common so far
};
/// All triangles within a part of the sheet, cut until neither their places among the colours nor the light on them
/// changes the colour of a piece by more than 6 of 255; by more where they would be too many.
Pieces piecesOf(const std::vector<Faces>& surfaces, const Rect& room, const std::stop_token& stop);

} // namespace coulter
