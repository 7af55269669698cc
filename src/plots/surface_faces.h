#pragma once
#include "drawing/surface_raster.h"
#include "plots/drawn.h"

#include <optional>
#include <span>

namespace coulter {

// A surface's samples as faces and lines, as a frame in space shows them.

struct SurfaceLook {
    bool lit = false, flat = false;
    std::optional<Colour> one; ///< none: by value
};

/// Two lights and what comes from everywhere: how bright a face is, by the angle of its normal to each. A face is lit
/// on the side that is seen. Directions are those of the view: to the right, upwards, towards the eye.
struct Lights {
    static constexpr std::array<double, 3> first{-0.45, 0.65, 0.61}, second{0.75, 0.10, 0.65};
    static constexpr double everywhere = 0.46, ofFirst = 0.52, ofSecond = 0.16;
    /// @param normal  of length 1
    static double on(const std::array<double, 3>& normal);
};

/// The faces within the box; those that reach out of it are cut at its floor and ceiling.
Faces surfaceFaces(const Drawn& drawn, const Frame& frame, const SurfaceLook& look);

/// Lines on the surface at equal steps of both variables, as places; broken where it is undefined or out of the box.
std::vector<std::vector<Place>> surfaceLines(const Drawn& drawn, const Frame& frame, int count);

/// Normals as the view sees them, of length 1, of every point of the samples: from the function's own differences.
std::vector<std::array<double, 3>> surfaceNormals(const Drawn& drawn, const Frame& frame);

struct SurfacePoint {
    Place place{};
    std::optional<double> slope; ///< of a height over a floor: its steepest rise over a unit of both variables
    double direction = 0;        ///< of that rise on the floor, degrees counterclockwise from the first variable
};
/// What of it is nearest to the eye at a place of the sheet.
std::optional<SurfacePoint> surfaceAt(const Drawn& drawn, const Frame& frame, Point mm);

/// The surface that is seen at a place of the sheet: of several the one that hides the others there, null
/// where there is none; one alone wherever it is.
const Drawn* surfaceInFront(std::span<const Drawn> drawn, const Frame& frame, Point mm);

} // namespace coulter
