#pragma once
#include <cstdint>
#include <span>
#include <string_view>

struct hb_font_t;

namespace coulter {

/// The fonts that are part of the program.
enum class FontId : std::uint8_t { Text, TextItalic, TextBold, Math, Sans, SansItalic, SansBold };
inline constexpr int fontCount = 7;

/// The font file itself, for backends that embed it.
std::span<const std::byte> fontFile(FontId id);

/// The font for shaping and for mathematical metrics, scaled so that one em is 65536 units. Immutable, shared by
/// threads.
hb_font_t* shapingFont(FontId id);

/// Font units of `shapingFont` to parts of an em.
inline constexpr double emUnits = 65536;

} // namespace coulter
