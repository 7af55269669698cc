#include "data/known_digests.h"

#include "data/person_folders.h"

#include <chrono>
#include <fstream>
#include <map>
#include <mutex>
#include <vector>

namespace coulter {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t mostKept = 1000, digestLength = 64;

fs::path cacheFile() {
    const fs::path cache = cacheFolder();
    return cache.empty() ? cache : cache / "digests";
}

/// Lines of the file that are whole: digest, then the state.
std::vector<std::string> linesOf(const fs::path& path) {
    std::vector<std::string> lines;
    std::ifstream file(path);
    for (std::string line; lines.size() < 2 * mostKept && std::getline(file, line);) {
        const bool isWhole = line.size() > digestLength + 1 && line[digestLength] == ' ' &&
                             line.find_first_not_of("0123456789abcdef") == digestLength;
        if (isWhole) lines.push_back(line);
    }
    return lines;
}

struct Known {
    std::mutex mutex;
    std::map<std::string, std::string> digests;
};
Known& known() {
    static Known all;
    return all;
}

} // namespace

std::optional<std::string> knownDigest(const FileState& state) {
    const std::string words = wordsOf(state);
    Known& all = known();
    const std::scoped_lock lock(all.mutex);
    if (const auto at = all.digests.find(words); at != all.digests.end()) return at->second;
    for (const std::string& line : linesOf(cacheFile())) {
        if (line.compare(digestLength + 1, std::string::npos, words) == 0)
            return all.digests[words] = line.substr(0, digestLength);
    }
    return std::nullopt;
}

void keepDigest(const FileState& state, const std::string& digest) {
    constexpr std::int64_t settled = 2'000'000'000;
    const std::int64_t now =
        std::chrono::duration_cast<std::chrono::nanoseconds>(std::chrono::system_clock::now().time_since_epoch())
            .count();
    if (now - std::max(state.written, state.changed) < settled) return;
    const std::string words = wordsOf(state);
    Known& all = known();
    const std::scoped_lock lock(all.mutex);
    all.digests[words] = digest;
    const fs::path path = cacheFile();
    if (path.empty()) return;
    // A folder or a disk that takes nothing is no trouble: the file is read through the next time, too.
    std::error_code error;
    fs::create_directories(path.parent_path(), error);
    std::vector<std::string> lines = linesOf(path);
    lines.push_back(digest + " " + words);
    if (lines.size() > mostKept) lines.erase(lines.begin(), lines.end() - mostKept);
    const fs::path fresh =
        path.string() + "." + std::to_string(std::chrono::steady_clock::now().time_since_epoch().count());
    {
        std::ofstream file(fresh);
        for (const std::string& line : lines) file << line << '\n';
        file.close();
        if (file.fail()) {
            fs::remove(fresh, error);
            return;
        }
    }
    fs::rename(fresh, path, error);
}

} // namespace coulter
