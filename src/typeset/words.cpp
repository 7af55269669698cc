#include "typeset/words.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/notation/parser.h"

#include <charconv>
#include <optional>

namespace coulter {

std::string printedUnit(const std::string& unit) {
    static constexpr std::u32string_view raised = U"⁰¹²³⁴⁵⁶⁷⁸⁹";
    std::u32string out;
    const std::u32string text = decodeUtf8(unit);
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char32_t c = text[i];
        const bool afterLetter = !out.empty() && out.back() != U' ' && out.back() != U'/';
        if (c == U'^') continue;
        if ((c == U'-' || c == U'−') && afterLetter)
            out.push_back(U'⁻');
        else if (isDigit(c) && afterLetter)
            out.push_back(raised[c - U'0']);
        else if (c == U'.' || c == U'*')
            out.push_back(U' ');
        else
            out.push_back(c);
    }
    return encodeUtf8(out);
}

namespace {

/// A value of the page within words.
struct Shown {
    std::string digits, unit;
};

std::string unitOf(const Page& page, const ExprPtr& expression) {
    const bool named = expression->kind == ExprKind::Name || expression->kind == ExprKind::Call;
    const Line* line = named ? page.find(expression->text,
                                         expression->kind == ExprKind::Name ? LineKind::Quantity : LineKind::Function)
                             : nullptr;
    return line && line->unit != "1" ? line->unit : "";
}

/// Of "r_0", "f(r_0)", "r_0:3": with so many digits at most. None if it is no number of the page.
std::optional<Shown> shownValue(const Page& page, std::string inner) {
    int digits = 6;
    if (const auto colon = inner.rfind(':'); colon != std::string::npos && colon + 1 < inner.size()) {
        const std::string_view wanted = std::string_view(inner).substr(colon + 1);
        const auto [end, error] = std::from_chars(wanted.data(), wanted.data() + wanted.size(), digits);
        if (error != std::errc{} || end != wanted.data() + wanted.size() || digits < 1 || digits > 17)
            return std::nullopt;
        inner.resize(colon);
    }
    const std::u32string letters = decodeUtf8(inner);
    const LexResult lexed = tokenize(letters, 0, letters.size());
    if (!lexed.problems.empty() || lexed.tokens.size() < 2) return std::nullopt;
    const auto parsed = parseExpression(lexed.tokens, page.names);
    if (!parsed.expression || parsed.expression->kind == ExprKind::Number) return std::nullopt;
    const ColumnAnswer found = columnsOf(page, parsed.expression);
    if (found.columns.size() != 1 || found.columns[0]->size() != 1) return std::nullopt;
    return Shown{roundedNumber((*found.columns[0])[0], digits), unitOf(page, parsed.expression)};
}

/// Whether braces within a formula can be a value: not those of an index, nor of a command's argument.
bool standsAlone(const std::string& text, std::size_t at) {
    if (at == 0) return true;
    const char before = text[at - 1];
    const bool letter = (before >= 'a' && before <= 'z') || (before >= 'A' && before <= 'Z');
    return !letter && before != '_' && before != '^' && before != '}' && before != ']' && before != '\\';
}

std::string valuesEverywhere(const Page& page, const std::string& text) {
    std::string out;
    bool formula = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '$') formula = !formula;
        const auto end = text[i] == '{' && (!formula || standsAlone(text, i)) ? text.find('}', i) : std::string::npos;
        const auto shown = end == std::string::npos ? std::nullopt : shownValue(page, text.substr(i + 1, end - i - 1));
        if (!shown) {
            out += text[i];
            continue;
        }
        i = end;
        out += formula ? shown->digits : "$" + shown->digits + "$";
        // A unit follows the number; within a formula only where the number is its end.
        if (shown->unit.empty() || (formula && text.compare(i + 1, 1, "$") != 0)) continue;
        if (formula) {
            out += text[++i];
            formula = false;
        }
        out += "\u2009" + printedUnit(shown->unit);
    }
    return out;
}

} // namespace

std::string withValues(const Page& page, const std::string& text) {
    if (!page.names.onlyNotation) return valuesEverywhere(page, text);
    std::string out; // the first formats knew names alone, outside of formulas
    bool formula = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '$') formula = !formula;
        const auto end = text[i] == '{' && !formula ? text.find('}', i) : std::string::npos;
        if (end == std::string::npos) {
            out += text[i];
            continue;
        }
        const std::u32string inner = decodeUtf8(std::string_view(text).substr(i + 1, end - i - 1));
        const LexResult lexed = tokenize(inner, 0, inner.size());
        std::string name;
        const std::size_t length = readName(lexed.tokens, name);
        const Line* line =
            length > 0 && length + 1 == lexed.tokens.size() ? page.find(name, LineKind::Quantity) : nullptr;
        if (!line || !line->value) {
            out += text[i];
            continue;
        }
        out += "$" + roundedNumber(*line->value, 6) + "$";
        if (!line->unit.empty() && line->unit != "1") out += "\u2009" + printedUnit(line->unit);
        i = end;
    }
    return out;
}

} // namespace coulter
