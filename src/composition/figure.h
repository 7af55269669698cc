#pragma once
#include "composition/sheet_layout.h"
#include "notes/read_notes.h"
#include "plots/effort.h"

namespace coulter {

/// A part of the sheet that can be pointed at.
struct Hit {
    ItemPath path;
    Rect rect; ///< mm
};

/// Which items of the scene a plot, or a case of one, drew.
struct Owned {
    ItemPath path;
    std::size_t first = 0, last = 0; ///< the last one is not its own
};

struct PanelFigure {
    PanelLayout layout;
    std::vector<Drawn> drawn;       ///< with their samples
    std::vector<Problems> problems; ///< of each plot
    NotesRead notes;
    const Frame& frame() const { return layout.frame; }
    /// The frame with the vertical scale that something lies on.
    Frame frameOf(const Drawn& of) const { return layout.frame.onScale(of.scale); }
};

/// A figure with every stage that led to it: what the window shows, and what it knows about what it shows.
struct Figure {
    Document document;
    Effort effort;
    Page page;
    SheetLayout layout;              ///< of what is round the panels; theirs are with them
    std::vector<PanelFigure> panels; ///< as many as the document has
    Scene scene;
    std::vector<Hit> hits;
    std::vector<Owned> owned;
    bool finished = true; ///< false if it was stopped before its end, or something asked for more than is allowed
};

/// The title of a figure's sheet, or of its first panel, as what a file calls itself: as it is printed, with its
/// values.
std::string titleOf(const Figure& figure);

} // namespace coulter
