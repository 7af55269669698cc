#pragma once
#include "drawing/scene.h"
#include "drawing/ticks.h"
#include "figure/curves.h"

#include <stop_token>

namespace coulter {

/// Letter sizes of a sheet in mm of one em.
struct LetterSizes {
    double text = 0;   ///< labels and legend
    double number = 0; ///< at the ticks
    double title = 0;
};
LetterSizes letterSizes(const Sheet& sheet);

/// How the legend is shown once its place is decided.
struct LegendLayout {
    LegendPlace place = LegendPlace::None; ///< never Automatic
    std::vector<Box> entries;
    std::vector<std::size_t> curves; ///< the curve of each entry
    double sampleLength = 0;         ///< mm of line before an entry
    double rowHeight = 0;
    double width = 0, height = 0; ///< of the whole, mm
};

/// Where everything of a panel goes, before any curve is sampled to its tolerance.
struct PanelLayout {
    Rect frame;   ///< the panel on the sheet, mm
    PanelMap map; ///< within the frame; its y runs upwards
    Ticks xTicks, yTicks;
    Box title, xLabel, yLabel;
    LetterSizes sizes;
    LegendLayout legend;
    Rect legendRect; ///< for a legend that is not at the ends; empty otherwise
};

/// A first, coarse look at every curve: enough for limits and for the legend's place.
struct CoarseCurve {
    std::vector<double> x, y;
};
std::vector<CoarseCurve> coarseCurves(const PanelCurves& curves, const Panel& panel);

/// Limits of a panel: those set, or those that show every curve well.
struct PanelLimits {
    Limits x, y;
};
PanelLimits panelLimits(const Panel& panel, const PanelCurves& curves, const std::vector<CoarseCurve>& coarse,
                        double yTickCount);

/// Lays one panel out on the sheet.
PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelCurves& curves);

} // namespace coulter
