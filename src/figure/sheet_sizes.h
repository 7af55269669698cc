#pragma once
#include "figure/document.h"

#include <span>
#include <string_view>

namespace coulter {

/// A size that sheets often have, and the letters that are read well on it.
struct SheetSize {
    const char* name;
    double width, height; ///< mm
    double textSize;      ///< pt
};
/// In the order in which they are offered.
std::span<const SheetSize> sheetSizes();

/// Gives a sheet the size of a name, and its letters; or, as "120x80", so many millimetres, which leaves the letters
/// as they are. False if the words say neither, or more than a sheet can be.
bool setSize(Sheet& sheet, std::string_view words);

/// The index of the size that a sheet has; as many as there are if it is none of them.
std::size_t sizeOf(const Sheet& sheet);

} // namespace coulter
