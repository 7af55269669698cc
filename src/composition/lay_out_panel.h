#pragma once
#include "composition/panel_layout.h"

namespace coulter {

/// A panel without anything round it, so many mm wide and high: what is sampled for no sheet.
Frame bareFrame(const Panel& panel, const PanelReading& reading, const PanelLook& look, double width, double height);

/// Lays one panel out within its room on the sheet.
PanelLayout layoutPanel(const Page& page, const ReadPanel& panel, const Rect& room, const PanelWishes& wishes);

/// Whether everything has its place: a panel that is large enough, words that do not run off.
bool fits(const PanelLayout& layout);

} // namespace coulter
