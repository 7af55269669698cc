#pragma once
#include "notes/note_kind.h"

namespace coulter {

/// The notes of a panel, each with what is wrong with it.
struct NotesRead {
    std::vector<DrawnNote> drawn;   ///< those that are shown
    std::vector<Problems> problems; ///< of each note
};

/// Reads the notes of a panel whose frame is known. A note that is anchored in data is shown while any of its places is
/// in the panel; infinite coordinates are beyond the panel's edges.
/// @param letterSize  of the sheet's words, mm of one em
NotesRead readNotes(const Page& page, const Panel& panel, std::size_t panelIndex, const Frame& frame, Em letterSize);

/// The coordinates of a note's places by its formulas; those that cannot be read are NaN.
std::vector<std::array<double, 3>> coordinatesOf(const Page& page, const Note& note, Problems* problems = nullptr);

/// A place of the sheet in the coordinates that a note is anchored in, with as many digits as a tenth of a millimetre
/// tells apart. In space only notes anchored in mm have one; then and otherwise two coordinates.
NotePlace placeAt(const Note& note, const Frame& frame, Point mm);

/// Whether a note's places can be taken by pointing at the sheet.
bool canBePlaced(const Note& note, const Frame& frame);

} // namespace coulter
