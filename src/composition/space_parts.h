#pragma once
#include "composition/figure.h"

namespace coulter {

/// The frame of a view of space: the outline of the floor with its two scales along the edges nearest the eye, and a
/// single upright scale at the floor's left corner.
void drawSpaceScales(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout);

} // namespace coulter
