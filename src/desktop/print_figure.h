#pragma once
#include "figure/document.h"

#include <QImage>
#include <QString>
#include <stop_token>

class QPrinter;

namespace coulter {

/// A figure as dots for a printer, or why there is none.
struct PrintPicture {
    QImage image;
    QString problem;
};
/// Off the interface thread: it may take as long as an export.
/// @param resolution  of the printer, dots per inch; finer than 600 no eye tells apart
PrintPicture drawForPrint(const Document& document, int resolution, const std::stop_token& stop = {});

/// Prints it in its true size, in the middle of the paper; one that is larger is made as small as it must be.
/// @return what has to be said: that, or why nothing was printed; empty if all is as it should be
QString printPicture(const PrintPicture& picture, const Sheet& sheet, QPrinter& printer);

} // namespace coulter
