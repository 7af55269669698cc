#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"
#include "figure/item_path.h"
#include "formula/page/page.h"
#include "plots/drawn.h"

#include <span>
#include <string>
#include <vector>

namespace coulter {

/// A note, read: its places are known, its words have their values.
struct DrawnNote {
    ItemPath path;
    const struct NoteKind* kind = nullptr;
    std::vector<Point> at; ///< mm on the sheet; one for each of the note's
    Box words;             ///< typeset; empty: none
    Settings settings;
    Colour colour;              ///< of lines and words
    std::vector<double> dashes; ///< mm on, mm off, …, if they are its own; empty: those of its pattern
};

/// A kind of note: one file with such a value, and one row in the table.
struct NoteKind {
    const char* name;    ///< in recipes
    const char* meaning; ///< one line
    std::size_t leastPlaces = 1, mostPlaces = 1;
    std::span<const Setting* const> settings;
    bool isCut = false;      ///< where it is anchored in data, at the panel's edges
    bool leads = false;      ///< a line, along which one can look at what it is drawn over
    bool showsPlace = false; ///< without words of its own it says the coordinates of its first place
    /// Makes of its text what is set, letters of a size in mm; null: words with mathematics and values of the page.
    Box (*words)(const Page&, const std::string& text, const Settings&, Em size, Problems&) = nullptr;
    void (*draw)(const DrawnNote&, Canvas&);
    /// Where its words stand on the sheet, mm; of one that has none an empty rectangle.
    Rect (*wordsRect)(const DrawnNote&);
    /// Where its first places are when it is made by a click, relative to the click, mm.
    std::span<const Point> usual;
};

/// All kinds, in the order in which they are offered.
std::span<const NoteKind* const> noteKinds();
/// By name; null if there is none.
const NoteKind* findNoteKind(std::string_view name);

} // namespace coulter
