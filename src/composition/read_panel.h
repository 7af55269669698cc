#pragma once
#include "composition/look.h"

#include <stop_token>
#include <vector>

namespace coulter {

/// What of a panel lies on one of its vertical scales, as if that were its only one.
struct OnScale {
    Panel panel; ///< whose vertical scale is this one
    PanelReading reading;
    PanelLook look;
    bool mirrors = false; ///< nothing lies on it: it says the first one's numbers, maybe in another unit
};

/// A panel on its way from the document to its layout: read, looked at, with what it shares with others.
struct ReadPanel {
    Panel panel;                 ///< the document's, with the limits that its scales have in common with others
    PanelReading reading;        ///< all that it draws
    PanelLook look;              ///< at all of it, its vertical places on the first scale
    std::vector<OnScale> scales; ///< the vertical ones; empty if there is only one
    std::vector<std::size_t> sharesAcross, sharesUp, sharesColours; ///< panels of the same scale, itself among them
    bool numbersAcross = true, numbersUp = true; ///< whether it shows the numbers and labels of these
};

/// Looks at a panel that was read; its reading, panel and what it shares are kept.
void lookAgain(ReadPanel& panel, double operations, const std::stop_token& stop);

} // namespace coulter
