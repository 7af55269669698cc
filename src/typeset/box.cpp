#include "typeset/box.h"

#include "formula/base/text.h"

#include <algorithm>
#include <hb.h>
#include <memory>

namespace coulter {

void Box::add(const Box& other, double x, double y) {
    for (PlacedGlyph glyph : other.glyphs) {
        glyph.x += x;
        glyph.y += y;
        glyphs.push_back(std::move(glyph));
    }
    for (PlacedRule rule : other.rules) {
        rule.x += x;
        rule.y += y;
        rules.push_back(rule);
    }
}

void Box::append(const Box& other) {
    add(other, width, 0);
    width += other.width;
    ascent = std::max(ascent, other.ascent);
    descent = std::max(descent, other.descent);
    italic = other.italic;
}

Extent extentOf(const Box& box, Ink ink) {
    Extent extent{box.width, 0};
    for (const PlacedGlyph& glyph : box.glyphs) {
        if (glyph.ink != ink) continue;
        const double advance = hb_font_get_glyph_h_advance(shapingFont(glyph.font), glyph.glyph) / emUnits * glyph.size;
        extent.left = std::min(extent.left, glyph.x);
        extent.right = std::max(extent.right, glyph.x + advance);
    }
    return extent.right > extent.left ? extent : Extent{};
}

namespace {

/// Text of one font, which has all of its letters.
Box shaped(const std::string& utf8, FontId font, double size, Ink ink) {
    Box box;
    // The line's own height, not that of its letters, so that lines of text stand evenly.
    box.ascent = 0.72 * size;
    box.descent = 0.22 * size;
    const std::unique_ptr<hb_buffer_t, void (*)(hb_buffer_t*)> buffer(hb_buffer_create(), hb_buffer_destroy);
    hb_buffer_add_utf8(buffer.get(), utf8.data(), static_cast<int>(utf8.size()), 0, static_cast<int>(utf8.size()));
    hb_buffer_set_direction(buffer.get(), HB_DIRECTION_LTR);
    hb_buffer_set_script(buffer.get(), HB_SCRIPT_LATIN);
    hb_buffer_set_language(buffer.get(), hb_language_from_string("en", -1)); // never the machine's own
    hb_shape(shapingFont(font), buffer.get(), nullptr, 0);
    unsigned count = 0;
    const hb_glyph_info_t* infos = hb_buffer_get_glyph_infos(buffer.get(), &count);
    const hb_glyph_position_t* positions = hb_buffer_get_glyph_positions(buffer.get(), &count);
    const double scale = size / emUnits;
    for (unsigned i = 0; i < count; ++i) {
        PlacedGlyph glyph;
        glyph.font = font;
        glyph.size = size;
        glyph.glyph = infos[i].codepoint;
        glyph.x = box.width + positions[i].x_offset * scale;
        glyph.y = -positions[i].y_offset * scale;
        glyph.ink = ink;
        const bool first = i == 0 || infos[i].cluster != infos[i - 1].cluster;
        unsigned next = i + 1;
        while (next < count && infos[next].cluster == infos[i].cluster) ++next;
        const std::size_t end = next < count ? infos[next].cluster : utf8.size();
        if (first) glyph.text = utf8.substr(infos[i].cluster, end - infos[i].cluster);
        box.glyphs.push_back(std::move(glyph));
        box.width += positions[i].x_advance * scale;
    }
    return box;
}

FontId sansOf(FontId font) {
    return font == FontId::TextItalic ? FontId::SansItalic : font == FontId::TextBold ? FontId::SansBold : FontId::Sans;
}

bool has(FontId font, char32_t letter) {
    hb_codepoint_t glyph = 0;
    return hb_font_get_nominal_glyph(shapingFont(font), letter, &glyph) != 0;
}

} // namespace

Box textBox(const std::string& utf8, FontId font, Em size, Ink ink) {
    if (size.face == Typeface::Serif) return shaped(utf8, font, size, ink);
    // Letters that the sans font lacks are of the other one.
    const FontId sans = sansOf(font);
    const std::u32string letters = decodeUtf8(utf8);
    Box line = shaped("", sans, size, ink);
    for (std::size_t at = 0, end = 0; at < letters.size(); at = end) {
        const bool isSans = has(sans, letters[at]);
        while (end < letters.size() && has(sans, letters[end]) == isSans) ++end;
        line.append(
            shaped(encodeUtf8(std::u32string_view(letters).substr(at, end - at)), isSans ? sans : font, size, ink));
    }
    return line;
}

} // namespace coulter
