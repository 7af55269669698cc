#include "data/digest.h"

#include <array>
#include <fstream>
#include <nettle/sha2.h>

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

std::optional<std::string> digestOfFile(const std::filesystem::path& path) {
    std::error_code error;
    if (!std::filesystem::is_regular_file(path, error)) return std::nullopt;
    std::ifstream file(path, std::ios::binary);
    Digest digest;
    std::array<char, 65536> buffer{};
    while (file) {
        file.read(buffer.data(), buffer.size());
        digest.add({buffer.data(), static_cast<std::size_t>(file.gcount())});
    }
    if (!file.eof()) return std::nullopt;
    return digest.text();
}

} // namespace coulter
