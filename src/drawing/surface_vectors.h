#pragma once
#include "drawing/scene.h"
#include "drawing/surface_raster.h"

#include <optional>
#include <stop_token>
#include <vector>

namespace coulter {

/// What surfaces may have of triangles to be drawn as polygons; more make files that nobody opens.
inline constexpr std::size_t mostVectorTriangles = 60'000;

/// Surfaces as polygons of one colour each, the farthest first: painted in their order, what is nearest is seen.
///
/// Claims: of two polygons that overlap on the sheet by more than a millionth of a mm the nearer one comes later,
/// wherever they do; where surfaces cross, polygons are cut along the line in which they do. Within a polygon neither
/// its place among the colours nor the light on it changes its colour by more than 6 of 255, unless there are very
/// many or it is smaller than 0.4 mm. Edges are where they are; of two that have one in common the one painted first
/// reaches 0.13 mm under the other, so that no seam shows what lies behind.
/// @param room  mm on the sheet; what lies wholly outside is left out
/// @return none where there are too many triangles, or too many over one another (see paintingOrder); or it was stopped
std::optional<std::vector<FillItem>> surfaceVectors(const std::vector<Faces>& surfaces, const Rect& room,
                                                    const std::stop_token& stop = {});

} // namespace coulter
