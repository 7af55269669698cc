#pragma once
#include "composition/figure.h"

namespace coulter {

/// Draws one panel of a figure whose samples are there: its plots, scales, legend, colour bar and title. Adds to the
/// scene, the hits and what is owned.
void drawPanel(Figure& figure, std::size_t panel, const std::stop_token& stop);

} // namespace coulter
