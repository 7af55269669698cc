// Words with formulas between $, typeset. See formula_math.h.
#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "typeset/formula_math.h"

#include <algorithm>

namespace coulter {
namespace {

constexpr std::u32string_view raisedCharacters = U"⁻⁰¹²³⁴⁵⁶⁷⁸⁹", plainCharacters = U"−0123456789";

/// Text with raised digits set as such: few text fonts have all of them.
Box raisedTextBox(const std::string& text, FontId font, Em size) {
    Box line = textBox("", font, size);
    const std::u32string letters = decodeUtf8(text);
    for (std::size_t at = 0; at < letters.size();) {
        const bool raised = raisedCharacters.find(letters[at]) != std::u32string_view::npos;
        std::u32string run;
        const std::size_t start = at;
        for (; at < letters.size() && (raisedCharacters.find(letters[at]) != std::u32string_view::npos) == raised;
             ++at) {
            run += raised ? plainCharacters[raisedCharacters.find(letters[at])] : letters[at];
        }
        if (!raised) {
            line.append(textBox(encodeUtf8(run), font, size));
            continue;
        }
        Box small = textBox(encodeUtf8(run), font, 0.7 * size);
        for (std::size_t i = 0; i < small.glyphs.size(); ++i)
            small.glyphs[i].text = encodeUtf8(std::u32string_view(letters).substr(start + i, 1));
        line.add(small, line.width, -0.35 * size);
        line.width += small.width;
        line.ascent = std::max(line.ascent, small.ascent + 0.35 * size);
    }
    return line;
}

} // namespace

namespace {

/// A formula within words; null if it cannot be read in the notation. Every name may stand for itself, defined or not.
MathPtr inNotation(const std::string& formula, const KnownNames& names) {
    const std::u32string letters = decodeUtf8(formula);
    const LexResult lexed = tokenize(letters, 0, letters.size());
    KnownNames all = names;
    for (std::size_t i = 0; i < lexed.tokens.size(); ++i) {
        std::string name;
        const std::size_t length = readName(std::span(lexed.tokens).subspan(i), name);
        if (length == 0) continue;
        const bool called = lexed.tokens[i + length].text == "(";
        if (!called) all.functions.erase(name);
        if (!all.functions.contains(name)) all.values.insert(name);
    }
    if (!lexed.problems.empty()) return nullptr;
    const auto parsed = parseExpression(lexed.tokens, all);
    return parsed.expression ? formulaMath(*parsed.expression) : nullptr;
}

} // namespace

Box labelBox(const std::string& text, FontId font, Em size, const KnownNames& names) {
    Box line = textBox("", font, size);
    std::size_t at = 0;
    bool formula = false;
    while (at <= text.size()) {
        const std::size_t end = std::min(text.find('$', at), text.size());
        const std::string part = text.substr(at, end - at);
        MathPtr math;
        if (formula && !part.empty()) math = wordsMath(part, names).math;
        line.append(math ? layoutMath(*math, size, false) : raisedTextBox(part, font, size));
        formula = !formula;
        at = end + 1;
    }
    return line;
}

TexRead wordsMath(const std::string& formula, const KnownNames& names) {
    const bool isTex = formula.find('\\') != std::string::npos;
    if (!isTex || names.onlyNotation) {
        if (MathPtr math = inNotation(formula, names)) return {std::move(math), {}};
    }
    return names.onlyNotation ? TexRead{} : readTex(formula);
}

std::optional<Problem> wordsProblem(const std::string& text, const KnownNames& names) {
    std::size_t at = 0;
    bool formula = false;
    while (at <= text.size()) {
        const std::size_t end = std::min(text.find('$', at), text.size());
        if (formula && end > at && !names.onlyNotation) {
            TexRead read = wordsMath(text.substr(at, end - at), names);
            if (!read.math) {
                const int before = static_cast<int>(decodeUtf8(std::string_view(text).substr(0, at)).size());
                read.problem.first += before;
                read.problem.last += before;
                return read.problem;
            }
        }
        if (formula && end == text.size() && !names.onlyNotation) {
            Problem open;
            open.first = open.last = static_cast<int>(decodeUtf8(std::string_view(text).substr(0, at)).size());
            open.sentence = "A formula begins here and does not end.";
            open.suggestion = "add a second $";
            return open;
        }
        formula = !formula;
        at = end + 1;
    }
    return std::nullopt;
}

} // namespace coulter
