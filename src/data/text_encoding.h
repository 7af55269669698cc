#pragma once
#include <string>
#include <string_view>

namespace coulter {

/// Turns text that comes piece by piece into UTF-8, from the encoding that its first piece shows: UTF-8 or UTF-16 by
/// its byte order mark, UTF-8 where it is valid, else Windows-1252, of which Latin-1 is a part.
class TextDecoder {
public:
    TextDecoder() = default;
    ~TextDecoder();
    TextDecoder(const TextDecoder&) = delete;
    TextDecoder& operator=(const TextDecoder&) = delete;

    /// The next piece; what is cut at its end waits for the one after it.
    std::string decode(std::string_view piece);
    /// "UTF-8", "UTF-16", "Windows-1252".
    const std::string& encoding() const { return encoding_; }
    /// Whether the first piece is no text at all.
    bool isBinary() const { return binary_; }

private:
    void start(std::string_view& piece);

    std::string encoding_;
    std::string waiting_;
    void* converter_ = nullptr; ///< iconv_t; null: bytes are UTF-8 as they are
    bool binary_ = false;
};

} // namespace coulter
