#pragma once
#include "formula/base/problem.h"

#include <filesystem>
#include <optional>
#include <string>

namespace coulter {

/// The bytes of a file, or the problem that they cannot be had.
struct FileRead {
    std::optional<std::string> bytes;
    Problem problem;
};
FileRead readFile(const std::filesystem::path& path);

/// Whether a file that was written survives a power cut, or for now only the end of the program.
enum class Flush { Now, Later };

/// Replaces a file as a whole or leaves it as it was: writes beside it, flushes to disk, renames.
/// Returns the problem if it could not be done.
std::optional<Problem> writeFile(const std::filesystem::path& path, const std::string& bytes, Flush flush = Flush::Now);

/// Waits until a file that was written is on the disk, and its name, too.
void flushFile(const std::filesystem::path& path);

} // namespace coulter
