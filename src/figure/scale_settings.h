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

/// Of a panel with an angle: where its zero is. Its sense of rotation is the reversal of its scale.
extern const Setting zeroDirectionSetting;
std::span<const Setting* const> angleSettings();

} // namespace coulter
