#include "notes/note_kind.h"

#include <algorithm>

namespace coulter {

extern const NoteKind textNote, arrowNote, lineNote, rectangleNote, ellipseNote, polygonNote, bracketNote, calloutNote,
    valuesNote;

std::span<const NoteKind* const> noteKinds() {
    static constexpr const NoteKind* kinds[] = {&textNote,    &arrowNote,   &lineNote,    &rectangleNote, &ellipseNote,
                                                &polygonNote, &bracketNote, &calloutNote, &valuesNote};
    return kinds;
}

const NoteKind* findNoteKind(std::string_view name) {
    const auto at =
        std::ranges::find(noteKinds(), name, [](const NoteKind* kind) { return std::string_view(kind->name); });
    return at == noteKinds().end() ? nullptr : *at;
}

} // namespace coulter
