#pragma once
#include "drawing/surface_raster.h"

#include <array>
#include <cmath>
#include <cstdint>
#include <numbers>

namespace coulter {

constexpr double pi = std::numbers::pi;
const Rect room{0, 0, 40, 30};
constexpr double perMm = 8;

inline Faces plane(std::array<SeenPoint, 4> corners, Colour colour) {
    Faces faces;
    faces.points.assign(corners.begin(), corners.end());
    faces.place.assign(4, 0);
    faces.triangles = {{0, 1, 2}, {0, 2, 3}};
    faces.colours = {colour};
    return faces;
}

/// A sphere about a middle, seen without perspective.
inline Faces ball(SeenPoint middle, double radius, Colour colour, int parts = 160) {
    Faces faces;
    for (int j = 0; j <= parts; ++j) {
        for (int i = 0; i <= 2 * parts; ++i) {
            const double theta = pi * j / parts, phi = pi * i / parts;
            faces.points.push_back({middle.x + radius * std::sin(theta) * std::cos(phi),
                                    middle.y + radius * std::cos(theta),
                                    middle.towards + radius * std::sin(theta) * std::sin(phi)});
            faces.place.push_back(0);
        }
    }
    const auto at = [&](int i, int j) { return static_cast<std::uint32_t>(j * (2 * parts + 1) + i); };
    for (int j = 0; j < parts; ++j) {
        for (int i = 0; i < 2 * parts; ++i) {
            faces.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            faces.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    }
    faces.colours = {colour};
    return faces;
}

} // namespace coulter
