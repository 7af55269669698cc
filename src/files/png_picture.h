#pragma once
#include "drawing/cairo_painter.h"

#include <optional>
#include <string>

namespace coulter {

/// Dots as a PNG file without a recipe; none if there is no memory.
std::optional<std::string> pngPicture(const Raster& raster, double dotsPerInch);

} // namespace coulter
