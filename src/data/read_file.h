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

/// What is said of a file that cannot be read.
TableRead refusedFile(std::string sentence, std::string suggestion = "");

/// Words of a file as UTF-8: as they are if they are that, else as Latin-1.
std::string asUtf8(const std::string& words);

/// Why a file could not be read on; never leaves the reader of its format.
struct FileTrouble {
    std::string sentence, way;
};
/// What a reader of a file with several variables finds, or the trouble that it throws.
/// @param read  fills in the names of the variables before the table
TableRead readVariable(const std::string& format,
                       const std::function<DataTable(std::vector<std::string>& variables)>& read);

} // namespace coulter
