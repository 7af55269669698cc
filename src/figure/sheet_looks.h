#pragma once
#include "figure/document.h"

#include <span>
#include <string>
#include <string_view>

namespace coulter {

/// What a whole figure looks like, apart from what it shows: its letters, ink, paper and how wide its lines are; and
/// the size of the sheet, where the letters are meant for one.
struct SheetLook {
    std::string name; ///< of one that is offered; else empty
    double textSize = 9;
    Settings settings; ///< those of sheetLookSettings() that differ from the usual ones
    std::optional<double> width = std::nullopt, height = std::nullopt; ///< mm
};

/// The settings of a sheet that belong to its look.
std::span<const Setting* const> sheetLookSettings();

/// In the order in which they are offered; the first is how a new sheet looks.
std::span<const SheetLook> sheetLooks();
const SheetLook* sheetLookNamed(std::string_view name);

/// Gives a sheet a look; what does not belong to it stays. For a whole figure see notes/document_look.h.
void setLook(Sheet& sheet, const SheetLook& look);
/// The look that a sheet has, without its size.
SheetLook lookOf(const Sheet& sheet);
/// The index of the look that a sheet has; as many as there are if it is none of them.
std::size_t whichLook(const Sheet& sheet);

} // namespace coulter
