#pragma once
#include "composition/figure.h"

#include <string>

namespace coulter {

/// What differs between a figure's file and what its recipe gives now, in words: of a bitmap how many dots, where on
/// the sheet in mm, and what is drawn there; of a drawing in text (SVG, EPS) the first line; else the first byte.
/// @param figure  as the recipe gives it now
std::string whatDiffers(const std::string& file, const std::string& again, const Figure& figure);

/// A picture of what differs between two bitmaps in PNG: the first one's dots in light grey, those that differ in red,
/// in a paler one round them. Empty where they are no such bitmaps of one size.
std::string pictureOfDifference(const std::string& file, const std::string& again);

} // namespace coulter
