#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"
#include "plots/drawn.h"

#include <optional>
#include <vector>

namespace coulter {

// Upright and lying rectangles of all kinds that draw some.

extern const Setting directionSetting; ///< upright or lying
extern const Setting outlineSetting;   ///< width of the outline, mm; 0: none

bool isLying(const Settings& settings);

/// A rectangle between two places along one scale and two values of the other.
struct RectangleRow {
    double from = 0, to = 0, foot = 0, head = 0;
};

/// Fills them; a foot that a logarithmic scale cannot show is beyond the panel, and what is undefined is not drawn.
/// Those too thin to be told apart are drawn as what they cover together.
void drawRectangles(const std::vector<RectangleRow>& rows, const Drawn& drawn, const Frame& frame, Canvas& canvas);
/// Which of them is at a place of the sheet.
std::optional<std::size_t> rectangleAt(const std::vector<RectangleRow>& rows, const Drawn& drawn, const Frame& frame,
                                       Point mm);
/// Places all over them.
void traceRectangles(const std::vector<RectangleRow>& rows, const Drawn& drawn, std::vector<double>& xs,
                     std::vector<double>& ys);
void rectangleSwatch(const Drawn& drawn, const Rect& rect, Canvas& canvas);

} // namespace coulter
