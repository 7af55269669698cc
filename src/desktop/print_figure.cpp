#include "desktop/print_figure.h"

#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "desktop/translation.h"
#include "drawing/cairo_painter.h"
#include "files/export.h"

#include <QPainter>
#include <QPrinter>
#include <algorithm>

namespace coulter {

PrintPicture drawForPrint(const Document& document, int resolution, const std::stop_token& stop) {
    constexpr int finest = 600;
    const Figure figure = drawFigure(document, effortOf(document.sheet), stop);
    if (stop.stop_requested()) return {{}, QObject::tr("The figure was not printed.")};
    if (const auto problem = plotProblem(figure)) return {{}, spoken(*problem)};
    const Raster raster = paintRaster(figure.scene, std::min(finest, resolution) / 25.4);
    QImage image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                          raster.width * 4, QImage::Format_RGB32)
                       .copy();
    if (image.isNull()) return {{}, QObject::tr("There is not enough memory for a picture of this size.")};
    return {std::move(image), {}};
}

QString printPicture(const PrintPicture& picture, const Sheet& sheet, QPrinter& printer) {
    if (!picture.problem.isEmpty()) return picture.problem;
    const QRectF room = printer.pageRect(QPrinter::Millimeter), paper = printer.pageRect(QPrinter::DevicePixel);
    const double shrunk = std::min({1.0, room.width() / sheet.width, room.height() / sheet.height});
    QPainter painter;
    if (!painter.begin(&printer)) return QObject::tr("The printer takes nothing; look whether it is there.");
    const double perMm = shrunk * printer.resolution() / 25.4;
    const QSizeF size(perMm * sheet.width, perMm * sheet.height);
    painter.drawImage(QRectF(QPointF((paper.width() - size.width()) / 2, (paper.height() - size.height()) / 2), size),
                      picture.image);
    painter.end();
    return shrunk < 1 ? QObject::tr("The sheet is larger than the paper; it was printed in %1 % of its size.")
                            .arg(static_cast<int>(100 * shrunk))
                      : QString();
}

} // namespace coulter
