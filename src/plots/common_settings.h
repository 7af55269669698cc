#pragma once
#include "drawing/canvas.h"
#include "plots/drawn.h"

namespace coulter {

// One vocabulary for all kinds of plot: a word means the same everywhere, so that changing the kind keeps what applies.

extern const Setting colourSetting;  ///< of lines, marks and areas
extern const Setting widthSetting;   ///< of lines, mm
extern const Setting patternSetting; ///< of lines

extern const Setting runSetting; ///< how the members of a family differ; indexed as MembersBy
enum class MembersBy : std::uint8_t { Colours, Patterns, Widths, Scale };
extern const Setting insideSetting;  ///< opacity of what a closed line encloses
extern const Setting opacitySetting; ///< of all that a plot draws

/// What the plot's kind has of it, or 1.
double opacityOf(const Drawn& drawn);

/// The dashes of its lines, so wide (mm): its own, or those of its pattern.
std::vector<double> linePattern(const Drawn& drawn, double width);
/// Whether two have the same dashes.
bool haveOnePattern(const Drawn& one, const Drawn& other);

/// The pen that these settings describe.
Pen penOf(const Drawn& drawn);

/// In the legend: a piece of that line, with a mark on it if it has some.
void lineSwatch(const Drawn& drawn, const Rect& rect, Canvas& canvas);

} // namespace coulter
