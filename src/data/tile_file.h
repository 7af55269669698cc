#pragma once
#include "data/read_table.h"
#include "formula/measured/data_table.h"

#include <functional>

namespace coulter {

// A field on a grid that is larger than a file or a memory should be: whole rows of it in several netCDF-4 files of one
// folder, tiles, each of which knows which it is. Its name is K-of-N.nc, its values are “values(y, x)” in chunks of
// rows, with the coordinates and units of the CF conventions (1.11), and two attributes: “part”, K and N, and “whole”,
// words that are the same for all tiles of one field.

/// What all tiles of a field have in common.
struct TiledField {
    std::vector<double> columns, rows; ///< places of both variables, ascending; rows of all tiles
    std::array<std::string, 2> variables, units;
    std::string name, unit, whole;
};

/// The rows of tile K of N, from 1: the first, and the one behind the last.
std::pair<std::size_t, std::size_t> rowsOfTile(std::size_t rows, std::size_t part, std::size_t of);
std::string tileName(std::size_t part, std::size_t of);

/// Whether a tile is there whole, and of this very field.
bool isTileThere(const std::filesystem::path& file, const TiledField& field, std::size_t part, std::size_t of);

/// Writes a tile beside its place and moves it there when it is whole; why it cannot be written, or nothing.
/// @param rowsAt  fills in the values of some rows, all columns of each, counted through all tiles; false: it was
///                stopped, and nothing is written
std::string writeTile(const std::filesystem::path& file, const TiledField& field, std::size_t part, std::size_t of,
                      const std::function<bool(std::size_t firstRow, std::span<double> into)>& rowsAt);

/// The field of a folder of tiles: its numbers in the memory if a page holds them, else read where they are looked at.
TableRead readTiles(const std::filesystem::path& folder);

} // namespace coulter
