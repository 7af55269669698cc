#pragma once
#include "formula/measured/measured_field.h"

#include <vector>

namespace coulter {

/// The holes of a mesh: closed rows of nodes round which elements lie on the outside only, each beginning with its
/// lowest node. Method: an edge of one element alone is on the border; borders run so that elements lie to their left,
/// round the mesh counter-clockwise and round a hole clockwise.
std::vector<std::vector<std::uint32_t>> holesOf(const ElementMesh& mesh);

} // namespace coulter
