#pragma once
#include "figure/document.h"

#include <QString>

class QPrinter;

namespace coulter {

/// Prints a figure in its true size, in the middle of the paper; one that is larger is made as small as it must be.
/// @return what has to be said: that, or why nothing was printed; empty if all is as it should be
QString printFigure(const Document& document, QPrinter& printer);

} // namespace coulter
