#include "files/file_access.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <string>
#include <sys/stat.h>
#include <system_error>
#include <unistd.h>

namespace coulter {
namespace {

/// Largest file that is read: no figure and no recipe of ours comes near it.
constexpr off_t largestFile = 1'000'000'000;

Problem failed(const std::string& doing, const std::filesystem::path& path, int error) {
    Problem problem;
    problem.sentence = doing + " " + path.string() + " failed: " + std::generic_category().message(error) + ".";
    switch (error) {
    case ENOSPC:
    case EDQUOT: problem.suggestion = "free some space, or choose another folder"; break;
    case EACCES:
    case EPERM:
    case EROFS: problem.suggestion = "choose a folder that you may write to"; break;
    case ENOENT: problem.suggestion = "check the name and its folder"; break;
    case EISDIR: problem.suggestion = "add a file name to the folder"; break;
    default: break;
    }
    return problem;
}

class Descriptor {
public:
    explicit Descriptor(int value) : value_(value) {}
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    ~Descriptor() {
        if (value_ >= 0) ::close(value_);
    }
    int get() const { return value_; }

private:
    int value_;
};

/// The mask of new files' permissions. Asking the system for it would set it, for other threads too.
mode_t maskOfProcess() {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);) {
        if (line.starts_with("Umask:")) return static_cast<mode_t>(std::stoul(line.substr(6), nullptr, 8));
    }
    return 022;
}

/// Writes everything, and flushes it to the disk if asked to; 0 or the error.
int writeAll(int file, const std::string& bytes, Flush flush) {
    std::size_t done = 0;
    while (done < bytes.size()) {
        const ssize_t wrote = ::write(file, bytes.data() + done, bytes.size() - done);
        if (wrote < 0 && errno == EINTR) continue;
        if (wrote < 0) return errno;
        done += static_cast<std::size_t>(wrote);
    }
    if (flush == Flush::Now && ::fsync(file) != 0 && errno != EINVAL && errno != EROFS)
        return errno; // EINVAL: not a file that is kept
    return 0;
}

void flushFolder(const std::filesystem::path& path) {
    const Descriptor folder(::open(path.parent_path().c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (folder.get() >= 0) ::fsync(folder.get());
}

/// The file that a path stands for, through symbolic links, also one that is not there yet; empty if links go in a
/// circle.
std::filesystem::path throughLinks(std::filesystem::path path) {
    constexpr int mostLinks = 40;
    std::error_code error;
    for (int link = 0; std::filesystem::is_symlink(std::filesystem::symlink_status(path, error)); ++link) {
        if (link == mostLinks) return {};
        const std::filesystem::path next = std::filesystem::read_symlink(path, error);
        if (error) return {};
        path = next.is_absolute() ? next : path.parent_path() / next;
    }
    return path;
}

/// A name for what is written beside a file: as long as the file's own may be, whatever that is.
std::string besideName(const std::string& name) {
    constexpr std::size_t longest = 200; // of 255 bytes that a name may have
    return "." + name.substr(0, longest) + ".XXXXXX";
}

} // namespace

FileRead readFile(const std::filesystem::path& path) {
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
    if (file.get() < 0) return {std::nullopt, failed("Opening", path, errno)};
    struct stat about {};
    if (::fstat(file.get(), &about) == 0 && S_ISDIR(about.st_mode))
        return {std::nullopt, failed("Opening", path, EISDIR)};
    if (about.st_size > largestFile) return {std::nullopt, failed("Reading", path, EFBIG)};
    std::string bytes;
    char buffer[65536];
    for (;;) {
        const ssize_t got = ::read(file.get(), buffer, sizeof buffer);
        if (got < 0 && errno == EINTR) continue;
        if (got < 0) return {std::nullopt, failed("Reading", path, errno)};
        if (got == 0) break;
        bytes.append(buffer, static_cast<std::size_t>(got));
        if (bytes.size() > static_cast<std::size_t>(largestFile)) return {std::nullopt, failed("Reading", path, EFBIG)};
    }
    return {std::move(bytes), {}};
}

std::optional<Problem> writeFile(const std::filesystem::path& path, const std::string& bytes, Flush flush) {
    struct stat about {};
    const bool exists = ::stat(path.c_str(), &about) == 0;
    if (exists && S_ISDIR(about.st_mode)) return failed("Writing", path, EISDIR);
    if (exists && !S_ISREG(about.st_mode)) { // a device or a pipe cannot be replaced, only written to
        const Descriptor file(::open(path.c_str(), O_WRONLY | O_CLOEXEC));
        const int error = file.get() < 0 ? errno : writeAll(file.get(), bytes, flush);
        return error != 0 ? std::optional(failed("Writing", path, error)) : std::nullopt;
    }
    // Through a link it is the file behind it that is replaced.
    const std::filesystem::path target = throughLinks(path);
    if (target.empty()) return failed("Writing", path, ELOOP);
    if (exists && ::access(target.c_str(), W_OK) != 0) return failed("Writing", path, errno);
    std::string beside = (target.parent_path() / besideName(target.filename().string())).string();
    const Descriptor file(::mkostemp(beside.data(), O_CLOEXEC));
    if (file.get() < 0) return failed("Writing", path, errno);
    ::fchmod(file.get(), exists ? about.st_mode & 07777 : 0666 & ~maskOfProcess());
    int error = writeAll(file.get(), bytes, flush);
    if (error == 0 && ::rename(beside.c_str(), target.c_str()) != 0) error = errno;
    if (error != 0) {
        ::unlink(beside.c_str());
        return failed("Writing", path, error);
    }
    if (flush == Flush::Now) flushFolder(target); // so that the new name survives a power cut too
    return std::nullopt;
}

void flushFile(const std::filesystem::path& path) {
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC));
    if (file.get() < 0) return;
    ::fsync(file.get());
    flushFolder(path);
}

} // namespace coulter
