#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"
#include "formula/measured/measured_field.h"

namespace coulter {

/// Writes numbers of a mesh's nodes, upright beside them, and of its elements, slanted in their middles: those in the
/// panel that have room, the nodes before the elements. No two lie on each other.
void drawMeshNumbers(const ElementMesh& mesh, const Frame& frame, Canvas& canvas, bool ofNodes, bool ofElements);

} // namespace coulter
