#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace coulter {

/// UTF-8 to characters; damaged bytes become U+FFFD, one for each.
std::u32string decodeUtf8(std::string_view bytes);
std::string encodeUtf8(std::u32string_view characters);

/// The Greek letter that a name spells ("gamma" → 'γ', "Omega" → 'Ω'), if it spells one.
std::optional<char32_t> greekLetter(std::string_view name);

/// The name of a Greek letter ('γ' → "gamma"); empty for other characters.
std::string_view greekName(char32_t letter);

bool isDigit(char32_t c);
bool isSpace(char32_t c);
/// UTF-8 of a text without the space at its ends.
std::string trimmed(std::u32string_view text);
/// A Latin or Greek letter: what a name is made of.
bool isLetter(char32_t c);

/// The shortest decimal digits that read back as the same double; "inf", "-inf", "undefined" for the others.
std::string shortestNumber(double value);

/// Number as in print, with up to `digits` significant digits: "−0.25", "1.2 × 10⁻⁷" is spelled "1.2e-7" here;
/// trailing zeros are dropped.
std::string roundedNumber(double value, int digits);

} // namespace coulter
