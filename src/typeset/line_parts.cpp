#include "typeset/line_parts.h"

#include "typeset/formula_parts.h"

namespace coulter {

MathPtr namesMath(const Line& line) {
    std::vector<MathPtr> names;
    for (const std::string& name : line.unknowns) {
        if (!names.empty()) names.push_back(mathSymbol(",", MathClass::Punctuation));
        names.push_back(nameMath(name));
    }
    return line.unknowns.size() > 1 ? mathFenced("(", mathRow(names), ")") : mathRow(names);
}

void appendWord(std::vector<MathPtr>& parts, const std::string& word) {
    parts.push_back(mathSpace(0.3));
    parts.push_back(mathWord(word, MathClass::Ordinary, Ink::Muted));
    parts.push_back(mathSpace(0.3));
}

} // namespace coulter
