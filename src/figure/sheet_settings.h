#pragma once
#include "figure/settings.h"

#include <span>

namespace coulter {

// What can be set of a sheet with several panels.

extern const Setting sheetTitleSetting;               ///< above all panels
extern const Setting sharedAcrossSetting;             ///< which horizontal scales are one; indexed as Shared
extern const Setting sharedUpSetting;                 ///< which vertical ones
extern const Setting sharedColoursSetting;            ///< indexed as SharedColours
extern const Setting sheetLegendSetting;              ///< indexed as SheetLegend
extern const Setting lettersSetting;                  ///< the letter of each panel; its first word: none
extern const Setting paperSetting;                    ///< of bitmaps: its second word: none, they are transparent
extern const Setting typefaceSetting;                 ///< indexed as Typeface
extern const Setting inkSetting;                      ///< of letters and scales
extern const Setting paperColourSetting;              ///< under all
extern const Setting linesFactorSetting;              ///< how many times as wide lines are, and marks as large
extern const Setting extentSetting;                   ///< of files: its second word: no more than what is drawn
extern const Setting marginSetting;                   ///< mm of paper round that
extern const Setting surfacesSetting;                 ///< its second word: as polygons
extern const Setting gapSetting;                      ///< mm between panels, besides what their scales need
enum class Shared : std::uint8_t { None, Line, All }; ///< Line: of a column, or of a row
enum class SharedColours : std::uint8_t { None, Scale, ScaleAndBar };
enum class SheetLegend : std::uint8_t { EachPanel, Right, Below };

/// All of them, in the order in which they are offered and written.
std::span<const Setting* const> sheetSettings();

/// "(b)" of the second panel, by the setting's word; empty if panels have no letters.
std::string panelLetter(const Settings& settings, std::size_t panel);

} // namespace coulter
