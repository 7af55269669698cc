#pragma once
#include "drawing/figure_scene.h"

#include <QString>
#include <optional>

namespace coulter {

/// A place on a drawn curve.
struct CurvePlace {
    std::size_t curve = 0;
    double t = 0; ///< its parameter, by the chord
    Point on;     ///< mm on the sheet
};

/// The place nearest to a point of the sheet within `reach` mm, on any curve of the panel; none if there is none.
std::optional<CurvePlace> nearestCurve(const Figure& figure, Point mm, double reach);

/// What is said about a place under the pointer: a curve's value and slope where one is within `reach` mm, else a
/// field's value, else the coordinates.
struct ReadOut {
    QString text;
    std::optional<Point> marker; ///< where it snapped to, mm
};
ReadOut readOutAt(const Figure& figure, Point mm, double reach);

} // namespace coulter
