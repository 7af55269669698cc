#pragma once
#include "composition/figure.h"

namespace coulter {

/// Draws what a sheet says once for all of its panels: its title and the legend they have in common.
void drawSheetParts(Figure& figure);

} // namespace coulter
