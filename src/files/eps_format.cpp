#include "drawing/cairo_painter.h"
#include "drawing/image_bytes.h"
#include "files/formats.h"

#include <array>

namespace coulter {
namespace {

/// The recipe stands in comments of the file's head: its bytes by letters, in lines that any reader of the format
/// takes.
constexpr std::string_view mark = "%CoulterRecipe: ";
constexpr std::size_t lettersOfLine = 200;

/// The bytes that letters stand for (RFC 4648, section 4); none if they are no such letters.
std::optional<std::string> fromBase64(std::string_view letters) {
    std::array<int, 256> values{};
    values.fill(-1);
    static constexpr std::string_view all = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    for (std::size_t i = 0; i < all.size(); ++i) values[static_cast<unsigned char>(all[i])] = static_cast<int>(i);
    std::string bytes;
    std::uint32_t group = 0;
    int bits = 0;
    while (letters.ends_with('=')) letters.remove_suffix(1);
    for (const char letter : letters) {
        const int value = values[static_cast<unsigned char>(letter)];
        if (value < 0) return std::nullopt;
        group = group << 6 | static_cast<std::uint32_t>(value);
        bits += 6;
        if (bits < 8) continue;
        bits -= 8;
        bytes += static_cast<char>(group >> bits & 0xff);
    }
    return bytes;
}

} // namespace

std::string writeEps(const Figure& figure, const std::string& recipe) {
    const std::string letters = base64(recipe);
    std::vector<std::string> comments;
    for (std::size_t at = 0; at < letters.size(); at += lettersOfLine)
        comments.push_back(std::string(mark) + letters.substr(at, lettersOfLine));
    return paintEps(figure.scene, figure.document.sheet.resolution, comments,
                    rulesOf(figure.document.format).exactEpsSize);
}

bool isEps(std::string_view bytes) { return bytes.starts_with("%!PS-Adobe-"); }

std::optional<std::string> recipeInEps(std::string_view bytes) {
    std::string letters;
    for (std::size_t at = bytes.find(mark); at != std::string_view::npos; at = bytes.find(mark, at)) {
        at += mark.size();
        std::size_t end = bytes.find_first_of("\r\n", at);
        if (end == std::string_view::npos) end = bytes.size();
        letters += bytes.substr(at, end - at);
    }
    return letters.empty() ? std::nullopt : fromBase64(letters);
}

} // namespace coulter
