#pragma once
#include "desktop/picture_sheet.h"
#include "figure/item_path.h"

namespace coulter {

/// “Draw as …”: small true pictures of one plot in every kind that fits it, and in every way of a kind that has
/// several. Choosing one draws the plot so.
/// @param path  of the plot
PictureSheet* makeKindSheet(DocumentSession& session, const LookSettings& look, const ItemPath& path, QWidget* parent);

/// Every colour map on the field at hand: in colour, in grey print, and as readers see it who lack red or green.
PictureSheet* makeMapSheet(DocumentSession& session, const LookSettings& look, std::size_t panel, QWidget* parent);

} // namespace coulter
