#pragma once
#include "typeset/em.h"
#include "typeset/font.h"

#include <string>
#include <vector>

namespace coulter {

/// What a part of a typeset line is for; painters choose its colour.
enum class Ink : std::uint8_t {
    Plain,
    Number, ///< can be changed by dragging
    Answer, ///< computed by the program
    Muted,  ///< said on the side: equation numbers, "where", ranges
};

/// One glyph, with its origin in mm from the box's origin; x to the right, y downwards.
struct PlacedGlyph {
    FontId font = FontId::Text;
    double size = 0; ///< mm of one em
    std::uint32_t glyph = 0;
    double x = 0;
    double y = 0;
    std::string text; ///< what is copied from the page for it; empty if an earlier glyph stands for it too
    Ink ink = Ink::Plain;
};

/// A filled rectangle: fraction bars, roots.
struct PlacedRule {
    double x = 0, y = 0, width = 0, height = 0; ///< y is the upper edge
    Ink ink = Ink::Plain;
};

/// A typeset piece. Its origin is the left end of its baseline.
struct Box {
    double width = 0;
    double ascent = 0;  ///< above the baseline, mm
    double descent = 0; ///< below the baseline, mm
    double italic = 0;  ///< overhang of a slanted last glyph, to be added before an upright superscript
    std::vector<PlacedGlyph> glyphs;
    std::vector<PlacedRule> rules;

    double height() const { return ascent + descent; }
    /// Adds another box's content with its origin at (x, y), without changing the size.
    void add(const Box& other, double x, double y);
    /// Puts another box to the right, baseline to baseline.
    void append(const Box& other);
    void space(double mm) { width += mm; }
};

/// Horizontal extent of all glyphs of one ink, relative to the box; zero width if there is none.
struct Extent {
    double left = 0, right = 0;
};
Extent extentOf(const Box& box, Ink ink);

/// Text in one font, shaped with its kerning and ligatures.
Box textBox(const std::string& utf8, FontId font, Em size, Ink ink = Ink::Plain);

} // namespace coulter
