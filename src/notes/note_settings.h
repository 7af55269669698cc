#pragma once
#include "figure/settings.h"

namespace coulter {

// What can be set of notes; a word means the same for all kinds of note, and for plots where they have it.

extern const Setting anchorSetting; ///< what its places are measured in; indexed as Anchor
enum class Anchor : std::uint8_t { Data, Panel, Sheet };

extern const Setting noteColourSetting;  ///< of lines and words
extern const Setting noteWidthSetting;   ///< of lines, mm
extern const Setting notePatternSetting; ///< of lines
extern const Setting fillSetting;        ///< colour of what a shape encloses; left out: not filled
extern const Setting fillOpacitySetting;
extern const Setting behindSetting;      ///< below all that is plotted
extern const Setting noteLettersSetting; ///< size of words, pt; 0: as the sheet's
extern const Setting alignSetting;       ///< which part of the words stands at the place; indexed as Align
extern const Setting turnSetting;        ///< degrees counterclockwise
extern const Setting headsSetting;       ///< of arrows; indexed as Heads
extern const Setting headSizeSetting;
extern const Setting bendSetting;  ///< of arrows: how far its middle is off the straight line, as a part of its length
extern const Setting depthSetting; ///< of brackets, mm
extern const Setting curlySetting; ///< of brackets
extern const Setting paddingSetting; ///< of a filling or frame round words, mm
extern const Setting framedSetting;  ///< a thin line round words
enum class Align : std::uint8_t { Centre, Left, Right };
enum class Heads : std::uint8_t { End, Both, Start };

} // namespace coulter
