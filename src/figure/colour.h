#pragma once
#include <cstdint>
#include <optional>
#include <string>

namespace coulter {

/// A colour in sRGB.
struct Colour {
    std::uint8_t red = 0, green = 0, blue = 0;
    friend bool operator==(const Colour&, const Colour&) = default;
};
/// "#rrggbb", and back; none if the text is no such colour.
std::string spelled(Colour colour);
std::optional<Colour> readColour(const std::string& text);

} // namespace coulter
