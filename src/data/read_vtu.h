#pragma once
#include "data/read_table.h"

namespace coulter {

/// A mesh of triangles and quadrilaterals in a plane, with numbers at its nodes or elements, from an unstructured grid
/// in VTK's XML format (“VTK File Formats”, version 1.0 and 2.0): numbers as text, in base 64 or as bytes behind the
/// rest, packed by zlib or not, in either order of bytes, in several pieces. Of a vector each component is a variable
/// of its own: "velocity 1".
/// @param bytes     of the whole file
/// @param variable  which of several numbers; empty: the only ones
TableRead readVtu(const std::string& bytes, const std::string& variable);

} // namespace coulter
