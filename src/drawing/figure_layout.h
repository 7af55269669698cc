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

/// What is written at a tick, typeset: digits, or a power of ten.
Box tickBox(const std::string& label, double size);

/// How the legend is shown once its place is decided.
struct LegendLayout {
    LegendPlace place = LegendPlace::None; ///< never Automatic
    std::vector<Box> entries;
    std::vector<std::size_t> curves; ///< the curve of each entry
    double sampleLength = 0;         ///< mm of line before an entry
    double rowHeight = 0;
    double width = 0, height = 0; ///< of the whole, mm
};

/// The bar beside fields that says what their colours mean.
struct ColourBar {
    bool shown = false;
    AxisMap map; ///< along the bar, upwards
    Ticks ticks;
    Box label;
    Rect rect;
};

/// What stands round curves in space: the box of their coordinates and how it is seen.
struct SpaceFrame {
    bool shown = false;
    std::array<Limits, 3> limits;
    std::array<Ticks, 3> ticks;
    std::array<Box, 3> labels;
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
    ColourBar colours;
    SpaceFrame space;
};

/// A first, coarse look at every curve: enough for limits and for the legend's place.
struct CoarseCurve {
    std::vector<double> x, y;
};
std::vector<CoarseCurve> coarseCurves(const PanelCurves& curves, const Panel& panel, const std::stop_token& stop = {});

/// Limits of a panel: those set, or those that show everything well.
struct PanelLimits {
    Limits x, y;
    ScaleKind xScale = ScaleKind::Linear, yScale = ScaleKind::Linear;
    /// The panel's scales over so many mm.
    PanelMap map(double width, double height) const {
        return {{xScale, x.low, x.high, width}, {yScale, y.low, y.high, height}};
    }
};
PanelLimits panelLimits(const Panel& panel, const PanelCurves& curves, const std::vector<CoarseCurve>& coarse,
                        double yTickCount);

/// The same limits widened so that a millimetre means the same both ways, unless they are set.
PanelLimits withEqualScales(PanelLimits limits, const Panel& panel, double width, double height);

/// What the colours of a panel's fields range over, and the scale of that; from a coarse look.
Limits colourLimits(const Panel& panel, const PanelCurves& curves, const PanelLimits& limits,
                    const std::stop_token& stop = {});
inline ScaleKind colourScale(const Panel& panel) { return panel.colour.scale.value_or(ScaleKind::Linear); }

/// The box round all curves in space, out to whole ticks.
SpaceFrame spaceFrame(const PanelCurves& curves, const std::stop_token& stop = {});

/// An interval of a variable as far as a scale and its limits show it: nothing at or below zero on a logarithmic one.
/// None if nothing of it is shown.
std::optional<Interval> shownPart(const Interval& interval, ScaleKind scale, const Limits& limits);

/// Lays one panel out on the sheet.
/// @param atLeast  if given, automatic limits of the vertical scale hold these too: the scale does not shrink and grow
///                 while a quantity is changed
/// When `stop` is requested the layout is of no use, but soon there.
PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelCurves& curves,
                        const std::optional<Limits>& atLeast = {}, const std::stop_token& stop = {});

} // namespace coulter
