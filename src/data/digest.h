#pragma once
#include "formula/measured/file_digest.h"

#include <filesystem>
#include <memory>
#include <optional>
#include <stop_token>
#include <string>
#include <string_view>

namespace coulter {

/// SHA-256 (FIPS 180-4) of bytes that come piece by piece.
class Digest {
public:
    Digest();
    ~Digest();
    void add(std::string_view bytes);
    /// In hexadecimal; ends it.
    std::string text();

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// The digest of a file as it is now, or of all files in a folder; none if it cannot be read, or reading was stopped.
std::optional<std::string> digestOfFile(const std::filesystem::path& path, const std::stop_token& stop = {});

/// The same, made in a thread of its own if it takes long; the thread ends when nobody holds it any more. Empty text:
/// it cannot be read. Of a file that changes before it is done it is a digest that no file has.
FileDigest comingDigest(const std::filesystem::path& path);

} // namespace coulter
