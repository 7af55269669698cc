#pragma once
#include "figure/document.h"

#include <optional>
#include <utility>
#include <vector>

namespace coulter {

// The panels of a sheet lie in a grid of rows and columns, of which each takes one cell or several side by side.

/// Where each panel lies: in its cell, or, without one, alone in a row below those before it.
std::vector<Cell> cellsOf(const Document& document);

struct GridSize {
    int rows = 1, columns = 1;
};
GridSize gridSize(const std::vector<Cell>& cells);

/// How many times as high or wide as a usual one each row or column is.
std::vector<double> rowWeights(const Document& document);
std::vector<double> columnWeights(const Document& document);

/// Two panels of which one lies over the other; none if all have their own place.
std::optional<std::pair<std::size_t, std::size_t>> overlapping(const std::vector<Cell>& cells);

/// Most panels of a sheet, and rows or columns of its grid.
inline constexpr int mostPanels = 60, mostCells = 40;
/// How many times a usual one a row or column is at least and at most.
inline constexpr double leastWeight = 0.05, greatestWeight = 100;

enum class Side : std::uint8_t { Left, Right, Above, Below };

/// The panel whose cell is next to another's on a side; none at the grid's edge.
std::optional<std::size_t> neighbourOf(const Document& document, std::size_t panel, Side side);

// Edits. Each returns the document unchanged if the sheet can hold no more panels, and leaves no row or column empty.

/// With a panel beside another, in a new row or column; what ended there besides reaches over it. `added` becomes the
/// last of the panels.
Document withPanelBeside(const Document& document, std::size_t panel, Side side, Panel added);
/// The same within the room that the other one has: both get half of it.
Document withPanelSplit(const Document& document, std::size_t panel, Side side, Panel added);
/// Without a panel, whose room its neighbours take. The last one stays, emptied.
Document withoutPanel(const Document& document, std::size_t panel);
/// With two panels in each other's place.
Document withPanelsExchanged(const Document& document, std::size_t one, std::size_t other);
/// With a panel taken from its place to another's side. It keeps its index.
Document withPanelMoved(const Document& document, std::size_t panel, std::size_t beside, Side side);

} // namespace coulter
