#include "formula/notation/lexer.h"

#include "formula/base/text.h"

#include <charconv>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

/// The ASCII spelling of a character that has one; superscript digits are handled apart.
std::string_view normalised(char32_t c) {
    switch (c) {
    case U'−': return "-";
    case U'·':
    case U'⋅':
    case U'×': return "*";
    case U'÷':
    case U'∕': return "/";
    case U'≤': return "<=";
    case U'≥': return ">=";
    case U'≠': return "!=";
    case U'′': return "'";
    case U'°': return "°";
    case U'…': return "...";
    case U'∼': return "~";
    default: return {};
    }
}

std::string_view wordFor(char32_t c) {
    switch (c) {
    case U'∈': return "in";
    case U'∞': return "inf";
    case U'√': return "sqrt";
    case U'∑': return "sum";
    case U'∏': return "prod";
    case U'∫': return "int";
    default: return {};
    }
}

constexpr std::u32string_view superscripts = U"⁰¹²³⁴⁵⁶⁷⁸⁹";

class Lexer {
public:
    Lexer(std::u32string_view line, std::size_t begin) : line_(line), at_(begin) {}

    LexResult run() {
        while (at_ < line_.size() && result_.problems.empty()) {
            if (isSpace(line_[at_])) {
                space_ = true;
                ++at_;
                continue;
            }
            next();
        }
        add(TokenKind::End, at_, "");
        return std::move(result_);
    }

private:
    char32_t peek(std::size_t ahead = 0) const { return at_ + ahead < line_.size() ? line_[at_ + ahead] : U'\0'; }

    Token& add(TokenKind kind, std::size_t begin, std::string text) {
        Token token;
        token.kind = kind;
        token.span = {static_cast<int>(begin) + 1, std::max(static_cast<int>(at_), static_cast<int>(begin) + 1)};
        token.text = std::move(text);
        token.spaceBefore = space_;
        space_ = false;
        result_.tokens.push_back(std::move(token));
        return result_.tokens.back();
    }

    void next() {
        const char32_t c = peek();
        const std::size_t begin = at_;
        if (isDigit(c) || (c == U'.' && isDigit(peek(1)))) return number();
        if (isLetter(c)) {
            while (isLetter(peek())) ++at_;
            add(TokenKind::Word, begin, encodeUtf8(line_.substr(begin, at_ - begin)));
            return;
        }
        if (c == U'"') return string();
        if (c == U'.' && peek(1) == U'.' && peek(2) == U'.') {
            at_ += 3;
            add(TokenKind::Symbol, begin, "...");
            return;
        }
        ++at_;
        if (const auto word = wordFor(c); !word.empty()) {
            add(TokenKind::Word, begin, std::string(word));
            return;
        }
        if (const auto symbol = normalised(c); !symbol.empty()) {
            add(TokenKind::Symbol, begin, std::string(symbol));
            return;
        }
        if (superscripts.find(c) != std::u32string_view::npos) return superscript(begin);
        if (c < 0x80 &&
            std::string_view("+-*/^!|()[]{},;=<>'?_%~").find(static_cast<char>(c)) != std::string_view::npos) {
            std::string text(1, static_cast<char>(c));
            if ((c == U'<' || c == U'>' || (c == U'!' && !questionFollows())) && peek() == U'=') {
                ++at_;
                text += '=';
            }
            add(TokenKind::Symbol, begin, text);
            return;
        }
        Problem problem;
        problem.first = problem.last = static_cast<int>(begin) + 1;
        if (c == U':' && peek() == U'=') {
            problem.last = problem.first + 1;
            problem.sentence = "In print a definition is written “=”.";
            problem.suggestion = "write =";
            problem.remedy = Remedy{problem.first, problem.last, "=", true};
        } else if (c == U'\uFFFD') {
            problem.sentence = "This is not valid UTF-8 text.";
        } else {
            problem.sentence =
                "The character “" + encodeUtf8(line_.substr(begin, 1)) + "” has no meaning in a formula.";
            if (c == U':') problem.suggestion = "write “=” for a definition";
            if (c == U'\\' || c == U'$') problem.suggestion = "write Greek letters by name, without a sign before them";
        }
        result_.problems.push_back(problem);
    }

    /// In "5!=?" the sign is a factorial before the question, not "unequal".
    bool questionFollows() const {
        std::size_t ahead = 1;
        while (isSpace(peek(ahead))) ++ahead;
        return peek(ahead) == U'?';
    }

    void number() {
        const std::size_t begin = at_;
        while (isDigit(peek())) ++at_;
        if (peek() == U'.') {
            ++at_;
            while (isDigit(peek())) ++at_;
        }
        // An exponent needs digits behind it: in "2e" and "2e^x" the letter is Euler's number.
        if (peek() == U'e' || peek() == U'E') {
            const bool sign = peek(1) == U'-' || peek(1) == U'+' || peek(1) == U'−';
            if (isDigit(peek(sign ? 2 : 1))) {
                at_ += sign ? 2 : 1;
                while (isDigit(peek())) ++at_;
            }
        }
        std::string text;
        for (std::size_t i = begin; i < at_; ++i) text += line_[i] == U'−' ? '-' : static_cast<char>(line_[i]);
        double value = 0;
        std::string readable = text;
        if (const auto plus = readable.find('+'); plus != std::string::npos) readable.erase(plus, 1);
        const auto [end, error] = std::from_chars(readable.data(), readable.data() + readable.size(), value);
        if (error == std::errc::result_out_of_range) {
            // from_chars leaves the value alone here; too small is zero, too large is not a number of ours.
            const auto e = readable.find_first_of("eE");
            const bool small = e != std::string::npos && readable[e + 1] == '-';
            if (!small) {
                result_.problems.push_back({-1, static_cast<int>(begin) + 1, static_cast<int>(at_),
                                            "This number is larger than any that can be computed with (about 1.8e308).",
                                            ""});
                return;
            }
            value = 0;
        }
        (void)end;
        add(TokenKind::Number, begin, text).number = value;
        if (peek() == U'.') {
            result_.problems.push_back(
                {-1, static_cast<int>(at_) + 1, static_cast<int>(at_) + 1, "A number has one decimal point.", ""});
        }
    }

    void string() {
        const std::size_t begin = at_++;
        while (at_ < line_.size() && line_[at_] != U'"') ++at_;
        if (at_ == line_.size()) {
            result_.problems.push_back({-1, static_cast<int>(begin) + 1, static_cast<int>(at_),
                                        "This text has no closing quotation mark.", "add \" at its end"});
            return;
        }
        ++at_;
        add(TokenKind::String, begin, encodeUtf8(line_.substr(begin + 1, at_ - begin - 2)));
    }

    /// x² is x^2.
    void superscript(std::size_t begin) {
        std::string digits;
        at_ = begin;
        while (at_ < line_.size()) {
            const auto digit = superscripts.find(line_[at_]);
            if (digit == std::u32string_view::npos) break;
            digits += static_cast<char>('0' + digit);
            ++at_;
        }
        add(TokenKind::Symbol, begin, "^");
        double value = 0;
        std::from_chars(digits.data(), digits.data() + digits.size(), value);
        add(TokenKind::Number, begin, digits).number = value;
    }

    std::u32string_view line_;
    std::size_t at_;
    bool space_ = false;
    LexResult result_;
};

} // namespace

LexResult tokenize(std::u32string_view line, std::size_t begin, std::size_t end) {
    return Lexer(line.substr(0, end), begin).run();
}

} // namespace coulter
