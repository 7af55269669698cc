#pragma once
#include "formula/base/problem.h"
#include "formula/notation/expr.h"

#include <string>
#include <string_view>
#include <vector>

namespace coulter {

enum class TokenKind { Number, Word, String, Symbol, End };

/// One token of a line. Symbols are normalised: '−' is "-", '·' and '×' are "*", '≤' is "<=", '∈' is the word "in".
struct Token {
    TokenKind kind = TokenKind::End;
    Span span;
    std::string text; ///< number as spelled, word as spelled, string without quotes, symbol
    double number = 0;
    bool spaceBefore = false;
};

inline bool isSymbol(const Token& token, std::string_view text) {
    return token.kind == TokenKind::Symbol && token.text == text;
}
inline bool isWord(const Token& token, std::string_view text) {
    return token.kind == TokenKind::Word && token.text == text;
}

/// Splits characters [begin, end) of a line into tokens, the last of which is End. Spans count from the start of the
/// line. Stops at the first character that has no meaning in the notation and reports it.
struct LexResult {
    std::vector<Token> tokens;
    Problems problems;
};
LexResult tokenize(std::u32string_view line, std::size_t begin, std::size_t end);

} // namespace coulter
