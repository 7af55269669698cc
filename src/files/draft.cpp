#include "files/draft.h"

#include "data/person_folders.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include <algorithm>
#include <atomic>
#include <cstdlib>
#include <fcntl.h>
#include <nlohmann/json.hpp>
#include <sys/file.h>
#include <unistd.h>

namespace coulter {
namespace {

namespace fs = std::filesystem;

constexpr const char* openEnding = ".open";
constexpr const char* draftEnding = ".draft";

/// A file's way as one that can be compared, whatever folder the program runs in.
fs::path wayOf(const fs::path& path) {
    if (path.empty()) return path;
    std::error_code error;
    fs::path way = fs::weakly_canonical(fs::absolute(path, error), error);
    return error ? path : way;
}

/// Whether a living process holds an `.open` file.
bool isHeld(const fs::path& file) {
    const int descriptor = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
    if (descriptor < 0) return false;
    const bool held = ::flock(descriptor, LOCK_EX | LOCK_NB) != 0;
    ::close(descriptor);
    return held;
}

/// The files of the folder with an ending, without it.
std::vector<fs::path> withEnding(const fs::path& folder, const char* ending) {
    std::vector<fs::path> found;
    std::error_code error;
    for (fs::directory_iterator each(folder, error), end; !error && each != end; each.increment(error)) {
        if (each->path().extension() == ending) found.push_back(fs::path(each->path()).replace_extension());
    }
    return found;
}

fs::path with(fs::path stem, const char* ending) { return stem += ending; }

/// Reads `.draft`: a line of JSON that says what the draft is of, and the recipe.
std::optional<LostDraft> readDraft(const fs::path& file) {
    const FileRead read = readFile(file);
    if (!read.bytes) return std::nullopt;
    const std::size_t end = read.bytes->find('\n');
    if (end == std::string::npos) return std::nullopt;
    const auto head = nlohmann::json::parse(read.bytes->begin(), read.bytes->begin() + static_cast<std::ptrdiff_t>(end),
                                            nullptr, false);
    if (!head.is_object() || !head.contains("of") || !head["of"].is_string() || !head.contains("name") ||
        !head["name"].is_string())
        return std::nullopt;
    RecipeRead recipe = readRecipe(std::string_view(*read.bytes).substr(end + 1));
    if (!recipe.document) return std::nullopt;
    std::error_code error;
    const fs::file_time_type written = fs::last_write_time(file, error);
    if (error) return std::nullopt;
    return LostDraft{
        file, head["of"].get<std::string>(), head["name"].get<std::string>(),
        std::chrono::time_point_cast<std::chrono::system_clock::duration>(std::chrono::file_clock::to_sys(written)),
        std::move(*recipe.document)};
}

/// Whether its own file has all that a draft has: the program ended after it was saved.
bool isSaved(const LostDraft& draft) {
    if (draft.of.empty()) return false;
    const FileRead file = readFile(draft.of);
    return file.bytes && *file.bytes == writeRecipe(draft.document);
}

/// What a process was writing of a draft when it ended.
void removeHalves(const fs::path& stem) {
    const std::string beginning = "." + stem.filename().string() + draftEnding + ".";
    std::error_code error;
    std::vector<fs::path> halves;
    for (fs::directory_iterator each(stem.parent_path(), error), end; !error && each != end; each.increment(error)) {
        if (each->path().filename().string().starts_with(beginning)) halves.push_back(each->path());
    }
    for (const fs::path& half : halves) fs::remove(half, error);
}

} // namespace

fs::path draftFolder() {
    const fs::path state = stateFolder();
    return state.empty() ? state : state / "drafts";
}

Draft::Draft(fs::path folder) : folder_(std::move(folder)) {
    static std::atomic<int> count{0};
    if (folder_.empty()) return;
    std::error_code error;
    fs::create_directories(folder_, error);
    fs::permissions(folder_, fs::perms::owner_all, error); // unsaved work is nobody else's
    // A name that a process before this one left behind is passed over.
    for (int tries = 0; lock_ < 0 && tries < 1000; ++tries) {
        name_ = std::to_string(::getpid()) + "-" + std::to_string(++count);
        lock_ = ::open(fileOf(openEnding).c_str(), O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC, 0600);
        if (lock_ < 0 && errno != EEXIST) break;
    }
    if (lock_ >= 0 && ::flock(lock_, LOCK_EX | LOCK_NB) == 0) return;
    problem_ = Problem();
    problem_->sentence = "Changes that are not saved cannot be kept safe in " + folder_.string() + ".";
    problem_->suggestion = "save often, or make that folder writable";
    problem_->severity = Problem::Severity::Note;
    if (lock_ >= 0) ::close(lock_);
    lock_ = -1;
}

Draft::~Draft() {
    if (lock_ < 0) return;
    clear();
    std::error_code ignored;
    fs::remove(fileOf(openEnding), ignored);
    ::close(lock_);
}

fs::path Draft::fileOf(const char* ending) const { return folder_ / (name_ + ending); }

void Draft::opened(const fs::path& of) {
    of_ = wayOf(of);
    if (lock_ < 0) return;
    const std::string text = of_.string();
    // Written in place, since the lock is on this very file. Who reads half a name finds no such file open.
    if (::ftruncate(lock_, 0) != 0 || ::pwrite(lock_, text.data(), text.size(), 0) < 0) return;
}

std::size_t Draft::keep(const Document& document, const std::string& name) {
    if (lock_ < 0) return 0;
    const nlohmann::json head{{"of", of_.string()}, {"name", name}};
    const std::string bytes =
        head.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) + "\n" + writeRecipe(document);
    problem_ = writeFile(fileOf(draftEnding), bytes, Flush::Later);
    return bytes.size();
}

void Draft::flush() const {
    if (lock_ >= 0) flushFile(fileOf(draftEnding));
}

void Draft::clear() {
    if (lock_ < 0) return;
    std::error_code ignored;
    fs::remove(fileOf(draftEnding), ignored);
}

bool Draft::isOpenElsewhere(const fs::path& of) const {
    const fs::path way = wayOf(of);
    if (way.empty() || folder_.empty()) return false;
    return std::ranges::any_of(withEnding(folder_, openEnding), [&](const fs::path& stem) {
        if (stem.filename() == name_) return false;
        const FileRead read = readFile(with(stem, openEnding));
        return read.bytes && fs::path(*read.bytes) == way && isHeld(with(stem, openEnding));
    });
}

std::vector<LostDraft> lostDrafts(const fs::path& folder) {
    std::vector<LostDraft> lost;
    if (folder.empty()) return lost;
    std::error_code ignored;
    for (const fs::path& stem : withEnding(folder, openEnding)) {
        if (isHeld(with(stem, openEnding))) continue;
        const fs::path file = with(stem, draftEnding);
        const bool exists = fs::exists(file, ignored);
        auto draft = exists ? readDraft(file) : std::nullopt;
        if (draft && !isSaved(*draft)) {
            lost.push_back(std::move(*draft));
            continue;
        }
        if (exists && !draft) continue; // of a newer program, perhaps: not ours to throw away
        fs::remove(file, ignored);
        fs::remove(with(stem, openEnding), ignored);
        removeHalves(stem);
    }
    std::ranges::sort(lost, std::greater(), &LostDraft::when);
    return lost;
}

bool throwAway(const LostDraft& draft) {
    std::error_code ignored;
    const bool there = fs::remove(draft.file, ignored);
    fs::remove(fs::path(draft.file).replace_extension(openEnding), ignored);
    removeHalves(fs::path(draft.file).replace_extension());
    return there;
}

} // namespace coulter
