#include "typeset/font.h"

#include <array>
#include <hb-ot.h>
#include <hb.h>

extern "C" {
extern const std::byte coulter_font_textRegular[], coulter_font_textRegular_end[];
extern const std::byte coulter_font_textItalic[], coulter_font_textItalic_end[];
extern const std::byte coulter_font_textBold[], coulter_font_textBold_end[];
extern const std::byte coulter_font_sansRegular[], coulter_font_sansRegular_end[];
extern const std::byte coulter_font_sansItalic[], coulter_font_sansItalic_end[];
extern const std::byte coulter_font_sansBold[], coulter_font_sansBold_end[];
extern const std::byte coulter_font_math[], coulter_font_math_end[];
}

namespace coulter {

std::span<const std::byte> fontFile(FontId id) {
    switch (id) {
    case FontId::Text: return {coulter_font_textRegular, coulter_font_textRegular_end};
    case FontId::TextItalic: return {coulter_font_textItalic, coulter_font_textItalic_end};
    case FontId::TextBold: return {coulter_font_textBold, coulter_font_textBold_end};
    case FontId::Sans: return {coulter_font_sansRegular, coulter_font_sansRegular_end};
    case FontId::SansItalic: return {coulter_font_sansItalic, coulter_font_sansItalic_end};
    case FontId::SansBold: return {coulter_font_sansBold, coulter_font_sansBold_end};
    case FontId::Math: break;
    }
    return {coulter_font_math, coulter_font_math_end};
}

hb_font_t* shapingFont(FontId id) {
    static const std::array<hb_font_t*, fontCount> fonts = [] {
        std::array<hb_font_t*, fontCount> made{};
        for (int i = 0; i < fontCount; ++i) {
            const auto file = fontFile(static_cast<FontId>(i));
            hb_blob_t* blob =
                hb_blob_create(reinterpret_cast<const char*>(file.data()), static_cast<unsigned>(file.size()),
                               HB_MEMORY_MODE_READONLY, nullptr, nullptr);
            hb_face_t* face = hb_face_create(blob, 0);
            hb_font_t* font = hb_font_create(face);
            hb_font_set_scale(font, static_cast<int>(emUnits), static_cast<int>(emUnits));
            hb_ot_font_set_funcs(font);
            hb_font_make_immutable(font);
            hb_face_destroy(face);
            hb_blob_destroy(blob);
            made[static_cast<std::size_t>(i)] = font;
        }
        return made;
    }();
    return fonts[static_cast<std::size_t>(id)];
}

} // namespace coulter
