#pragma once
#include "composition/figure.h"

namespace coulter {

/// The frame of a view of space: the outline of the floor, and its two scales along the edges nearest the eye with a
/// single upright scale at the floor's left corner. Surfaces stand between the two; without any, both are drawn at
/// once.
void drawFloor(Scene& scene, const PanelLayout& layout);
void drawSpaceScales(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout);

} // namespace coulter
