#pragma once
#include "data/netcdf_file.h"
#include "formula/measured/grid_numbers.h"

namespace coulter {

/// A direction of a variable: the dimension of the file, and whether its places are turned round.
struct NetcdfDirection {
    std::size_t dimension = 0; ///< its place in the variable's list, from 0
    std::size_t length = 1;
    bool isTurned = false;
};

/// The numbers of a variable in up to three directions, of which the first runs along rows. They are read when they are
/// asked for; a file that has changed by then is said (see GridNumbers::trouble). The caller holds lockNetcdf().
/// @param directions  each other dimension has one place
std::shared_ptr<const GridNumbers> numbersOfNetcdf(const std::filesystem::path& path,
                                                   const NetcdfFile::Variable& variable,
                                                   std::vector<NetcdfDirection> directions);

} // namespace coulter
