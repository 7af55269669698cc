#pragma once
#include "data/read_table.h"

#include <functional>

namespace coulter {

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
