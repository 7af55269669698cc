#pragma once
#include "composition/figure.h"
#include "drawing/cairo_painter.h"

namespace coulter {

/// A figure as dots at its sheet's resolution: on white paper, or without paper, with the opacity of each dot. Without
/// dots if there is no memory.
struct FigureRaster {
    Raster raster;
    bool withOpacity = false;
};
FigureRaster rasterOf(const Figure& figure);

} // namespace coulter
