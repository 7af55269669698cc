#include "typeset/math.h"

#include "formula/base/text.h"

#include <algorithm>
#include <iterator>

namespace coulter {
namespace {

std::shared_ptr<Math> node(MathKind kind, std::vector<MathPtr> children = {}) {
    auto math = std::make_shared<Math>();
    math->kind = kind;
    math->children = std::move(children);
    return math;
}

} // namespace

MathPtr mathRow(std::vector<MathPtr> children) { return node(MathKind::Row, std::move(children)); }

MathPtr mathSymbol(std::string text, MathClass mathClass) {
    auto math = node(MathKind::Symbol);
    math->text = std::move(text);
    math->mathClass = mathClass;
    return math;
}

MathPtr mathItalic(std::string text) {
    auto math = node(MathKind::Symbol);
    math->text = std::move(text);
    math->italic = true;
    return math;
}

MathPtr mathWord(std::string text, MathClass mathClass, Ink ink) {
    auto math = node(MathKind::Word);
    math->text = std::move(text);
    math->mathClass = mathClass;
    math->ink = ink;
    return math;
}

MathPtr mathDigits(const std::string& digits, Ink ink) {
    std::vector<MathPtr> parts;
    for (const char32_t c : decodeUtf8(digits)) {
        auto math = node(MathKind::Symbol);
        math->text = c == U'-' ? "−" : encodeUtf8(std::u32string(1, c));
        math->ink = ink;
        parts.push_back(math);
    }
    return mathRow(std::move(parts));
}

MathPtr mathFraction(MathPtr numerator, MathPtr denominator) {
    auto math = node(MathKind::Fraction, {std::move(numerator), std::move(denominator)});
    math->mathClass = MathClass::Inner;
    return math;
}

MathPtr mathRoot(MathPtr radicand, MathPtr degree) {
    return node(MathKind::Root, {std::move(radicand), std::move(degree)});
}

MathPtr mathScript(MathPtr base, MathPtr subscript, MathPtr superscript) {
    auto math = node(MathKind::Script, {base, std::move(subscript), std::move(superscript)});
    math->mathClass = base->mathClass;
    return math;
}

MathPtr mathFenced(std::string open, MathPtr content, std::string close) {
    auto math = node(MathKind::Fenced, {std::move(content)});
    math->open = std::move(open);
    math->close = std::move(close);
    math->mathClass = MathClass::Inner;
    return math;
}

MathPtr mathLarge(std::string symbol, MathPtr lower, MathPtr upper) {
    auto math = node(MathKind::Large, {std::move(lower), std::move(upper)});
    math->text = std::move(symbol);
    math->mathClass = MathClass::Operator;
    return math;
}

MathPtr mathSpace(double em) {
    auto math = node(MathKind::Space);
    math->width = em;
    return math;
}

MathPtr mathGrid(std::vector<std::vector<MathPtr>> rows, bool leftAligned) {
    auto math = node(MathKind::Grid);
    math->mathClass = MathClass::Inner;
    math->leftAligned = leftAligned;
    for (const auto& row : rows) math->columns = std::max(math->columns, row.size());
    for (auto& row : rows) {
        row.resize(math->columns);
        std::ranges::move(row, std::back_inserter(math->children));
    }
    return math;
}

MathPtr mathAccent(MathPtr base, char32_t mark) {
    auto math = node(MathKind::Accent, {std::move(base)});
    math->text = encodeUtf8(std::u32string(1, mark));
    return math;
}

MathPtr mathOverlined(MathPtr base) { return node(MathKind::Overline, {std::move(base)}); }

MathPtr mathDisplayed(MathPtr content) { return node(MathKind::Display, {std::move(content)}); }

} // namespace coulter
