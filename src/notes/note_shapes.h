#pragma once
#include "drawing/arrow_head.h"
#include "notes/note_kind.h"

namespace coulter {

// What the kinds of note share.

Pen penOf(const DrawnNote& note);
/// A closed outline, filled and drawn as the note says.
void drawClosed(const DrawnNote& note, const std::vector<Point>& outline, Canvas& canvas);

/// The words with their middle at a place, turned as the note says, on their filling and in their frame.
void drawWords(const DrawnNote& note, Point middle, Canvas& canvas);
/// What they cover there.
Rect rectOfWords(const DrawnNote& note, Point middle);

/// Round the middle of all places.
Point middleOf(const std::vector<Point>& places);
/// Turned about a middle by so many degrees counterclockwise.
Point turnedAbout(Point p, Point middle, double degrees);

} // namespace coulter
