#include "desktop/print_figure.h"

#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "desktop/translation.h"
#include "drawing/cairo_painter.h"
#include "files/export.h"

#include <QImage>
#include <QPainter>
#include <QPrinter>
#include <algorithm>

namespace coulter {

QString printFigure(const Document& document, QPrinter& printer) {
    constexpr double finest = 600; // dots per inch; finer ones no eye tells apart
    const double dots = std::min(finest, static_cast<double>(printer.resolution()));
    const Figure figure = drawFigure(document, effortOf(document.sheet), {});
    if (const auto problem = plotProblem(figure)) return spoken(*problem);
    const QRectF room = printer.pageRect(QPrinter::Millimeter);
    const double shrunk = std::min({1.0, room.width() / document.sheet.width, room.height() / document.sheet.height});
    const Raster raster = paintRaster(figure.scene, dots / 25.4);
    const QImage image(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                       raster.width * 4, QImage::Format_RGB32);
    if (image.isNull()) return QObject::tr("There is not enough memory for a picture of this size.");
    QPainter painter;
    if (!painter.begin(&printer)) return QObject::tr("The printer takes nothing; look whether it is there.");
    const double perMm = printer.resolution() / 25.4;
    const QSizeF size(shrunk * document.sheet.width * perMm, shrunk * document.sheet.height * perMm);
    const QRectF paper = printer.pageRect(QPrinter::DevicePixel);
    painter.drawImage(QRectF(QPointF((paper.width() - size.width()) / 2, (paper.height() - size.height()) / 2), size),
                      image);
    painter.end();
    return shrunk < 1 ? QObject::tr("The sheet is larger than the paper; it was printed in %1 % of its size.")
                            .arg(static_cast<int>(100 * shrunk))
                      : QString();
}

} // namespace coulter
