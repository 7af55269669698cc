#include "files/figure_raster.h"

#include "figure/sheet_settings.h"

namespace coulter {

FigureRaster rasterOf(const Figure& figure) {
    const double perMm = figure.document.sheet.resolution / 25.4;
    const bool withOpacity = word(figure.document.sheet.settings, paperSetting) == 1;
    return {withOpacity ? paintTransparent(figure.scene, perMm) : paintRaster(figure.scene, perMm), withOpacity};
}

} // namespace coulter
