#pragma once
#include "typeset/box.h"

#include <memory>
#include <string>
#include <vector>

namespace coulter {

/// Classes of symbols; the space between two neighbours depends on theirs (D. E. Knuth, "The TeXbook", chapter 18).
enum class MathClass : std::uint8_t { Ordinary, Operator, Binary, Relation, Open, Close, Punctuation, Inner };

enum class MathKind : std::uint8_t {
    Row,      ///< children side by side
    Symbol,   ///< `text`, one character of the mathematical font; italic if `italic`
    Word,     ///< `text` upright in the text font: function names, units
    Fraction, ///< numerator, denominator
    Root,     ///< radicand, and the degree if there is a second child
    Script,   ///< base, subscript, superscript; null children where there is none
    Fenced,   ///< `open`, content, `close`, which grow with the content
    Large,    ///< ∑, ∏, ∫ in `text`; lower and upper limit, null where there is none
    Cases,    ///< children in pairs (value, condition), behind a brace
    Grid,     ///< children row by row, `columns` of them in each; null where there is none
    Accent,   ///< a child under the mark in `text`, a combining character
    Overline, ///< a child under a line
    Display,  ///< a child as on a line of its own
    Space,    ///< `width` in em
};

struct Math;
using MathPtr = std::shared_ptr<const Math>;

/// A piece of mathematics as it is to be printed.
struct Math {
    MathKind kind = MathKind::Row;
    MathClass mathClass = MathClass::Ordinary;
    std::string text;
    std::string open, close;
    bool italic = false;
    std::size_t columns = 0;  ///< of a grid
    bool leftAligned = false; ///< of a grid: columns are, else centred
    double width = 0;
    std::vector<MathPtr> children;
    Ink ink = Ink::Plain;
};

MathPtr mathRow(std::vector<MathPtr> children);
MathPtr mathSymbol(std::string text, MathClass mathClass = MathClass::Ordinary);
MathPtr mathItalic(std::string text); ///< one letter, slanted
MathPtr mathWord(std::string text, MathClass mathClass = MathClass::Ordinary, Ink ink = Ink::Plain);
MathPtr mathDigits(const std::string& digits, Ink ink = Ink::Plain); ///< "−1.5": digits, point and sign as one number
MathPtr mathFraction(MathPtr numerator, MathPtr denominator);
MathPtr mathRoot(MathPtr radicand, MathPtr degree = nullptr);
MathPtr mathScript(MathPtr base, MathPtr subscript, MathPtr superscript);
MathPtr mathFenced(std::string open, MathPtr content, std::string close);
MathPtr mathLarge(std::string symbol, MathPtr lower, MathPtr upper);
MathPtr mathSpace(double em);
MathPtr mathGrid(std::vector<std::vector<MathPtr>> rows, bool leftAligned);
MathPtr mathAccent(MathPtr base, char32_t mark); ///< a combining character, such as U+0302
MathPtr mathOverlined(MathPtr base);
MathPtr mathDisplayed(MathPtr content); ///< as on a line of its own: large fractions and operators

/// Lays mathematics out with the metrics of the OpenType MATH table of the mathematical font.
/// @param size     mm of one em
/// @param display  as on a line of its own: large fractions and operators; otherwise as within text
Box layoutMath(const Math& math, Em size, bool display = true);

} // namespace coulter
