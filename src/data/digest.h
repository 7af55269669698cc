#pragma once
#include <filesystem>
#include <memory>
#include <optional>
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

/// The digest of a file as it is now; none if it cannot be read.
std::optional<std::string> digestOfFile(const std::filesystem::path& path);

} // namespace coulter
