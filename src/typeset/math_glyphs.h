#pragma once
#include "typeset/box.h"

#include <hb-ot.h>

namespace coulter {

/// A constant of the font's MATH table in parts of an em (or, for the two scale-downs, in percent).
double mathConstant(hb_ot_math_constant_t constant);

/// The glyph of a character of the mathematical font; `italic` takes the slanted letter of the same name.
std::uint32_t mathGlyph(char32_t character, bool italic);

/// One glyph of the mathematical font, with its true extents.
Box mathGlyphBox(std::uint32_t glyph, double size, const std::string& text, Ink ink);

/// A letter, digit or sign in a typeface, with its true extents: of what the text fonts of a sans face have, theirs;
/// all else is of the mathematical font.
Box mathLetterBox(char32_t character, bool italic, Em size, const std::string& text, Ink ink);

/// Where the middle of an accent's mark is to stand over what it accents, in em from its origin.
double accentMiddle(char32_t character);

/// A glyph grown to at least `height` mm: the font's next larger variant, or an assembly of its parts.
/// Its baseline is the glyph's own.
Box grownGlyph(char32_t character, double height, double size, const std::string& text, Ink ink);

/// The box shifted so that its vertical middle lies on the mathematical axis.
Box centredOnAxis(Box box, double size);

} // namespace coulter
