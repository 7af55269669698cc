#pragma once
#include "composition/figure_watch.h"
#include "composition/sheet_layout.h"
#include "notes/read_notes.h"
#include "plots/effort.h"
#include "plots/sample_store.h"

#include <stop_token>

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

/// The whole way from the recipe to the drawing. A function of the document and the effort alone.
/// @param known  samples that may be there already, and where new ones are kept; never changes a bit of the result
Figure drawFigure(const Document& document, const Effort& effort, std::stop_token stop = {},
                  SampleStore* known = nullptr, const FigureWatch& watch = {});
/// With the effort that the sheet asks for.
Figure drawFigure(const Document& document, std::stop_token stop = {});

/// What is drawn at a path; null if nothing is.
const Drawn* drawnAt(const Figure& figure, const ItemPath& path);

/// What is at a place of the sheet: the nearest line or mark of a plot within `reach` mm, else the area that is on top
/// there, else another part. The sheet itself where nothing is.
ItemPath itemAt(const Figure& figure, Point mm, double reach);
/// The part of the sheet there, whatever is drawn over it.
ItemPath partAt(const Figure& figure, Point mm);

/// The title of a document's sheet, or of its first panel, as what a file calls itself.
std::string titleOf(const Document& document);

} // namespace coulter
