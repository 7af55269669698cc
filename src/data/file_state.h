#pragma once
#include <compare>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>

namespace coulter {

/// What the system says of a file, and what changes whenever its bytes do. POSIX stat(2).
struct FileState {
    std::uint64_t device = 0, inode = 0, size = 0;
    std::int64_t written = 0, changed = 0; ///< nanoseconds since 1970: of its bytes, and of what is known of it
    friend bool operator==(const FileState&, const FileState&) = default;
};
std::optional<FileState> stateOf(const std::filesystem::path& path);

/// In words: equal for equal states.
std::string wordsOf(const FileState& state);

} // namespace coulter
