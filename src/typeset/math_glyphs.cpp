#include "typeset/math_glyphs.h"

#include <algorithm>
#include <cstdlib>
#include <vector>

namespace coulter {
namespace {

/// Slanted letters of Unicode's mathematical alphabet.
char32_t slanted(char32_t c) {
    if (c == U'h') return U'ℎ';
    if (c >= U'a' && c <= U'z') return 0x1D44E + (c - U'a');
    if (c >= U'A' && c <= U'Z') return 0x1D434 + (c - U'A');
    if (c >= U'α' && c <= U'ω') return 0x1D6FC + (c - U'α');
    if (c >= U'Α' && c <= U'Ω') return 0x1D6E2 + (c - U'Α');
    if (c == U'ϑ') return 0x1D717;
    if (c == U'ϕ') return 0x1D719;
    if (c == U'ϵ') return 0x1D716;
    if (c == U'ϱ') return 0x1D71A;
    if (c == U'ϖ') return 0x1D71B;
    if (c == U'∂') return 0x1D715;
    return c;
}

Box assembled(std::uint32_t glyph, double height, double size, const std::string& text, Ink ink) {
    hb_font_t* font = shapingFont(FontId::Math);
    hb_position_t italics = 0;
    std::vector<hb_ot_math_glyph_part_t> parts(16);
    unsigned count = 16;
    hb_ot_math_get_glyph_assembly(font, glyph, HB_DIRECTION_BTT, 0, &count, parts.data(), &italics);
    parts.resize(count);
    if (parts.empty()) return {};
    const double minimal = hb_ot_math_get_min_connector_overlap(font, HB_DIRECTION_BTT) / emUnits * size;
    // As many extenders as needed; then all joints overlap alike, a little more than the least.
    int repeats = 0;
    double length = 0;
    std::vector<hb_ot_math_glyph_part_t> column;
    for (; repeats < 200; ++repeats) {
        column.clear();
        for (const auto& part : parts) {
            const int times = part.flags & HB_OT_MATH_GLYPH_PART_FLAG_EXTENDER ? repeats : 1;
            column.insert(column.end(), static_cast<std::size_t>(times), part);
        }
        length = 0;
        for (const auto& part : column) length += part.full_advance / emUnits * size;
        if (!column.empty() && length - minimal * static_cast<double>(column.size() - 1) >= height) break;
    }
    const double joints = std::max<double>(1, static_cast<double>(column.size()) - 1);
    const double overlap = std::max(minimal, (length - height) / joints);
    Box box;
    double y = 0;
    for (const auto& part : column) {
        const Box piece = mathGlyphBox(part.glyph, size, box.glyphs.empty() ? text : "", ink);
        box.add(piece, 0, 0);
        // Parts stand with their own bottom on the end of the part below.
        box.glyphs.back().y = -(y + piece.descent);
        box.width = std::max(box.width, piece.width);
        y += part.full_advance / emUnits * size - overlap;
    }
    box.ascent = y + overlap;
    box.descent = 0;
    return box;
}

} // namespace

double mathConstant(hb_ot_math_constant_t constant) {
    const double value = hb_ot_math_get_constant(shapingFont(FontId::Math), constant);
    const bool percent = constant == HB_OT_MATH_CONSTANT_SCRIPT_PERCENT_SCALE_DOWN ||
                         constant == HB_OT_MATH_CONSTANT_SCRIPT_SCRIPT_PERCENT_SCALE_DOWN ||
                         constant == HB_OT_MATH_CONSTANT_RADICAL_DEGREE_BOTTOM_RAISE_PERCENT;
    return percent ? value / 100 : value / emUnits;
}

std::uint32_t mathGlyph(char32_t character, bool italic) {
    hb_codepoint_t glyph = 0;
    hb_font_get_nominal_glyph(shapingFont(FontId::Math), italic ? slanted(character) : character, &glyph);
    return glyph;
}

namespace {

Box glyphBox(FontId id, std::uint32_t glyph, double size, const std::string& text, Ink ink) {
    hb_font_t* font = shapingFont(id);
    const double scale = size / emUnits;
    hb_glyph_extents_t extents{};
    hb_font_get_glyph_extents(font, glyph, &extents);
    Box box;
    box.width = hb_font_get_glyph_h_advance(font, glyph) * scale;
    box.ascent = extents.y_bearing * scale;
    box.descent = -(extents.y_bearing + extents.height) * scale;
    // What has no table of corrections leans out of its own width by so much.
    const double leans = std::max(0, extents.x_bearing + extents.width - hb_font_get_glyph_h_advance(font, glyph));
    box.italic = (id == FontId::Math ? hb_ot_math_get_glyph_italics_correction(font, glyph) : leans) * scale;
    box.glyphs.push_back({id, size, glyph, 0, 0, text, ink});
    return box;
}

/// Letters and digits, Latin and Greek: what is cut otherwise in every typeface.
bool isLetterOrDigit(char32_t c) {
    return (c >= U'0' && c <= U'9') || (c >= U'A' && c <= U'Z') || (c >= U'a' && c <= U'z') ||
           (c >= U'\u00C0' && c <= U'\u024F') || (c >= U'\u0391' && c <= U'\u03F5');
}

} // namespace

Box mathGlyphBox(std::uint32_t glyph, double size, const std::string& text, Ink ink) {
    return glyphBox(FontId::Math, glyph, size, text, ink);
}

Box mathLetterBox(char32_t character, bool italic, Em size, const std::string& text, Ink ink) {
    if (size.face == Typeface::Sans && isLetterOrDigit(character)) {
        const FontId id = italic ? FontId::SansItalic : FontId::Sans;
        hb_codepoint_t glyph = 0;
        if (hb_font_get_nominal_glyph(shapingFont(id), character, &glyph)) return glyphBox(id, glyph, size, text, ink);
    }
    return mathGlyphBox(mathGlyph(character, italic), size, text, ink);
}

double accentMiddle(char32_t character) {
    hb_font_t* font = shapingFont(FontId::Math);
    const std::uint32_t glyph = mathGlyph(character, false);
    hb_glyph_extents_t extents{};
    hb_font_get_glyph_extents(font, glyph, &extents);
    // The font's own place, unless it has none: then the middle of what is seen.
    const hb_position_t attachment = hb_ot_math_get_glyph_top_accent_attachment(font, glyph);
    const double seen = extents.x_bearing + extents.width / 2.0;
    return (std::abs(attachment - seen) < extents.width ? attachment : seen) / emUnits;
}

Box grownGlyph(char32_t character, double height, double size, const std::string& text, Ink ink) {
    hb_font_t* font = shapingFont(FontId::Math);
    const std::uint32_t base = mathGlyph(character, false);
    const Box plain = mathGlyphBox(base, size, text, ink);
    if (plain.height() >= height) return plain;
    std::vector<hb_ot_math_glyph_variant_t> variants(32);
    unsigned count = 32;
    hb_ot_math_get_glyph_variants(font, base, HB_DIRECTION_BTT, 0, &count, variants.data());
    variants.resize(count);
    for (const auto& variant : variants) {
        if (variant.advance / emUnits * size >= height) return mathGlyphBox(variant.glyph, size, text, ink);
    }
    Box whole = assembled(base, height, size, text, ink);
    if (!whole.glyphs.empty()) return whole;
    return variants.empty() ? plain : mathGlyphBox(variants.back().glyph, size, text, ink);
}

Box centredOnAxis(Box box, double size) {
    const double axis = mathConstant(HB_OT_MATH_CONSTANT_AXIS_HEIGHT) * size;
    const double half = box.height() / 2;
    const double shift = box.ascent - (half + axis); // downwards
    for (auto& glyph : box.glyphs) glyph.y += shift;
    for (auto& rule : box.rules) rule.y += shift;
    box.ascent = half + axis;
    box.descent = half - axis;
    return box;
}

} // namespace coulter
