#pragma once
#include "figure/document.h"
#include "figure/item_path.h"
#include "formula/base/problem.h"
#include "sampling/panel_map.h"

#include <optional>
#include <variant>

namespace coulter {

/// Keeps what a field is worth along a line that is a note: the page gets the ends of the line as quantities and the
/// profile as a function of the way along it, and a panel below draws that. The note's ends become these quantities, so
/// that line and profile move together. Ends that are quantities already are taken as they are.
/// @param note   with two places, anchored in data, in a panel whose `plot` is a field in the plane
/// @param scales  of the panel, to the right and upwards: along a logarithmic one the line is even in the logarithm
/// @returns the document, or why it cannot be
std::variant<Document, Problem> withProfile(const Document& document, const ItemPath& note, const ItemPath& plot,
                                            std::array<ScaleKind, 2> scales);

/// Puts a place of a note elsewhere. Where a coordinate is the name of a quantity whose line is a number, that number
/// changes.
void putNotePlace(Document& document, const ItemPath& note, std::size_t index, const NotePlace& place);

} // namespace coulter
