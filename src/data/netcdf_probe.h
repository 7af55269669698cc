#pragma once
#include <filesystem>

namespace coulter {

/// Whether a file lives through being opened. HDF5 1.10, in which netCDF-4 keeps its numbers, trusts the sizes in a
/// file's global heaps and reads beyond its memory where they are damaged; so the first look at such a file is taken by
/// a child of this process, which may die of it. Files of other formats are not tried. The caller holds
/// lockNetcdf(), so that the child has the library as it stands between two calls.
bool survivesOpening(const std::filesystem::path& path);

} // namespace coulter
