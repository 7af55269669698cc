#pragma once
#include "composition/figure.h"

#include <string>

namespace coulter {

/// What differs between a figure's file and what its recipe gives now, in words: of a bitmap how many dots, where on
/// the sheet in mm, and what is drawn there; of a drawing in text (SVG, EPS) the first line; else the first byte.
/// @param figure  as the recipe gives it now
std::string whatDiffers(const std::string& file, const std::string& again, const Figure& figure);

} // namespace coulter
