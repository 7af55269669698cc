#include "formula/lines/converted_units.h"

#include "formula/base/text.h"
#include "formula/notation/units.h"

#include <charconv>
#include <cmath>

namespace coulter {

namespace {

std::string trimmedText(const std::string& text) { return trimmed(decodeUtf8(text)); }

} // namespace

std::optional<std::string> conversionQuestion(const std::string& typed) {
    std::string text = trimmedText(typed);
    for (const char* end : {"?", "="}) {
        if (text.ends_with(end)) text = trimmedText(text.substr(0, text.size() - 1));
    }
    std::size_t word = text.rfind(" in ");
    if (word == std::string::npos) return std::nullopt;
    double number = 0;
    const auto [rest, error] = std::from_chars(text.data(), text.data() + word, number);
    if (error != std::errc{}) return std::nullopt;
    const auto digits = static_cast<std::size_t>(rest - text.data());
    const std::string from = trimmedText(text.substr(digits, word - digits)), to = trimmedText(text.substr(word + 4));
    if (from.empty() || to.empty() || to.find('[') != std::string::npos) return std::nullopt;
    const auto conversion = unitConversion(from, to);
    if (!conversion) return std::nullopt;
    std::string question = text.substr(0, digits);
    if (conversion->factor != 1) question += " * " + shortestNumber(conversion->factor);
    if (conversion->offset != 0)
        question += (conversion->offset > 0 ? " + " : " - ") + shortestNumber(std::abs(conversion->offset));
    return question + " = ?, unit " + to;
}

} // namespace coulter
