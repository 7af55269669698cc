#include "data/file_state.h"

#include <sstream>
#include <sys/stat.h>

namespace coulter {

std::optional<FileState> stateOf(const std::filesystem::path& path) {
    struct stat found {};
    if (stat(path.c_str(), &found) != 0) return std::nullopt;
    const auto nanoseconds = [](const timespec& time) {
        return static_cast<std::int64_t>(time.tv_sec) * 1'000'000'000 + time.tv_nsec;
    };
    return FileState{found.st_dev, found.st_ino, static_cast<std::uint64_t>(found.st_size), nanoseconds(found.st_mtim),
                     nanoseconds(found.st_ctim)};
}

std::string wordsOf(const FileState& state) {
    std::ostringstream words;
    words << state.device << ' ' << state.inode << ' ' << state.size << ' ' << state.written << ' ' << state.changed;
    return words.str();
}

} // namespace coulter
