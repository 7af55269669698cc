#pragma once
#include "data/read_table.h"

namespace coulter {

/// Reads a file of measured numbers, whatever of the formats that are known it has: a table of separated values, a
/// picture (PNG, TIFF), a netCDF file, a mesh in VTK's XML format, or a folder of tiles. Told by its first bytes, not
/// by its name.
/// @param shape     of a table, what is not to be found from its first rows
/// @param variable  which of several: a variable of a netCDF file, a channel of a picture; empty: the only one, or the
///                  one that has the most directions
TableRead readDataFile(const std::filesystem::path& path, const TableShape& shape = {},
                       const std::string& variable = "", const std::stop_token& stop = {});

} // namespace coulter
