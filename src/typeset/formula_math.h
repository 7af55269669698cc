#pragma once
#include "formula/notation/names.h"
#include "formula/page/line.h"
#include "typeset/math.h"
#include "typeset/tex_math.h"

#include <optional>

namespace coulter {

/// A formula as it is printed: fractions built up, roots drawn, variables slanted, constants and function names upright
/// (ISO 80000-2).
MathPtr formulaMath(const Expr& expression);

/// A canonical name with its index: T with subscript m.
MathPtr nameMath(const std::string& canonical);

/// A unit in upright letters with raised exponents: "kg m-3" → kg m⁻³.
MathPtr unitMath(const std::string& unit);

/// A value as in print: "−1.5", or "1.2 × 10⁻⁷".
MathPtr valueMath(const std::string& digits, Ink ink = Ink::Plain);

/// A whole line of a page. Scrubbable numbers have Ink::Number, answers Ink::Answer. Null for prose and unread lines.
MathPtr lineMath(const Line& line);

/// The same in parts between which a long line may be broken: the definition with the first term of its sum, then each
/// further term with its sign. One part where the formula is no sum.
std::vector<MathPtr> lineTerms(const Line& line);

/// A formula within words: in the notation of the page, or in TeX's spelling where a backslash stands in it or the
/// notation has no such thing, as "x =".
TexRead wordsMath(const std::string& formula, const KnownNames& names);

/// What of some words cannot be typeset, and why; its place counts the characters of the words.
std::optional<Problem> wordsProblem(const std::string& text, const KnownNames& names);

/// Text in which parts between two $ are formulas: "Depth $z$ below ground". What cannot be read stays as it is.
/// @param names  of the page, so that f(x) in a text is read as there
Box labelBox(const std::string& text, FontId font, Em size, const KnownNames& names);

} // namespace coulter
