#pragma once
#include <cstdint>
#include <optional>
#include <pugixml.hpp>
#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// How a file in VTK's XML format keeps its numbers.
struct VtkStorage {
    bool isSwapped = false;     ///< the other order of bytes than this machine's
    bool isWide = false;        ///< sizes have 64 bits
    bool isPacked = false;      ///< by zlib
    bool isAppendedRaw = false; ///< behind the rest as bytes, else in base 64
    std::string_view appended;  ///< what stands behind the rest
};

/// The numbers of a DataArray; none if they are damaged, or more than `most`.
std::optional<std::vector<double>> vtkNumbers(const pugi::xml_node& array, const VtkStorage& storage, std::size_t most);

} // namespace coulter
