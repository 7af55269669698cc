#pragma once
#include <memory>
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

} // namespace coulter
