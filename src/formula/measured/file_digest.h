#pragma once
#include <future>
#include <memory>
#include <stop_token>
#include <string>

namespace coulter {

/// Who makes a digest, held as long as somebody may ask for it.
class DigestMaker {
public:
    virtual ~DigestMaker() = default;
    /// Somebody waits for it: it no longer lets others go first.
    virtual void hurry() {}
};

/// SHA-256 of a file's bytes in hexadecimal; empty: there is no file. Of a large file it may still be on its way while
/// the file's numbers are shown already: who needs it waits for it.
class FileDigest {
public:
    FileDigest() = default;
    FileDigest(std::string text) : known_(std::move(text)) {}
    FileDigest(const char* text) : known_(text) {}
    FileDigest(std::shared_future<std::string> coming, std::shared_ptr<DigestMaker> maker)
        : coming_(std::move(coming)), maker_(std::move(maker)) {}

    /// Whether `text` would return at once.
    bool isKnown() const;
    /// Waits for it; false if a stop came first.
    bool wait(const std::stop_token& stop) const;
    const std::string& text() const;
    /// Whether there is no file; does not wait.
    bool empty() const { return !coming_.valid() && known_.empty(); }
    friend bool operator==(const FileDigest& a, const FileDigest& b);

private:
    std::string known_;
    std::shared_future<std::string> coming_;
    std::shared_ptr<DigestMaker> maker_;
};

} // namespace coulter
