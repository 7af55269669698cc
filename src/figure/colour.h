#pragma once
#include <cstdint>
#include <optional>
#include <string>

namespace coulter {

/// Who decides what becomes of a colour on the sheet: whoever chose it, or the sheet's look.
enum class ColourRole : std::uint8_t { Own, Ink, Grid, Paper, Plot };

/// A colour in sRGB.
struct Colour {
    std::uint8_t red = 0, green = 0, blue = 0;
    ColourRole role = ColourRole::Own;
    /// As they look, whoever decides.
    friend constexpr bool operator==(const Colour& a, const Colour& b) {
        return a.red == b.red && a.green == b.green && a.blue == b.blue;
    }
};
/// "#rrggbb", and back; none if the text is no such colour.
std::string spelled(Colour colour);
std::optional<Colour> readColour(const std::string& text);

} // namespace coulter
