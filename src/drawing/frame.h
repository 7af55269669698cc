#pragma once
#include "drawing/scene.h"
#include "figure/document.h"

#include <array>
#include <optional>

namespace coulter {

/// A place in space, in the user's coordinates.
using Place = std::array<double, 3>;

/// Directions of a view without perspective: what x, y, z add to the right and upwards.
struct ViewAxes {
    std::array<double, 3> right{}, up{};
};
ViewAxes viewAxes(const View& view);

/// The box round what a panel shows in space, and how it is seen.
struct SpaceBox {
    std::array<Limits, 3> limits;
    ViewAxes axes;
};

/// A panel on the sheet, and the only way from coordinates to it.
struct Frame {
    Rect rect;    ///< mm
    PanelMap map; ///< within the rectangle, y upwards; of a view of space: to the right and upwards as seen
    AxisMap colour;
    std::optional<SpaceBox> space;

    Point onSheet(double x, double y) const { return {rect.x + map.x.toSheet(x), rect.bottom() - map.y.toSheet(y)}; }
    Point onSheet(const Place& place) const;
};

} // namespace coulter
