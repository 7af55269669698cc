#pragma once
#include "figure/sheet_looks.h"

namespace coulter {

/// Gives a figure a look: its sheet, and notes whose letters have a size of their own keep it beside all others.
void setLook(Document& document, const SheetLook& look);

} // namespace coulter
