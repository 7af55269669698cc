#pragma once
#include "drawing/frame.h"
#include "plots/drawn.h"

#include <optional>
#include <span>
#include <string>

namespace coulter {

/// What is said about a place of a panel under the pointer: a curve's value and slope where one is within `reach` mm,
/// else the coordinates and the fields' values.
struct ReadOut {
    std::string text;
    std::optional<Point> marker; ///< where it snapped to, mm
};
ReadOut readOutAt(std::span<const Drawn> drawn, const Frame& frame, Point mm, double reach);

} // namespace coulter
