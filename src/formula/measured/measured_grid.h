#pragma once
#include "formula/measured/data_table.h"
#include "formula/measured/grid_place.h"

#include <span>
#include <string>

namespace coulter {

/// A table's numbers as a grid.
struct GridOfTable {
    std::vector<DataAxis> axes; ///< the first runs fastest
    Column values;
    std::shared_ptr<const GridNumbers> far; ///< instead of them, if they are too many for the memory
    std::string trouble;                    ///< why it is none
};

/// The grid of a table: its own; of three columns that hold every combination of the first two, their third; of a
/// table whose headings are numbers, or whose corner is empty, what stands between its first row and first column; else
/// its rows and columns as counted ones, the first row on top.
GridOfTable gridOf(const DataTable& table);

/// Lays a grid on its variables; why it cannot be, or nothing.
std::string layGrid(GridOfTable& grid, const GridPlace& place);

/// From the first of some places to the last, or between the outer edges of their cells, as an interval is written:
/// "[0, 12]".
std::string intervalOf(std::span<const double> places, bool toEdges);

/// Places of numbers that are so wide each, beginning with an outer edge.
Column evenPlaces(std::size_t count, double edge, double pitch);

/// The columns of a grid in full: its axes, then its numbers; of a mesh with numbers at its nodes their places and
/// these; of another table its own.
std::vector<DataColumn> columnsInFull(const DataTable& table);

} // namespace coulter
