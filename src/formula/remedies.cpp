#include "formula/remedies.h"

#include "formula/expr_build.h"
#include "formula/lexer.h"
#include "formula/line_parser.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

constexpr std::pair<std::string_view, std::string_view> spellings[] = {
    {"asin", "arcsin"},    {"acos", "arccos"},    {"atan", "arctan"},  {"acot", "arccot"},  {"asec", "arcsec"},
    {"acsc", "arccsc"},    {"asinh", "arsinh"},   {"acosh", "arcosh"}, {"atanh", "artanh"}, {"arcsinh", "arsinh"},
    {"arccosh", "arcosh"}, {"arctanh", "artanh"}, {"tg", "tan"},       {"ctg", "cot"},      {"sh", "sinh"},
    {"ch", "cosh"},        {"th", "tanh"},        {"sign", "sgn"},     {"signum", "sgn"},   {"ceiling", "ceil"},
    {"fabs", "abs"},       {"loge", "ln"},        {"root", "sqrt"},    {"average", "mean"}, {"stdev", "sd"},
    {"std", "sd"},
};

/// The name of a Greek letter, since people say “gamma function”; any other word as it is.
std::string_view spoken(std::string_view name) {
    const std::u32string letters = decodeUtf8(name);
    return letters.size() == 1 && !greekName(letters[0]).empty() ? greekName(letters[0]) : name;
}

/// Names in an expression that may be variables: single letters that the page does not define otherwise.
void collectNames(const Expr& e, std::vector<std::string>& names) {
    if (e.kind == ExprKind::Name && std::ranges::find(names, e.text) == names.end()) names.push_back(e.text);
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::vector<std::string> inner;
        collectNames(*e.operands[i], inner);
        for (const std::string& name : inner) {
            if (bindsName(e.kind) && i == 2 && name == e.text) continue;
            if (std::ranges::find(names, name) == names.end()) names.push_back(name);
        }
    }
}

/// A name for a function that the page has no use for yet.
std::string freshName(const Page& page) {
    for (const char* name : {"f", "g", "h", "u", "v", "w", "p", "q"}) {
        if (!page.defined.contains(name)) return name;
    }
    int i = 1;
    while (page.defined.contains("f_" + std::to_string(i))) ++i;
    return "f_" + std::to_string(i);
}

/// “cos(x)” as “f(x) = cos(x)”; what is wrong within it comes first.
std::optional<Remedy> asFunction(const Page& page, const Line& line, Problem& problem) {
    const std::u32string text = decodeUtf8(line.source);
    const LexResult lexed = tokenize(text, 0, text.size());
    if (!lexed.problems.empty()) return std::nullopt;
    KnownNames known = page.names;
    for (std::size_t i = 0; i < lexed.tokens.size(); ++i) {
        std::string name;
        if (readName(std::span(lexed.tokens).subspan(i), name) > 0 && !known.functions.contains(name) &&
            std::isnan(constantValue(name)))
            known.values.insert(name);
    }
    const ParsedExpression parsed = parseExpression(lexed.tokens, known);
    if (!parsed.expression && parsed.problems.front().remedy) {
        problem = parsed.problems.front();
        return problem.remedy;
    }
    if (!parsed.expression || isCondition(*parsed.expression)) return std::nullopt;
    std::vector<std::string> names, variables;
    collectNames(*parsed.expression, names);
    for (const std::string& name : names) {
        const auto at = page.defined.find(name);
        const bool variable = at == page.defined.end() ? std::isnan(constantValue(name))
                                                       : page.lines[at->second].kind == LineKind::Variable;
        if (variable) variables.push_back(name);
    }
    if (variables.empty() || variables.size() > 2) return std::nullopt;
    std::string spelledNames;
    for (const std::string& name : variables) spelledNames += (spelledNames.empty() ? "" : ", ") + name;
    return Remedy{1, static_cast<int>(text.size()), freshName(page) + "(" + spelledNames + ") = " + encodeUtf8(text)};
}

} // namespace

std::optional<std::string_view> printedSpelling(std::string_view word) {
    for (const auto& [foreign, printed] : spellings) {
        if (word == foreign) return printed;
    }
    return std::nullopt;
}

std::string formsAbout(std::string_view unknown) {
    std::string_view word = spoken(unknown);
    std::vector<const FunctionEntry*> found;
    constexpr std::size_t shortest = 4, most = 4;
    for (int cut = 0; cut <= 2 && word.size() >= shortest && found.empty(); ++cut, word.remove_suffix(1))
        found = functionsAbout(word);
    std::string forms;
    for (std::size_t i = 0; i < std::min(found.size(), most); ++i)
        forms += (forms.empty() ? "" : ", ") + std::string(found[i]->form);
    return forms;
}

std::string formsAbout(const FunctionEntry& function, std::size_t arguments) {
    std::string forms(function.form);
    for (const FunctionEntry* other : functionsAbout(spoken(function.name))) {
        if (other->below.empty() && other->above.empty() && other->inside.size() == arguments)
            forms += ", or " + std::string(other->form);
    }
    return forms;
}

void addRemedies(Page& page) {
    for (Line& line : page.lines) {
        if (line.problems.empty() || line.problems.front().remedy) continue;
        Problem& problem = line.problems.front();
        if (line.kind == LineKind::Unread && line.name.empty() && problem.sentence == definesNothing) {
            Problem within;
            problem.remedy = asFunction(page, line, within);
            if (!within.sentence.empty())
                problem = within;
            else if (problem.remedy)
                problem.suggestion = "write " + problem.remedy->text;
        } else if (line.kind == LineKind::Quantity && line.body) {
            const std::vector<std::string> free = freeVariables(page, line.body);
            if (free.empty() || free.size() > 2) continue;
            std::string call =
                encodeUtf8(std::u32string_view(decodeUtf8(line.source))
                               .substr(static_cast<std::size_t>(line.nameSpan.first - 1),
                                       static_cast<std::size_t>(line.nameSpan.last - line.nameSpan.first + 1))) +
                "(";
            for (const std::string& name : free) call += (call.ends_with("(") ? "" : ", ") + name;
            call += ")";
            problem.remedy = Remedy{line.nameSpan.first, line.nameSpan.last, call};
            problem.suggestion = "write " + call + " = … for a function";
        }
    }
}

} // namespace coulter
