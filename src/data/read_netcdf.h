#pragma once
#include "data/read_table.h"

namespace coulter {

/// A variable of a netCDF file with its coordinates, by the CF conventions (1.11): units, long_name, missing values,
/// scale_factor and add_offset; or of a mesh by the UGRID conventions (1.0), with numbers at nodes or faces. Directions
/// of one place are left aside; those that remain are up to three, the last of the file first. Coordinates that descend
/// are turned round. A grid of more numbers than a page holds is read where it is looked at (DataTable::far).
/// @param variable  which; empty: the only one with the most directions; if none has two, all that run along one
///                  dimension are columns of a table
TableRead readNetcdf(const std::filesystem::path& path, const std::string& variable);

} // namespace coulter
