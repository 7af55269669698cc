#include "desktop/little_pictures.h"

#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "drawing/cairo_painter.h"

namespace coulter {

void LittlePictures::draw(std::vector<Document> documents, int wide, double ratio,
                          std::function<QImage(const QImage&)> after) {
    drawer_ = std::jthread(
        [this, documents = std::move(documents), wide, ratio, after = std::move(after)](const std::stop_token& stop) {
            for (std::size_t i = 0; i < documents.size() && !stop.stop_requested(); ++i) {
                const Figure figure = drawFigure(documents[i], littleEffort, stop);
                if (stop.stop_requested()) return;
                const Raster raster = paintRaster(figure.scene, wide * ratio / figure.scene.width);
                QImage image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                                      raster.width * 4, QImage::Format_RGB32)
                                   .copy();
                if (after) image = after(image);
                image.setDevicePixelRatio(ratio);
                QMetaObject::invokeMethod(this, [this, image, i, stop] {
                    if (!stop.stop_requested()) emit drawn(static_cast<int>(i), image);
                });
            }
        });
}

} // namespace coulter
