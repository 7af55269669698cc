#pragma once
#include "formula/measured/data_table.h"
#include "formula/measured/measured_field.h"

#include <optional>
#include <span>
#include <string>

namespace coulter {

/// Elements as columns say them.
struct MeshOfColumns {
    std::shared_ptr<const ElementMesh> mesh; ///< null if there is nothing to draw
    std::vector<std::size_t> rows;           ///< of the columns, from 0: which each element of the mesh stands in
    std::vector<std::string> notes;          ///< what was not as it should be, with numbers of rows from 1
    std::string trouble;                     ///< why there is no mesh
};

/// Triangles and quadrilaterals between nodes. Those that run clockwise are turned round; those that name no node, have
/// no area, cross themselves or stand there already are left out; quadrilaterals with a corner inwards are divided into
/// two triangles there. All of it is noted, and holes are.
/// @param places   x and y of each node
/// @param corners  three or four columns: the nodes of each element, by their rows from 1, or from 0 if a 0 occurs;
///                 a missing fourth: a triangle
/// @param first    the number of the first row, if it is known
MeshOfColumns meshOf(std::span<const Column> places, std::span<const Column> corners, std::optional<double> first = {});

} // namespace coulter
