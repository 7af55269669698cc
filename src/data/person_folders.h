#pragma once
#include <filesystem>

namespace coulter {

/// Folders of the person who runs the program, by the XDG base directory specification: what is kept between runs, and
/// what can be made again. Empty if there is no such folder.
std::filesystem::path stateFolder();
std::filesystem::path cacheFolder();

} // namespace coulter
