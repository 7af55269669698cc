#pragma once
#include "drawing/scene.h"

namespace coulter {

/// An image on the raster that it is shown on, whose dots are larger than its own: each is the mean of what lies under
/// it, by area, of colours multiplied by their opacity.
struct ShrunkImage {
    int left = 0, top = 0; ///< of the raster
    int width = 0, height = 0;
    std::vector<std::uint32_t> pixels; ///< colours multiplied by their opacity
};

/// @param place  of the image on the raster, in its dots
ShrunkImage shrunk(const ImageItem& image, const Rect& place);

} // namespace coulter
