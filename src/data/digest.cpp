#include "data/digest.h"

#include "data/known_digests.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <condition_variable>
#include <fstream>
#include <mutex>
#include <nettle/sha2.h>
#include <sys/resource.h>
#include <thread>
#include <unistd.h>
#include <vector>

namespace coulter {

struct Digest::State {
    sha256_ctx context;
};

Digest::Digest() : state_(std::make_unique<State>()) { sha256_init(&state_->context); }
Digest::~Digest() = default;

void Digest::add(std::string_view bytes) {
    sha256_update(&state_->context, bytes.size(), reinterpret_cast<const std::uint8_t*>(bytes.data()));
}

std::string Digest::text() {
    std::array<std::uint8_t, SHA256_DIGEST_SIZE> bytes{};
    sha256_digest(&state_->context, bytes.size(), bytes.data());
    std::string text;
    for (const std::uint8_t byte : bytes) {
        text += "0123456789abcdef"[byte >> 4];
        text += "0123456789abcdef"[byte & 15];
    }
    return text;
}

namespace {

/// Of the files in a folder by their names, those that are hidden left out.
std::optional<std::string> digestOfFolder(const std::filesystem::path& path, const std::stop_token& stop) {
    std::error_code error;
    std::vector<std::filesystem::path> files;
    for (std::filesystem::directory_iterator each(path, error), end; !error && each != end; each.increment(error)) {
        const bool isHidden = each->path().filename().string().starts_with('.');
        if (!isHidden && each->is_regular_file(error)) files.push_back(each->path());
    }
    std::ranges::sort(files);
    Digest all;
    for (const std::filesystem::path& file : files) {
        const auto one = digestOfFile(file, stop);
        if (!one) return std::nullopt;
        all.add(file.filename().string() + " " + *one + "\n");
    }
    return all.text();
}

} // namespace

std::optional<std::string> digestOfFile(const std::filesystem::path& path, const std::stop_token& stop) {
    std::error_code error;
    if (std::filesystem::is_directory(path, error)) return digestOfFolder(path, stop);
    if (!std::filesystem::is_regular_file(path, error)) return std::nullopt;
    const auto state = stateOf(path);
    const bool isLarge = state && state->size >= leastKnownSize;
    if (isLarge) {
        if (auto known = knownDigest(*state)) return known;
    }
    std::ifstream file(path, std::ios::binary);
    Digest digest;
    std::array<char, 65536> buffer{};
    while (file) {
        if (stop.stop_requested()) return std::nullopt;
        file.read(buffer.data(), buffer.size());
        digest.add({buffer.data(), static_cast<std::size_t>(file.gcount())});
    }
    if (!file.eof()) return std::nullopt;
    const std::string found = digest.text();
    if (isLarge && stateOf(path) == state) keepDigest(*state, found);
    return found;
}

namespace {

/// Makes a digest in a thread of its own, after the first picture of the file, which is read and drawn meanwhile: on
/// the same disk and the same processors.
class MakerBehindOthers : public DigestMaker {
public:
    /// @param state  of the file as it was read
    MakerBehindOthers(std::filesystem::path path, std::optional<FileState> state)
        : path_(std::move(path)), state_(state) {}

    std::shared_future<std::string> coming() { return made_.get_future().share(); }
    void start() {
        thread_ = std::jthread([this](const std::stop_token& stop) { make(stop); });
    }
    void hurry() override {
        {
            const std::scoped_lock lock(mutex_);
            isWaitedFor_ = true;
        }
        changed_.notify_all();
    }

private:
    void make(const std::stop_token& stop) {
        constexpr int behindOthers = 15;
        constexpr std::chrono::milliseconds firstPicture{300}; // that reads and draws meanwhile
        ::setpriority(PRIO_PROCESS, static_cast<id_t>(::gettid()), behindOthers);
        {
            std::unique_lock lock(mutex_);
            changed_.wait_for(lock, stop, firstPicture, [this] { return isWaitedFor_; });
        }
        const std::string made = digestOfFile(path_, stop).value_or("");
        made_.set_value(made.empty() || stateOf(path_) == state_ ? made : noFile);
    }

    /// No file has it: the one that was read is no longer there.
    static inline const std::string noFile = std::string(2 * SHA256_DIGEST_SIZE, '0');
    std::filesystem::path path_;
    std::optional<FileState> state_;
    std::promise<std::string> made_;
    std::mutex mutex_;
    std::condition_variable_any changed_;
    bool isWaitedFor_ = false;
    std::jthread thread_; ///< ends before what it uses
};

} // namespace

FileDigest comingDigest(const std::filesystem::path& path) {
    std::error_code error;
    const auto state = stateOf(path);
    const bool isLong = std::filesystem::is_directory(path, error) || (state && state->size >= leastKnownSize);
    const bool isKnown = isLong && state && knownDigest(*state);
    if (!isLong || isKnown) return digestOfFile(path).value_or("");
    auto maker = std::make_shared<MakerBehindOthers>(path, state);
    auto coming = maker->coming();
    maker->start();
    return {std::move(coming), std::move(maker)};
}

} // namespace coulter
