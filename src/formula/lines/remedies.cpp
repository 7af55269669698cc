#include "formula/lines/remedies.h"

#include "formula/base/text.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"
#include "formula/page/line_parser.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

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
