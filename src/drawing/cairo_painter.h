#pragma once
#include "drawing/scene.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// Pixels of a picture, row by row from the top, 0xffRRGGBB.
struct Raster {
    int width = 0, height = 0;
    std::vector<std::uint32_t> pixels;
};

/// The scene as pixels on its paper, or none if it cannot be made (no memory). The window and PNG export use this
/// alike.
/// @param dotsPerMm  resolution; the size is the sheet's, rounded to whole dots
/// @param paper      colour under the drawing, if not the scene's own
Raster paintRaster(const Scene& scene, double dotsPerMm, std::optional<Colour> paper = std::nullopt);
/// A drawing without paper: dots with their opacity in the uppermost byte, colours not multiplied by it. What it looks
/// like on white and on black paper says both.
Raster paintTransparent(const Scene& scene, double dotsPerMm);

/// The scene as a PDF page at its true size, with text that can be selected and no date of its own.
std::string paintPdf(const Scene& scene, const std::string& title);

/// The scene as Encapsulated PostScript (Adobe, "Encapsulated PostScript File Format Specification", version 3.0) at
/// its true size, with no date of its own. The format has no opacity: what lies under something translucent becomes
/// dots there.
/// @param dotsPerInch  of these dots
/// @param comments     lines for the head of the file, each beginning with % and no longer than 255 characters
/// @param isExact      the sheet's upper edge is where its exact size says; else at the next whole point
std::string paintEps(const Scene& scene, double dotsPerInch, const std::vector<std::string>& comments, bool isExact);

} // namespace coulter
