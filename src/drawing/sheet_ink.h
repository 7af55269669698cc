#pragma once
#include "drawing/colours.h"
#include "drawing/scene.h"
#include "figure/document.h"

namespace coulter {

/// What a sheet's look makes of the colours that nobody chose one by one, and of its lines.
struct SheetInk {
    Colour ink = inkColour, paper = paperColour;
    double lines = 1; ///< times as wide as their plots say; marks are larger by as much

    /// A colour as the sheet shows it: ink, grid and paper as set; on dark paper plots that are dark become light and
    /// keep their hue, so that their order stays readable. Colours that were chosen stay.
    Colour of(Colour colour) const;
    bool isDark() const; ///< whether its paper is
    friend bool operator==(const SheetInk&, const SheetInk&) = default;
};

SheetInk inkOf(const Sheet& sheet);

/// Gives all lines, areas and letters of a scene their colours and widths, and the scene its paper.
void applyInk(const SheetInk& ink, Scene& scene);

} // namespace coulter
