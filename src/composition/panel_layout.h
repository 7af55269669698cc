#pragma once
#include "composition/look.h"
#include "composition/scale_rules.h"
#include "drawing/frame.h"
#include "drawing/ticks.h"
#include "figure/scale_settings.h"
#include "typeset/box.h"

#include <stop_token>

namespace coulter {

/// Distances in mm that layout and drawing share.
namespace distance {
inline constexpr double edge = 3;                   ///< free paper round everything
inline constexpr double scaleOffset = 2;            ///< between the panel and its scale lines
inline constexpr double tick = 1.2;                 ///< length
inline constexpr double toNumber = 0.8;             ///< between a tick and its number
inline constexpr double barGap = 5, barWidth = 3.5; ///< of the colour bar
inline constexpr double legendInset = 2, legendGap = 4, legendSample = 7, sampleGap = 2;
} // namespace distance

/// Letter sizes of a sheet in mm of one em.
struct LetterSizes {
    double text = 0;   ///< labels and legend
    double number = 0; ///< at the ticks
    double title = 0;
};
LetterSizes letterSizes(const Sheet& sheet);

/// What is written at a tick, typeset.
Box tickBox(const Ticks& ticks, std::size_t index, double size);
/// "× 10⁵" beside a scale whose numbers are to be multiplied; at its right end or its left one.
void addPowerOfTen(Scene& scene, const Ticks& ticks, double size, double x, double baseline, bool alignRight);

/// How the legend is shown once its place is decided.
struct LegendLayout {
    LegendPlace place = LegendPlace::None; ///< never Automatic
    std::vector<Box> entries;
    std::vector<std::size_t> drawn; ///< index of what each entry stands for
    double rowHeight = 0;
    double width = 0, height = 0; ///< of the whole, mm
    Rect rect;                    ///< on the sheet; empty at the ends and for none
};

/// The bar beside fields that says what their colours mean; its map is the frame's.
struct ColourBar {
    bool shown = false;
    BarSide side = BarSide::Right;
    double ends = 0; ///< mm of the points at its ends, for what lies beyond; 0: none
    double room = 0; ///< mm that it takes on its side
    Ticks ticks;
    Box label;
    Rect rect;
};

/// Scales of a view of space.
struct SpaceScales {
    std::array<Ticks, 3> ticks;
    std::array<Box, 3> labels;
};

/// Scales of a radius over an angle; the radius' ticks are `yTicks`.
struct PolarScales {
    Ticks angles;
    Point direction{1, 0}; ///< in which the radius' own scale runs on the sheet
};

/// Where everything of a panel goes, before anything is sampled to its tolerance.
struct PanelLayout {
    int format = newestFormat; ///< of the recipe
    Rect room;                 ///< of the whole panel on the sheet, mm
    Frame frame;
    PanelLabels labels;
    ScaleRules rules;
    Ticks xTicks, yTicks;
    Box title, xLabel, yLabel;
    LetterSizes sizes;
    LegendLayout legend;
    ColourBar colours;
    SpaceScales space;
    PolarScales polar;
};

/// A panel without anything round it, so many mm wide and high: what is sampled for no sheet.
Frame bareFrame(const Panel& panel, const PanelReading& reading, const PanelLook& look, double width, double height);

/// Lays one panel out within its room on the sheet.
/// @param held  if given, an automatic vertical range holds these limits too
/// On a room too small for its letters these become smaller, so that nothing is ever cut off.
PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelReading& reading,
                        const PanelLook& look, const Rect& room, const std::optional<Limits>& held,
                        const std::stop_token& stop);

} // namespace coulter
