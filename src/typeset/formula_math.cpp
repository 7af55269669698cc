#include "typeset/formula_math.h"

#include "formula/algebra/vector_calculus.h"
#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "typeset/formula_parts.h"

#include <algorithm>
#include <cmath>

namespace coulter {

MathPtr applicationMath(MathPtr name, MathPtr arguments) {
    auto fence = std::make_shared<Math>(*mathFenced("(", std::move(arguments), ")"));
    fence->text = "call";
    return mathRow({std::move(name), fence});
}

/// The numbers of a list one by one, each with the comma behind it.
std::vector<MathPtr> listTerms(const Expr& e) {
    std::vector<MathPtr> terms;
    const std::size_t last = e.operands.size() - 1;
    for (std::size_t i = 0; i <= last; ++i) {
        std::vector<MathPtr> term{formulaMath(*e.operands[i])};
        if (e.goesOn && i == last)
            term.insert(term.begin(), {mathSymbol("…"), mathSymbol(",", MathClass::Punctuation)});
        if (i < last) term.push_back(mathSymbol(",", MathClass::Punctuation));
        terms.push_back(mathRow(std::move(term)));
    }
    return terms;
}

namespace {

const Expr& withoutGroup(const Expr& e) { return e.kind == ExprKind::Group ? withoutGroup(*e.operands[0]) : e; }

/// Whether the printed form starts with a digit, so that a product before it needs its sign.
bool startsWithDigit(const Expr& e) {
    switch (e.kind) {
    case ExprKind::Number: return true;
    case ExprKind::Multiply:
    case ExprKind::Add:
    case ExprKind::Subtract:
    case ExprKind::Factorial: return startsWithDigit(*e.operands[0]);
    case ExprKind::Power: return !e.onFunction && startsWithDigit(*e.operands[0]);
    default: return false;
    }
}

/// Operands [from, to) of a function; the hypergeometric F(a, b; c; x) groups them by semicolons.
MathPtr listMath(const std::vector<ExprPtr>& list, std::size_t from, std::size_t to, const std::string& name = "") {
    std::vector<MathPtr> parts;
    for (std::size_t i = from; i < to; ++i) {
        const bool group = name == "F" && list.size() == 4 && i >= 2;
        if (i > from) parts.push_back(mathSymbol(group ? ";" : ",", MathClass::Punctuation));
        parts.push_back(formulaMath(*list[i]));
    }
    return mathRow(std::move(parts));
}

/// An index; that of the polygamma function ψ⁽ⁿ⁾ and of Jacobi polynomials stands in brackets.
MathPtr indexMath(const std::vector<ExprPtr>& list, std::size_t from, std::size_t to, const std::string& name) {
    MathPtr index = to - from == 1 ? formulaMath(withoutGroup(*list[from])) : listMath(list, from, to);
    return name == "P" && to - from == 2 ? mathFenced("(", index, ")") : index;
}

MathPtr functionName(const std::string& name) {
    if (name == "lnGamma") return mathRow({mathWord("ln", MathClass::Operator), mathSpace(0.17), mathSymbol("Γ")});
    const bool oneLetter = decodeUtf8(nameParts(name).letter).size() == 1;
    return oneLetter ? nameMath(name) : mathWord(name, MathClass::Operator);
}

MathPtr callMath(const Expr& e, MathPtr power) {
    const auto& operands = e.operands;
    if (isVectorCalculus(e.text))
        return mathRow({mathWord(e.text, MathClass::Operator), mathSpace(0.2), formulaMath(*operands[0])});
    if (!power && operands.size() == 1) {
        if (e.text == "sqrt") return mathRoot(formulaMath(withoutGroup(*operands[0])));
        if (e.text == "cbrt") return mathRoot(formulaMath(withoutGroup(*operands[0])), mathDigits("3"));
        if (e.text == "abs") return mathFenced("|", formulaMath(*operands[0]), "|");
        if (e.text == "floor") return mathFenced("⌊", formulaMath(*operands[0]), "⌋");
        if (e.text == "ceil") return mathFenced("⌈", formulaMath(*operands[0]), "⌉");
    }
    const auto below = static_cast<std::size_t>(e.below), above = static_cast<std::size_t>(e.above);
    std::string letters = e.text;
    int dashes = e.orders.size() == 1 ? e.orders[0] : 0;
    for (; letters.ends_with("'"); letters.pop_back()) ++dashes; // Ai' is an entry of its own
    MathPtr name = functionName(letters);
    std::vector<MathPtr> raised;
    if (dashes > 3) {
        raised.push_back(mathFenced("(", mathDigits(std::to_string(dashes)), ")"));
    } else if (dashes > 0) { // the character is raised in itself; it stands on the letter, before an index below
        const MathPtr dash = mathSymbol(dashes == 1 ? "′" : dashes == 2 ? "″" : "‴");
        if (name->kind == MathKind::Script && !name->children[2])
            name = mathScript(mathRow({name->children[0], dash}), name->children[1], nullptr);
        else
            name = mathRow({name, dash});
    }
    if (e.orders.size() > 1) {
        std::vector<MathPtr> orders;
        for (const int order : e.orders) {
            if (!orders.empty()) orders.push_back(mathSymbol(",", MathClass::Punctuation));
            orders.push_back(mathDigits(std::to_string(order)));
        }
        raised.push_back(mathFenced("(", mathRow(std::move(orders)), ")"));
    }
    if (above > 0) raised.push_back(indexMath(operands, below, below + above, letters));
    if (power) raised.push_back(power);
    MathPtr index = below > 0 ? indexMath(operands, 0, below, letters) : nullptr;
    MathPtr high = raised.empty() ? nullptr : raised.size() == 1 ? raised[0] : mathRow(std::move(raised));
    if (index || high) {
        // A name with an index of its own takes both on one letter.
        if (!index && name->kind == MathKind::Script && !name->children[2])
            name = mathScript(name->children[0], name->children[1], high);
        else
            name = mathScript(name, index, high);
    }
    return applicationMath(name, listMath(operands, below + above, operands.size(), letters));
}

MathPtr relationSign(const std::string& relation) {
    const char* sign = relation == "<=" ? "≤" : relation == ">=" ? "≥" : relation == "!=" ? "≠" : relation.c_str();
    return mathSymbol(sign, MathClass::Relation);
}

MathPtr compareMath(const Expr& e) {
    std::vector<MathPtr> parts{formulaMath(*e.operands[0])};
    for (std::size_t i = 0; i < e.relations.size(); ++i) {
        parts.push_back(relationSign(e.relations[i]));
        parts.push_back(formulaMath(*e.operands[i + 1]));
    }
    return mathRow(std::move(parts));
}

MathPtr joinedByWord(const Expr& e, const char* word) {
    return mathRow(
        {formulaMath(*e.operands[0]), mathSpace(0.3), mathWord(word), mathSpace(0.3), formulaMath(*e.operands[1])});
}

MathPtr piecesMath(const Expr& e) {
    auto cases = std::make_shared<Math>();
    cases->kind = MathKind::Cases;
    cases->mathClass = MathClass::Inner;
    for (std::size_t i = 0; i < e.operands.size(); i += 2) {
        cases->children.push_back(formulaMath(*e.operands[i]));
        if (i + 1 < e.operands.size())
            cases->children.push_back(mathRow({mathWord("for"), mathSpace(0.3), formulaMath(*e.operands[i + 1])}));
        else
            cases->children.push_back(mathWord("otherwise"));
    }
    return cases;
}

/// ((a, b), (c, d)): each row on one of its own.
MathPtr matrixMath(const Expr& e) {
    std::vector<std::vector<MathPtr>> rows;
    for (const ExprPtr& row : e.operands) {
        std::vector<MathPtr>& cells = rows.emplace_back();
        for (const ExprPtr& each : row->operands) cells.push_back(formulaMath(*each));
    }
    return mathFenced("(", mathGrid(std::move(rows), false), ")");
}

MathPtr seriesMath(const Expr& e) {
    MathPtr lower = mathRow({nameMath(e.text), mathSymbol("=", MathClass::Relation), formulaMath(*e.operands[0])});
    return mathRow({mathLarge(e.kind == ExprKind::Sum ? "∑" : "∏", lower, formulaMath(withoutGroup(*e.operands[1]))),
                    formulaMath(*e.operands[2])});
}

MathPtr integralMath(const Expr& e) {
    // A limit that is no single symbol needs its room, the dk a little space before it.
    MathPtr sign = e.principal ? mathRow({mathWord("p.v."), mathSpace(0.15)}) : mathRow({});
    return mathRow(
        {sign, mathLarge("∫", formulaMath(withoutGroup(*e.operands[0])), formulaMath(withoutGroup(*e.operands[1]))),
         mathSpace(0.1), formulaMath(*e.operands[2]), mathSpace(0.22), mathWord("d"), nameMath(e.text)});
}

MathPtr derivativeMath(const Expr& e) {
    const bool higher = e.number > 1;
    MathPtr order = higher ? mathDigits(std::to_string(static_cast<int>(e.number))) : nullptr;
    MathPtr above = higher ? mathScript(mathWord("d"), nullptr, order) : mathWord("d");
    MathPtr name = nameMath(e.text);
    if (higher)
        name = name->kind == MathKind::Script ? mathScript(name->children[0], name->children[1], order)
                                              : mathScript(name, nullptr, order);
    return mathRow({mathFraction(above, mathRow({mathWord("d"), name})), mathSpace(0.08),
                    mathFenced("(", formulaMath(*e.operands[0]), ")")});
}

MathPtr powerMath(const Expr& e) {
    const Expr& base = *e.operands[0];
    MathPtr exponent = formulaMath(withoutGroup(*e.operands[1]));
    if (e.onFunction) return callMath(base, exponent);
    // x_0^2 has both indices on one letter.
    MathPtr printed = formulaMath(base);
    if (printed->kind == MathKind::Script && !printed->children[2])
        return mathScript(printed->children[0], printed->children[1], exponent);
    return mathScript(printed, nullptr, exponent);
}

} // namespace

MathPtr nameMath(const std::string& canonical) {
    if (canonical == "π" || canonical == "e" || canonical == "∞") return mathSymbol(canonical);
    const NameParts parts = nameParts(canonical);
    MathPtr letter = mathItalic(parts.letter);
    if (parts.subscript.empty()) return letter;
    const std::string index = canonicalWord(parts.subscript);
    const std::u32string letters = decodeUtf8(index);
    MathPtr printed;
    if (letters.size() == 1 && isLetter(letters[0]))
        printed = mathItalic(index);
    else if (std::ranges::all_of(letters, isDigit))
        printed = mathDigits(index);
    else
        printed = mathWord(index);
    return mathScript(letter, printed, nullptr);
}

MathPtr valueMath(const std::string& digits, Ink ink) {
    if (digits == "inf") return mathSymbol("∞");
    if (digits == "-inf") return mathRow({mathSymbol("−"), mathSymbol("∞")});
    if (digits == "undefined") return mathWord("undefined", MathClass::Ordinary, ink);
    const auto e = digits.find_first_of("eE");
    if (e == std::string::npos) return mathDigits(digits, ink);
    std::string exponent = digits.substr(e + 1);
    if (exponent.starts_with("+")) exponent.erase(0, 1);
    const std::string mantissa = digits.substr(0, e);
    MathPtr power = mathScript(mathDigits("10", ink), nullptr, mathDigits(exponent, ink));
    if (mantissa == "1") return power;
    return mathRow({mathDigits(mantissa, ink), mathSpace(0.17), mathSymbol("×"), mathSpace(0.17), power});
}

MathPtr formulaMath(const Expr& e) {
    const auto operand = [&](std::size_t i) { return formulaMath(*e.operands[i]); };
    switch (e.kind) {
    case ExprKind::Number: return valueMath(e.text);
    case ExprKind::Name: return nameMath(e.text);
    case ExprKind::Call: return callMath(e, nullptr);
    case ExprKind::Group: return mathFenced("(", operand(0), ")");
    case ExprKind::Absolute: return mathFenced("|", operand(0), "|");
    case ExprKind::Negate: return mathRow({mathSymbol("−"), operand(0)});
    case ExprKind::Add: return mathRow({operand(0), mathSymbol("+", MathClass::Binary), operand(1)});
    case ExprKind::Subtract: return mathRow({operand(0), mathSymbol("−", MathClass::Binary), operand(1)});
    case ExprKind::Multiply: {
        const Expr& right = *e.operands[1];
        if (right.kind == ExprKind::Negate)
            return mathRow({operand(0), mathSymbol("·", MathClass::Binary), mathFenced("(", operand(1), ")")});
        if (startsWithDigit(right)) return mathRow({operand(0), mathSymbol("·", MathClass::Binary), operand(1)});
        return mathRow({operand(0), mathSpace(0.08), operand(1)});
    }
    case ExprKind::Divide:
        if (e.operands[0]->kind == ExprKind::Negate) { // the sign of a numerator stands before the fraction
            return mathRow({mathSymbol("−"), mathFraction(formulaMath(withoutGroup(*e.operands[0]->operands[0])),
                                                          formulaMath(withoutGroup(*e.operands[1])))});
        }
        return mathFraction(formulaMath(withoutGroup(*e.operands[0])), formulaMath(withoutGroup(*e.operands[1])));
    case ExprKind::Power: return powerMath(e);
    case ExprKind::Compare: return compareMath(e);
    case ExprKind::And: return joinedByWord(e, "and");
    case ExprKind::Or: return joinedByWord(e, "or");
    case ExprKind::Not: return mathRow({mathWord("not"), mathSpace(0.3), operand(0)});
    case ExprKind::Iverson: return mathFenced("[", operand(0), "]");
    case ExprKind::Pieces: return e.choosesRows ? operand(0) : piecesMath(e);
    case ExprKind::Sum:
    case ExprKind::Product: return seriesMath(e);
    case ExprKind::Integral: return integralMath(e);
    case ExprKind::Derivative: return derivativeMath(e);
    case ExprKind::Vector:
        if (e.operands[0]->kind == ExprKind::Vector) return matrixMath(e);
        return mathFenced("(", listMath(e.operands, 0, e.operands.size()), ")");
    case ExprKind::List: return mathFenced("{", mathRow(listTerms(e)), "}");
    case ExprKind::Factorial: return mathRow({operand(0), mathSymbol("!")});
    }
    return mathRow({});
}

MathPtr unitMath(const std::string& unit) {
    std::vector<MathPtr> parts;
    std::string word;
    const std::u32string text = decodeUtf8(unit);
    const auto flush = [&](MathPtr exponent) {
        if (word.empty()) return;
        MathPtr symbol = mathWord(word);
        parts.push_back(exponent ? mathScript(symbol, nullptr, exponent) : symbol);
        word.clear();
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char32_t c = text[i];
        const bool sign = (c == U'-' || c == U'−' || c == U'^' || c == U'+');
        if ((sign || isDigit(c)) && !word.empty()) {
            std::string digits;
            for (; i < text.size() &&
                   (isDigit(text[i]) || text[i] == U'-' || text[i] == U'−' || text[i] == U'^' || text[i] == U'+');
                 ++i) {
                if (text[i] == U'-' || text[i] == U'−')
                    digits += '-';
                else if (isDigit(text[i]))
                    digits += static_cast<char>(text[i]);
            }
            --i;
            flush(mathDigits(digits));
        } else if (c == U' ' || c == U'.' || c == U'*' || c == U'·') {
            flush(nullptr);
            if (!parts.empty()) parts.push_back(mathSpace(0.17));
        } else if (c == U'/') {
            flush(nullptr);
            parts.push_back(mathSymbol("/"));
        } else {
            word += encodeUtf8(std::u32string(1, c));
        }
    }
    flush(nullptr);
    return mathRow(std::move(parts));
}

} // namespace coulter
