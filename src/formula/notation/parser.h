#pragma once
#include "formula/base/problem.h"
#include "formula/notation/expr.h"
#include "formula/notation/lexer.h"
#include "formula/notation/names.h"

#include <optional>
#include <span>
#include <string_view>

namespace coulter {

/// Result of reading one expression. `expression` is null exactly when `problems` has an error.
struct ParsedExpression {
    ExprPtr expression;
    Problems problems; ///< at most one error, and notes where the spelling is easily misread
};

/// What an expression is read for: most are numbers (or vectors), a few are conditions.
enum class Wanted { Number, Condition };

/// Reads tokens (without the End token, or up to it) as one expression in the notation.
/// Nesting is bounded; a deeper one is a problem, never a crash.
ParsedExpression parseExpression(std::span<const Token> tokens, const KnownNames& known,
                                 Wanted wanted = Wanted::Number);

/// Reads text that stands alone, such as `sin(2)`; places count within the text.
ParsedExpression parseExpression(std::u32string_view text, const KnownNames& known, Wanted wanted = Wanted::Number);

/// Reads a name (letter and optional subscript) from the front of `tokens`; returns how many tokens it took, 0 if
/// there is no name. `canonical` is set to its canonical spelling.
std::size_t readName(std::span<const Token> tokens, std::string& canonical);

/// The canonical spelling of one word: Greek letters by character, everything else as it is.
std::string canonicalWord(const std::string& word);

/// Whether a word may stand as a name's letter: one Latin letter, or a Greek letter by character or name.
bool isNameLetter(const std::string& word);

} // namespace coulter
