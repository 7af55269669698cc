#pragma once
#include "composition/read_panel.h"
#include "composition/scale_rules.h"
#include "drawing/frame.h"
#include "drawing/ticks.h"
#include "figure/scale_settings.h"
#include "typeset/box.h"

#include <algorithm>

namespace coulter {

/// Distances in mm that layout and drawing share.
namespace distance {
inline constexpr double edge = 3;                   ///< free paper round everything
inline constexpr double scaleOffset = 2;            ///< between the panel and its scale lines
inline constexpr double tick = 1.2;                 ///< length
inline constexpr double toNumber = 0.8;             ///< between a tick and its number
inline constexpr double labelOver = 3;              ///< an upright scale's label reaches over its line in space
inline constexpr double barGap = 5, barWidth = 3.5; ///< of the colour bar
inline constexpr double legendInset = 2, legendGap = 4, legendSample = 7, sampleGap = 2;
} // namespace distance

/// Letter sizes of a sheet in mm of one em.
struct LetterSizes {
    Em text;   ///< labels and legend
    Em number; ///< at the ticks
    Em title;
};
LetterSizes letterSizes(const Sheet& sheet);

/// What is written at a tick, typeset.
Box tickBox(const Ticks& ticks, std::size_t index, Em size);
/// "× 10⁵" beside a scale whose numbers are to be multiplied; at its right end or its left one.
void addPowerOfTen(Scene& scene, const Ticks& ticks, Em size, double x, double baseline, bool alignRight);

/// How the legend is shown once its place is decided.
struct LegendLayout {
    LegendPlace place = LegendPlace::None; ///< never Automatic
    std::vector<Box> entries;
    std::vector<std::size_t> drawn; ///< index of what each entry stands for
    std::size_t rows = 0;           ///< entries go down a column, then down the next one
    std::vector<double> columns;    ///< where each begins, mm from the left side
    double rowHeight = 0;
    double width = 0, height = 0; ///< of the whole, mm
    Rect rect;                    ///< on the sheet; empty at the ends and for none

    /// An entry's place within the legend, which need not have one itself yet.
    Rect entryRect(std::size_t entry) const;
    /// Puts the entries into so many columns, and so sets its width and height.
    void arrange(std::size_t columns);
};

/// The bar beside fields that says what their colours mean; its map is the frame's.
struct ColourBar {
    bool shown = false;
    BarSide side = BarSide::Right;
    double ends = 0;       ///< mm of the points at its ends, for what lies beyond; 0: none
    double room = 0;       ///< mm that it takes on its side
    bool reversed = false; ///< its values grow downwards, or to the left
    Ticks ticks;
    Box label;
    Rect rect;

    bool isUpright() const { return side == BarSide::Right || side == BarSide::Left; }
};

/// Scales of a view of space.
struct SpaceScales {
    std::array<Ticks, 3> ticks;
    std::array<Box, 3> labels;
    double first = 0, last = 0; ///< between which labels stand, from the sheet's left
    bool hasRoom = true;        ///< for all of them and the numbers
    std::string stated;         ///< how many times larger heights are drawn than lengths, if that is to be said
    Box exaggeration;           ///< the same, typeset
};

/// Scales of a radius over an angle; the radius' ticks are `yTicks`.
struct PolarScales {
    Ticks angles;
    Point direction{1, 0}; ///< in which the radius' own scale runs on the sheet
};

/// A vertical scale at the right of the panel; its map is the frame's.
struct FurtherScale {
    Ticks ticks;
    std::string words; ///< of its label
    Box label;
    double line = 0;      ///< mm from the panel's right side to the scale's line
    double end = 0;       ///< and to the end of its numbers
    double labelRow = 0;  ///< 0: its label stands as high as that of the first scale; 1: one row higher
    bool mirrors = false; ///< it says the first scale's numbers
};

/// Paper in mm round a panel's frame.
struct Margins {
    double left = 0, right = 0, top = 0, below = 0;
    friend bool operator==(const Margins&, const Margins&) = default;
};

/// What the sheet asks of a panel's layout.
struct PanelWishes {
    LetterSizes sizes;
    Margins least;                               ///< round the frame of a plane panel
    bool numbersAcross = true, numbersUp = true; ///< shown at this panel
    std::string letter;                          ///< that the panel is called by
    std::optional<Limits> held;                  ///< an automatic vertical range holds these limits, too
};

/// Where everything of a panel goes, before anything is sampled to its tolerance.
struct PanelLayout {
    FormatRules format; ///< of the recipe
    Rect room;          ///< of the whole panel on the sheet, mm
    Frame frame;
    PanelLabels labels;
    ScaleRules rules;
    Ticks xTicks, yTicks;
    Box letter, title, xLabel, yLabel;
    std::vector<FurtherScale> further;
    double labelRow = 0; ///< mm from one row of the labels of vertical scales to the next
    Margins margins;     ///< round the frame, as much as it needs; none in space and round an angle
    std::vector<std::size_t> sharesAcross, sharesUp; ///< panels that have the same scale, itself among them
    LetterSizes sizes;
    LegendLayout legend;
    ColourBar colours;
    SpaceScales space;
    PolarScales polar;

    /// mm from an upright scale's upper end to the label over it: clear of half a number.
    double toLabel() const { return format.labelsClearNumbers ? std::max(2.4, 0.36 * sizes.number + 0.8) : 2.4; }
    /// Where words so wide begin that should stand round a middle: all on the panel's paper.
    double startRound(double middle, double width) const;
};

} // namespace coulter
