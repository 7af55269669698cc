#pragma once
#include "plots/plot_kind.h"
#include "sampling/isolines.h"

namespace coulter {

// Levels of a field, and the lines along them: for all kinds that draw some.

extern const Setting levelsSetting;     ///< a list; empty: round values
extern const Setting levelStepSetting;  ///< between round values; 0: automatic
extern const Setting levelCountSetting; ///< evenly on the scale of colours; 0: automatic

inline constexpr std::size_t mostLevels = 1000;

/// Reads a field and the levels that a plot asks for.
Reading readLevels(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// The levels of what is drawn: given ones, else those on a scale of colours; ascending, each once.
std::vector<double> levelsOf(const Drawn& drawn, const AxisMap& colours);

/// Its lines, to the tolerance of the frame. The last few are kept, because they are asked for again and again.
std::shared_ptr<const LevelLines> levelLinesOf(const Drawn& drawn, const Frame& frame);

/// The same for contents, which a picture's chords would cut a little short: to a thousandth of its tolerance, with as
/// many evaluations as so many levels need.
std::shared_ptr<const LevelLines> contentLinesOf(const Drawn& drawn, const Frame& frame);

/// Where it is zero, and the areas where it is positive.
std::shared_ptr<const LevelLines> zeroLinesOf(const Drawn& drawn, const Frame& frame);

/// Places along where it is zero, or all over where it is positive, on a coarse grid: for the legend to spare.
void traceZero(const Drawn& drawn, const Limits& x, const Limits& y, bool isArea, std::vector<double>& xs,
               std::vector<double>& ys);

/// Levels as they are written, all with the same decimals where few will do.
std::vector<std::string> levelTexts(const std::vector<double>& levels);

/// Lines on the sheet, closed ones back to their first point.
Polylines linesOnSheet(const LevelLines& found, const Frame& frame);
/// The line that passes a place of the sheet within so many mm.
struct LinePassed {
    const Isoline* line = nullptr; ///< null: none does
    double away = 0;
};
LinePassed lineAt(const LevelLines& found, const Frame& frame, Point mm, double reach);
/// Rings on the sheet.
Polylines ringsOnSheet(const std::vector<Path>& rings, const Frame& frame);
std::vector<Point> onSheet(const Path& path, const Frame& frame);

} // namespace coulter
