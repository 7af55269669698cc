#include "typeset/words.h"

#include "formula/parser.h"
#include "formula/text.h"

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

std::string withValues(const Page& page, const std::string& text) {
    std::string out;
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
