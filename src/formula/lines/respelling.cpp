#include "formula/lines/respelling.h"

#include "formula/base/text.h"
#include "formula/notation/parser.h"

#include <algorithm>
#include <array>
#include <span>
#include <utility>

namespace coulter {
namespace {

using Word = std::pair<std::u32string_view, std::u32string_view>;

// Commands of TeX whose word is another one in the notation, or nothing at all; all others keep their word.
constexpr Word commands[] = {
    {U"cdot", U"*"},
    {U"times", U"*"},
    {U"ast", U"*"},
    {U"div", U"/"},
    {U"le", U"<="},
    {U"leq", U"<="},
    {U"ge", U">="},
    {U"geq", U">="},
    {U"ne", U"!="},
    {U"neq", U"!="},
    {U"lt", U"<"},
    {U"gt", U">"},
    {U"infty", U" inf "},
    {U"left", U""},
    {U"right", U""},
    {U"big", U""},
    {U"Big", U""},
    {U"bigl", U""},
    {U"bigr", U""},
    {U"quad", U" "},
    {U"qquad", U" "},
    {U"lvert", U"|"},
    {U"rvert", U"|"},
    {U"ldots", U"..."},
    {U"dots", U"..."},
    {U"limits", U""},
    {U"mathrm", U""},
    {U"operatorname", U""},
    {U"displaystyle", U""},
    {U"varphi", U" phi "},
    {U"vartheta", U" theta "},
    {U"varepsilon", U" epsilon "},
    {U"arcsinh", U" arsinh "},
    {U"lg", U" lg "},
    {U"log", U" ln "},
    {U"to", U" to "},
    {U"prime", U"'"},
};

/// Reads TeX's spelling from one place on; braces are groups.
class TeX {
public:
    explicit TeX(std::u32string_view text) : text_(text) {}

    std::u32string run() {
        std::u32string out;
        while (at_ < text_.size()) out += next();
        return out;
    }

private:
    /// In brackets, unless it is a single number or letter.
    static std::u32string bracketed(std::u32string part) {
        while (!part.empty() && isSpace(part.front())) part.erase(part.begin());
        while (!part.empty() && isSpace(part.back())) part.pop_back();
        const bool digits = std::ranges::all_of(part, isDigit);
        return digits || (part.size() == 1 && isLetter(part[0])) ? part : U"(" + part + U")";
    }

    /// What a pair of braces holds, or the next sign.
    std::u32string group() {
        while (at_ < text_.size() && isSpace(text_[at_])) ++at_;
        if (at_ == text_.size()) return {};
        if (text_[at_] != U'{') return next();
        ++at_;
        std::u32string inner;
        while (at_ < text_.size() && text_[at_] != U'}') inner += next();
        if (at_ < text_.size()) ++at_;
        return inner;
    }

    std::u32string next() {
        const char32_t c = text_[at_++];
        if (c == U'$') return {};
        if (c == U'{') { // braces within braces
            --at_;
            return U"{" + group() + U"}";
        }
        if (c != U'\\') return std::u32string(1, c);
        std::size_t end = at_;
        while (end < text_.size() && isLetter(text_[end]) && text_[end] < 0x80) ++end;
        if (end == at_) { // a single sign: spaces, and braces that are printed
            const char32_t sign = at_ < text_.size() ? text_[at_++] : U' ';
            return sign == U'{' || sign == U'}' || sign == U'|' || sign == U'%' ? std::u32string(1, sign) : U" ";
        }
        const std::u32string word(text_.substr(at_, end - at_));
        at_ = end;
        if (word == U"frac" || word == U"dfrac" || word == U"tfrac") {
            const std::u32string above = bracketed(group());
            return U"(" + above + U"/" + bracketed(group()) + U")";
        }
        if (word == U"sqrt") {
            std::u32string order;
            if (at_ < text_.size() && text_[at_] == U'[') {
                while (++at_ < text_.size() && text_[at_] != U']') order += text_[at_];
                if (at_ < text_.size()) ++at_;
            }
            const std::u32string under = group();
            return order.empty() ? U" sqrt(" + under + U")" : U"(" + under + U")^(1/(" + order + U"))";
        }
        const auto* known = std::ranges::find(commands, word, &Word::first);
        if (known != std::end(commands)) {
            const bool takesGroup = word == U"mathrm" || word == U"operatorname";
            return takesGroup ? group() : std::u32string(known->second);
        }
        return U" " + word + U" ";
    }

    std::u32string_view text_;
    std::size_t at_ = 0;
};

/// Without the spaces that TeX's words left behind, and without brackets round the whole.
std::u32string tidied(std::u32string_view text) {
    std::u32string out;
    for (const char32_t c : text) {
        const bool needless =
            c == U' ' && (out.empty() || out.back() == U' ' || out.back() == U'(' || out.back() == U'=');
        if (!needless || (!out.empty() && out.back() == U'=')) out += c;
        if (c == U')' && out.size() > 1 && out[out.size() - 2] == U' ') out.erase(out.size() - 2, 1);
    }
    while (!out.empty() && out.back() == U' ') out.pop_back();
    const std::size_t equals = out.find(U'=');
    std::size_t begin = equals == std::u32string::npos ? 0 : equals + 1;
    while (begin < out.size() && out[begin] == U' ') ++begin;
    int depth = 0;
    for (std::size_t i = begin; i < out.size(); ++i) {
        if (out[i] == U'(') ++depth;
        if (out[i] == U')' && --depth == 0 && i + 1 == out.size() && out[begin] == U'(')
            return out.substr(0, begin) + out.substr(begin + 1, i - begin - 1);
        if (depth == 0) break;
    }
    return out;
}

std::u32string_view spelledOut(char32_t c) {
    switch (c) {
    case U'½': return U"(1/2)";
    case U'⅓': return U"(1/3)";
    case U'⅔': return U"(2/3)";
    case U'¼': return U"(1/4)";
    case U'¾': return U"(3/4)";
    case U'∙':
    case U'•': return U"*";
    case U'ⁿ': return U"^n";
    case U'⁻': return U"^-";
    case U'’': return U"'";
    case U'–': return U"-";
    default: return {};
    }
}

std::u32string withoutSpecialSigns(std::u32string_view text) {
    std::u32string out;
    bool quoted = false, raised = false;
    for (const char32_t c : text) {
        if (c == U'"') quoted = !quoted;
        const auto plain = quoted ? std::u32string_view{} : spelledOut(c);
        // After a raised minus the digits are raised, too, and are written plainly behind its sign.
        static constexpr std::u32string_view digits = U"⁰¹²³⁴⁵⁶⁷⁸⁹";
        const auto digit = raised ? digits.find(c) : std::u32string_view::npos;
        raised = c == U'⁻' || digit != std::u32string_view::npos;
        if (digit != std::u32string_view::npos)
            out += static_cast<char32_t>(U'0' + digit);
        else if (plain.empty())
            out += c;
        else
            out += plain;
    }
    return out;
}

/// 0,5 x as 0.5 x: commas between digits where no bracket is open and no list can be meant.
std::u32string withDecimalPoints(std::u32string text) {
    const auto isDecimal = [&](std::size_t i) {
        return text[i] == U',' && i > 0 && i + 1 < text.size() && isDigit(text[i - 1]) && isDigit(text[i + 1]);
    };
    int depth = 0;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == U'"') return text;
        if (text[i] == U'(' || text[i] == U'{' || text[i] == U'[') ++depth;
        if (text[i] == U')' || text[i] == U'}' || text[i] == U']') --depth;
        if (depth == 0 && isDecimal(i)) text[i] = U'.';
    }
    return text;
}

/// Whether a usual variable stands among tokens: a bound of a region, and no end of an interval.
bool hasVariable(std::span<const Token> tokens) {
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        std::string name;
        if (readName(tokens.subspan(i), name) > 0 && isUsualVariable(name)) return true;
    }
    return false;
}

/// A single name, and nothing else, from one token to another.
bool isName(std::span<const Token> tokens) {
    std::string name;
    return !tokens.empty() && readName(tokens, name) == tokens.size();
}

/// The part of a text that some tokens were read from.
std::string partOf(std::u32string_view text, std::span<const Token> tokens) {
    const auto first = static_cast<std::size_t>(tokens.front().span.first - 1);
    return trimmed(text.substr(first, static_cast<std::size_t>(tokens.back().span.last) - first));
}

/// Intervals as they are said and printed elsewhere.
std::string intervalOf(const std::u32string& text) {
    // 0..10 is no number of the notation: it is looked for in the letters.
    const std::size_t dots = text.find(U".."), equals = text.find(U'=');
    if (dots != std::u32string::npos && equals < dots && text.find(U"...") == std::u32string::npos) {
        const std::string name = trimmed(std::u32string_view(text).substr(0, equals)),
                          low = trimmed(std::u32string_view(text).substr(equals + 1, dots - equals - 1)),
                          high = trimmed(std::u32string_view(text).substr(dots + 2));
        return low.empty() || high.empty() ? "" : name + " in [" + low + ", " + high + "]";
    }
    const LexResult lexed = tokenize(text, 0, text.size());
    if (!lexed.problems.empty()) return "";
    const std::span<const Token> tokens = std::span(lexed.tokens).first(lexed.tokens.size() - 1);
    std::vector<std::size_t> relations;
    std::size_t from = tokens.size(), to = tokens.size();
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (isSymbol(tokens[i], "<") || isSymbol(tokens[i], "<=")) relations.push_back(i);
        if (isSymbol(tokens[i], ",") || isSymbol(tokens[i], "=") || isSymbol(tokens[i], ">")) return "";
        if (tokens[i].kind == TokenKind::Word && tokens[i].text == "from" && from == tokens.size()) from = i;
        if (tokens[i].kind == TokenKind::Word && tokens[i].text == "to") to = i;
    }
    const auto part = [&](std::size_t begin, std::size_t end) {
        return partOf(text, tokens.subspan(begin, end - begin));
    };
    if (relations.size() == 2 && relations[0] > 0 && relations[1] + 1 < tokens.size() &&
        isName(tokens.subspan(relations[0] + 1, relations[1] - relations[0] - 1)) &&
        !hasVariable(tokens.first(relations[0])) && !hasVariable(tokens.subspan(relations[1] + 1)))
        return part(relations[0] + 1, relations[1]) + " in " + (isSymbol(tokens[relations[0]], "<") ? "(" : "[") +
               part(0, relations[0]) + ", " + part(relations[1] + 1, tokens.size()) +
               (isSymbol(tokens[relations[1]], "<") ? ")" : "]");
    if (relations.empty() && from < to && to + 1 < tokens.size() && from + 1 < to && isName(tokens.first(from)))
        return part(0, from) + " in [" + part(from + 1, to) + ", " + part(to + 1, tokens.size()) + "]";
    return "";
}

} // namespace

std::string respelled(const std::string& text) {
    if (text.find_first_not_of(" \t") == std::string::npos || text[text.find_first_not_of(" \t")] == '#') return text;
    std::u32string letters = decodeUtf8(text);
    if (letters.find(U'\\') != std::u32string::npos && letters.find(U'"') == std::u32string::npos)
        letters = tidied(TeX(letters).run());
    letters = withoutSpecialSigns(letters);
    if (const std::string plain = trimmed(letters); plain.starts_with("=") && plain.size() > 1)
        letters = decodeUtf8(plain.substr(1));
    letters = withDecimalPoints(std::move(letters));
    const std::string interval = intervalOf(letters);
    return !interval.empty() ? interval : letters == decodeUtf8(text) ? text : trimmed(letters);
}

} // namespace coulter
