#pragma once
#include "composition/panel_layout.h"

namespace coulter {

/// The frame of a view of space: the outline of the floor with its two scales along the edges nearest the eye, and a
/// single upright scale at the floor's left corner.
void drawSpaceScales(Scene& scene, const PanelLayout& layout);

} // namespace coulter
