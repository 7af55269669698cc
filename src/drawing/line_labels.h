#pragma once
#include "drawing/canvas.h"
#include "typeset/box.h"

#include <vector>

namespace coulter {

/// A line on the sheet that may carry words.
struct LabelledLine {
    std::vector<Point> line; ///< mm
    bool closed = false;     ///< it goes on to its first point
    Box label;               ///< without glyphs: none
};

/// Words in the course of a line, upright to the reader.
struct LineLabel {
    std::size_t line = 0; ///< whose
    Point middle;
    double turn = 0; ///< radians clockwise, so that they are read from the left or upwards
};

struct LineLabels {
    std::vector<LineLabel> labels;
    std::vector<Polylines> lines; ///< what is left of each line, broken under its labels
};

/// Finds places for words along lines: where a line is straightest, within a rectangle, apart from each other and from
/// all other lines; on long lines again and again. A line without such a place has none.
/// @param every  mm between words of one line, about
LineLabels placeLabels(const std::vector<LabelledLine>& lines, const Rect& room, double every);

} // namespace coulter
