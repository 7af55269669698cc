#include "data/digest.h"

#include <array>
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

} // namespace coulter
