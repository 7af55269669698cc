#pragma once
#include "figure/document.h"

#include <cstddef>
#include <cstdint>

namespace coulter {

enum class ItemKind : std::uint8_t {
    Sheet,
    Panel,
    Title,
    Scale,
    ScaleLabel,
    Legend,
    Plot,
    SheetTitle,
    SheetLegend,
    Note
};

/// Which scale an item of kind Scale or ScaleLabel is; its `index`. From `furtherScale` on: the panel's further
/// vertical scales.
inline constexpr std::size_t acrossScale = 0, upScale = 1, colourScale = 2, uprightScale = 3, furtherScale = 4;
/// Of a vertical scale, by its number among those of the panel: 0 is the left one.
inline constexpr std::size_t upwardScale(std::size_t number) {
    return number == 0 ? upScale : furtherScale + number - 1;
}

/// Whether a scale of this number is a vertical one of a panel in the plane.
inline constexpr bool isUpward(std::size_t scale) { return scale == upScale || scale >= furtherScale; }

/// A place in the Document. Selection, hits, drags and findings name things by it, never by an index into a figure that
/// may be old.
struct ItemPath {
    ItemKind kind = ItemKind::Sheet;
    std::size_t panel = 0;
    std::size_t index = 0; ///< of a plot or note among the panel's; of a scale: see above
    std::size_t part = 0;  ///< of a plot: the case of its family
    friend bool operator==(const ItemPath&, const ItemPath&) = default;
};

/// The panel or plot that a path names; null if the document has none there.
const Panel* panelAt(const Document& document, const ItemPath& path);
Panel* panelAt(Document& document, const ItemPath& path);
const Plot* plotAt(const Document& document, const ItemPath& path);
Plot* plotAt(Document& document, const ItemPath& path);

const Note* noteAt(const Document& document, const ItemPath& path);
Note* noteAt(Document& document, const ItemPath& path);

/// The scale that a path names; null if it names none.
Axis* axisAt(Document& document, const ItemPath& path);
const Axis* axisAt(const Document& document, const ItemPath& path);

/// Whether a document has something at a place.
bool hasItem(const Document& document, const ItemPath& path);

/// Whether two documents have the same thing at a place: the same plot of the same formula, a panel at all. An edit
/// that someone makes by pointing at a figure of the one is meant for the other only then.
bool sameItem(const Document& a, const Document& b, const ItemPath& path);

} // namespace coulter
