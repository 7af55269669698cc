#pragma once
#include "composition/panel_layout.h"
#include "plots/effort.h"

#include <stop_token>

namespace coulter {

/// One entry of the legend of all panels, and what it stands for.
struct SheetEntry {
    Box words;
    std::size_t panel = 0, drawn = 0;
    Point at; ///< upper left corner of its row, mm
};

/// Where everything of a sheet goes.
struct SheetLayout {
    std::vector<PanelLayout> panels;
    Box title;
    Point titleAt; ///< its baseline's left end
    std::vector<SheetEntry> legend;
    Rect legendRect;
    double rowHeight = 0; ///< of the legend, mm
};

/// Lays all panels out in their grid. Frames are as high and wide as the sheet's weights say, whatever their scales
/// need; scale lines of a row and of a column are aligned. Letters become smaller, all of them alike, where a sheet is
/// too small for them, so that nothing is ever cut off.
/// @param panels  as many as the document has, with what they share
/// @param held    of each panel: an automatic vertical range holds these limits, too
SheetLayout layoutSheet(const Page& page, const Document& document, const std::vector<ReadPanel>& panels,
                        const std::vector<std::optional<Limits>>& held, const std::stop_token& stop);

} // namespace coulter
