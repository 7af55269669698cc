#pragma once
#include <filesystem>

namespace coulter {

/// Whether the header of a file in netCDF's classic formats (CDF-1, 2 and 5) holds together: every list, name and value
/// that it announces lies within the file, and so do the numbers of all variables. The library that reads such files
/// takes their word for it: on one that is damaged it works for minutes, or divides by the nought that a product of
/// lengths has overflowed to, or takes what is not there for noughts. Files of other formats are sound here.
bool hasSoundHeader(const std::filesystem::path& path);

} // namespace coulter
