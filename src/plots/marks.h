#pragma once
#include "drawing/canvas.h"
#include "plots/drawn.h"

namespace coulter {

// Marks of all kinds that draw some: one vocabulary of shapes.

extern const Setting shapeSetting; ///< one of the shapes
extern const Setting
    shapeOrNoneSetting; ///< the same with none, which is usual: for kinds that draw something else, too
extern const Setting shapeOfReadingsSetting; ///< a disc usually, or none
extern const Setting sizeSetting;            ///< mm across
extern const Setting fillingSetting;         ///< full, or the outline alone

/// Whether a plot has marks by its shape setting.
bool hasMarks(const Drawn& drawn);
/// Draws its mark at each of these places.
void drawMarks(const MarkPlaces& places, const Drawn& drawn, Canvas& canvas);
inline void drawMarks(const std::vector<Point>& places, const Drawn& drawn, Canvas& canvas) {
    drawMarks(marksAt(places), drawn, canvas);
}
/// The same for what does not count: hollow, and paler.
void drawHollowMarks(const MarkPlaces& places, const Drawn& drawn, Canvas& canvas);

} // namespace coulter
