#include "data/text_encoding.h"

#include <cerrno>
#include <iconv.h>

namespace coulter {
namespace {

/// Whether bytes are UTF-8, but for a character that is cut at their end (RFC 3629).
bool isUtf8(std::string_view bytes) {
    for (std::size_t i = 0; i < bytes.size();) {
        const auto first = static_cast<unsigned char>(bytes[i]);
        const std::size_t length = first < 0x80   ? 1
                                   : first < 0xc2 ? 0
                                   : first < 0xe0 ? 2
                                   : first < 0xf0 ? 3
                                   : first < 0xf5 ? 4
                                                  : 0;
        if (length == 0) return false;
        for (std::size_t k = 1; k < length; ++k) {
            if (i + k >= bytes.size()) return true;
            if ((static_cast<unsigned char>(bytes[i + k]) & 0xc0) != 0x80) return false;
        }
        i += length;
    }
    return true;
}

} // namespace

TextDecoder::~TextDecoder() {
    if (converter_) iconv_close(converter_);
}

void TextDecoder::start(std::string_view& piece) {
    const char* from = nullptr;
    encoding_ = "UTF-8";
    if (piece.starts_with("\xef\xbb\xbf")) {
        piece.remove_prefix(3);
        binary_ = piece.find('\0') != std::string_view::npos;
    } else if (piece.starts_with("\xff\xfe") || piece.starts_with("\xfe\xff")) {
        from = piece[0] == '\xff' ? "UTF-16LE" : "UTF-16BE";
        encoding_ = "UTF-16";
        piece.remove_prefix(2);
    } else if (piece.find('\0') != std::string_view::npos) {
        binary_ = true;
    } else if (!isUtf8(piece)) {
        from = "WINDOWS-1252";
        encoding_ = "Windows-1252";
    }
    if (!from) return;
    converter_ = iconv_open("UTF-8", from);
    if (converter_ == reinterpret_cast<iconv_t>(-1)) converter_ = nullptr;
}

std::string TextDecoder::decode(std::string_view piece) {
    if (encoding_.empty()) start(piece);
    if (!converter_) return std::string(piece);
    waiting_ += piece;
    std::string out;
    char* in = waiting_.data();
    std::size_t left = waiting_.size();
    while (left > 0) {
        char buffer[4096];
        char* to = buffer;
        std::size_t room = sizeof buffer;
        const std::size_t done = iconv(converter_, &in, &left, &to, &room);
        out.append(buffer, sizeof buffer - room);
        if (done != static_cast<std::size_t>(-1) || errno == E2BIG) continue;
        if (errno == EINVAL) break; // a character that is cut
        ++in;                       // a byte that means nothing
        --left;
        out += "\xef\xbf\xbd";
    }
    waiting_.erase(0, waiting_.size() - left);
    return out;
}

} // namespace coulter
