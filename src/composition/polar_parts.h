#pragma once
#include "composition/figure.h"

namespace coulter {

/// The circles and rays of a frame with an angle, below what is drawn.
void drawPolarGrid(Scene& scene, const PanelLayout& layout);

/// Its scales: numbers of the angle round the rim, and the radius along a line of its own beside the panel.
void drawPolarScales(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout);

} // namespace coulter
