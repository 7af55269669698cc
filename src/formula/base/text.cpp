#include "formula/base/text.h"

#include <array>
#include <charconv>
#include <cmath>
#include <utility>

namespace coulter {
namespace {

constexpr std::array<std::pair<std::string_view, char32_t>, 52> greek{{
    {"alpha", U'α'},    {"beta", U'β'},    {"gamma", U'γ'},   {"delta", U'δ'},    {"epsilon", U'ε'}, {"zeta", U'ζ'},
    {"eta", U'η'},      {"theta", U'θ'},   {"iota", U'ι'},    {"kappa", U'κ'},    {"lambda", U'λ'},  {"mu", U'μ'},
    {"nu", U'ν'},       {"xi", U'ξ'},      {"omicron", U'ο'}, {"pi", U'π'},       {"rho", U'ρ'},     {"sigma", U'σ'},
    {"tau", U'τ'},      {"upsilon", U'υ'}, {"phi", U'φ'},     {"chi", U'χ'},      {"psi", U'ψ'},     {"omega", U'ω'},
    {"Alpha", U'Α'},    {"Beta", U'Β'},    {"Gamma", U'Γ'},   {"Delta", U'Δ'},    {"Epsilon", U'Ε'}, {"Zeta", U'Ζ'},
    {"Eta", U'Η'},      {"Theta", U'Θ'},   {"Iota", U'Ι'},    {"Kappa", U'Κ'},    {"Lambda", U'Λ'},  {"Mu", U'Μ'},
    {"Nu", U'Ν'},       {"Xi", U'Ξ'},      {"Omicron", U'Ο'}, {"Pi", U'Π'},       {"Rho", U'Ρ'},     {"Sigma", U'Σ'},
    {"Tau", U'Τ'},      {"Upsilon", U'Υ'}, {"Phi", U'Φ'},     {"Chi", U'Χ'},      {"Psi", U'Ψ'},     {"Omega", U'Ω'},
    {"vartheta", U'ϑ'}, {"varphi", U'ϕ'},  {"digamma", U'ϝ'}, {"varsigma", U'ς'},
}};

} // namespace

std::u32string decodeUtf8(std::string_view bytes) {
    std::u32string out;
    out.reserve(bytes.size());
    for (std::size_t i = 0; i < bytes.size();) {
        const auto lead = static_cast<unsigned char>(bytes[i]);
        const int length = lead < 0x80                   ? 1
                           : lead >= 0xC2 && lead < 0xE0 ? 2
                           : lead >= 0xE0 && lead < 0xF0 ? 3
                           : lead >= 0xF0 && lead < 0xF5 ? 4
                                                         : 0;
        char32_t value = length == 1 ? lead : lead & (0xFF >> (length + 1));
        bool good = length > 0 && i + static_cast<std::size_t>(length) <= bytes.size();
        for (int k = 1; good && k < length; ++k) {
            const auto next = static_cast<unsigned char>(bytes[i + static_cast<std::size_t>(k)]);
            good = (next & 0xC0) == 0x80;
            value = (value << 6) | (next & 0x3F);
        }
        static constexpr char32_t least[] = {0, 0, 0x80, 0x800, 0x10000};
        good = good && value >= least[length] && value <= 0x10FFFF && (value < 0xD800 || value > 0xDFFF);
        out.push_back(good ? value : U'\uFFFD');
        i += good ? static_cast<std::size_t>(length) : 1;
    }
    return out;
}

std::string encodeUtf8(std::u32string_view characters) {
    std::string out;
    for (const char32_t c : characters) {
        if (c < 0x80) {
            out += static_cast<char>(c);
        } else if (c < 0x800) {
            out += static_cast<char>(0xC0 | (c >> 6));
            out += static_cast<char>(0x80 | (c & 0x3F));
        } else if (c < 0x10000) {
            out += static_cast<char>(0xE0 | (c >> 12));
            out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
            out += static_cast<char>(0x80 | (c & 0x3F));
        } else {
            out += static_cast<char>(0xF0 | (c >> 18));
            out += static_cast<char>(0x80 | ((c >> 12) & 0x3F));
            out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
            out += static_cast<char>(0x80 | (c & 0x3F));
        }
    }
    return out;
}

std::optional<char32_t> greekLetter(std::string_view name) {
    for (const auto& [spelled, letter] : greek) {
        if (spelled == name) return letter;
    }
    return std::nullopt;
}

std::string_view greekName(char32_t letter) {
    for (const auto& [spelled, known] : greek) {
        if (known == letter) return spelled;
    }
    return {};
}

bool isDigit(char32_t c) { return c >= U'0' && c <= U'9'; }
bool isSpace(char32_t c) {
    return c == U' ' || c == U'\t' || c == U'\u00A0' || (c >= U'\u2000' && c <= U'\u200A') || c == U'\u202F';
}
bool isLetter(char32_t c) {
    return (c >= U'a' && c <= U'z') || (c >= U'A' && c <= U'Z') || (c >= U'Α' && c <= U'ω') || c == U'ϑ' || c == U'ϕ' ||
           c == U'ϝ';
}

std::string shortestNumber(double value) {
    if (std::isnan(value)) return "undefined";
    if (std::isinf(value)) return value > 0 ? "inf" : "-inf";
    std::array<char, 40> buffer{};
    const auto end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value).ptr;
    return {buffer.data(), end};
}

std::string roundedNumber(double value, int digits) {
    if (!std::isfinite(value)) return shortestNumber(value);
    std::array<char, 64> buffer{};
    const auto end =
        std::to_chars(buffer.data(), buffer.data() + buffer.size(), value, std::chars_format::scientific, digits - 1)
            .ptr;
    double rounded = 0;
    std::from_chars(buffer.data(), end, rounded);
    const double size = std::abs(rounded);
    const bool plain = size == 0 || (size >= 1e-4 && size < 1e7);
    const auto format = plain ? std::chars_format::fixed : std::chars_format::scientific;
    const auto last = std::to_chars(buffer.data(), buffer.data() + buffer.size(), rounded, format).ptr;
    std::string text(buffer.data(), last);
    if (text == "-0") text = "0";
    if (const auto e = text.find('e'); e != std::string::npos) { // 1e-07 → 1e-7, 1e+20 → 1e20
        std::string exponent = text.substr(e + 1);
        const bool negative = exponent[0] == '-';
        exponent.erase(0, exponent.find_first_not_of("+-0"));
        text = text.substr(0, e + 1) + (negative ? "-" : "") + exponent;
    }
    return text;
}

std::string trimmed(std::u32string_view text) {
    while (!text.empty() && isSpace(text.front())) text.remove_prefix(1);
    while (!text.empty() && isSpace(text.back())) text.remove_suffix(1);
    return encodeUtf8(text);
}

} // namespace coulter
