#pragma once
#include "figure/settings.h"

#include <span>

namespace coulter {

// What can be set of every scale there is: across, up, in space, of colours, of a radius and its angle.

extern const Setting reversedSetting;  ///< from right to left, downwards
extern const Setting numbersSetting;   ///< how numbers are written; indexed as NumberStyle, see drawing/ticks.h
extern const Setting shownInSetting;   ///< another unit of the same dimension
extern const Setting tickCountSetting; ///< about how many numbers; 0: as many as there is room for
extern const Setting ticksAtSetting;   ///< where numbers stand, as a column
extern const Setting minorSetting;     ///< marks between numbers; indexed as MinorTicks
extern const Setting gridSetting;      ///< lines across the panel at the numbers
extern const Setting zeroLineSetting;  ///< a line across the panel at zero

/// All of them, in the order in which they are offered and written.
std::span<const Setting* const> scaleSettings();

// What can be set of the upright scale in space besides.

extern const Setting exaggerationSetting; ///< whether the figure says how much more a height is drawn than a length

/// Those of every scale, and these.
std::span<const Setting* const> uprightScaleSettings();

// What can be set of the scale of colours besides.

extern const Setting mapSetting;         ///< name of a colour map, see drawing/colour_maps.h
extern const Setting turnedSetting;      ///< the map the other way round
extern const Setting mapFromSetting;     ///< part of the map that is used
extern const Setting mapToSetting;       ///< its other end
extern const Setting stepsSetting;       ///< so many colours; 0: a colour for every value
extern const Setting rangeSetting;       ///< indexed as ColourRange
extern const Setting symmetricSetting;   ///< a value that the middle of the scale has; empty: none
extern const Setting underColourSetting; ///< of what lies below the scale
extern const Setting overColourSetting;  ///< of what lies above it
extern const Setting undefinedColourSetting;
extern const Setting barSetting; ///< where the colour bar is; indexed as BarSide
enum class ColourRange : std::uint8_t { Robust, All };
enum class BarSide : std::uint8_t { Right, Left, Below, Above, None };

/// Those of every scale, then those of colours.
std::span<const Setting* const> colourScaleSettings();

/// Of a panel with an angle: where its zero is. Its sense of rotation is the reversal of its scale.
extern const Setting zeroDirectionSetting;
std::span<const Setting* const> angleSettings();

} // namespace coulter
