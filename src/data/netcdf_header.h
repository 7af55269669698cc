#pragma once
#include <filesystem>

namespace coulter {

/// Whether the header of a file in netCDF's classic formats (CDF-1, 2 and 5) holds together: every list, name and value
/// that it announces lies within the file. The library that reads such files takes their word for it, and works for
/// minutes on one that is damaged. Files of other formats are sound here.
bool hasSoundHeader(const std::filesystem::path& path);

} // namespace coulter
