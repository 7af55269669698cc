#include "desktop/other_eyes.h"

#include "drawing/colour_vision.h"

#include <QCoreApplication>

namespace coulter {
namespace {

Colour seen(Colour colour, Eyes eyes) {
    switch (eyes) {
    case Eyes::GreyPrint: return inGrey(colour);
    case Eyes::Protanopia: return asSeen(colour, ColourVision::Protan);
    case Eyes::Deuteranopia: return asSeen(colour, ColourVision::Deutan);
    case Eyes::Tritanopia: return asSeen(colour, ColourVision::Tritan);
    case Eyes::Usual: break;
    }
    return colour;
}

} // namespace

QString nameOf(Eyes eyes) {
    switch (eyes) {
    case Eyes::GreyPrint: return QCoreApplication::translate("Eyes", "in grey print");
    case Eyes::Protanopia: return QCoreApplication::translate("Eyes", "with protanopia (no red)");
    case Eyes::Deuteranopia: return QCoreApplication::translate("Eyes", "with deuteranopia (no green)");
    case Eyes::Tritanopia: return QCoreApplication::translate("Eyes", "with tritanopia (no blue)");
    case Eyes::Usual: break;
    }
    return QCoreApplication::translate("Eyes", "in all colours");
}

QImage seenBy(QImage image, Eyes eyes) {
    if (eyes == Eyes::Usual) return image;
    // Colours of a picture come again and again: those met last are known, each at a place by its bits.
    struct Known {
        QRgb from = 0, to = 0; // without opacity: no colour of the picture
    };
    std::array<Known, 4096> known{};
    for (int y = 0; y < image.height(); ++y) {
        auto* row = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < image.width(); ++x) {
            const QRgb at = row[x] | 0xff000000U;
            Known& entry = known[at * 2654435761U >> 20];
            if (entry.from != at) {
                const Colour c = seen({static_cast<std::uint8_t>(qRed(at)), static_cast<std::uint8_t>(qGreen(at)),
                                       static_cast<std::uint8_t>(qBlue(at))},
                                      eyes);
                entry = {at, qRgb(c.red, c.green, c.blue)};
            }
            row[x] = entry.to;
        }
    }
    return image;
}

} // namespace coulter
