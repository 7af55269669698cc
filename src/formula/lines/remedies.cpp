#include "formula/lines/remedies.h"

#include "formula/base/text.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"
#include "formula/page/line_parser.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <span>

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

/// The names of a page, and whatever else of a text can be one.
KnownNames looseNames(const Page& page, std::span<const Token> tokens) {
    KnownNames known = page.names;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        std::string name;
        if (readName(tokens.subspan(i), name) > 0 && !known.functions.contains(name) && std::isnan(constantValue(name)))
            known.values.insert(name);
    }
    return known;
}

/// The names in an expression that nothing on the page fixes.
std::vector<std::string> variablesIn(const Page& page, const Expr& expression) {
    std::vector<std::string> names, variables;
    collectNames(expression, names);
    for (const std::string& name : names) {
        const auto at = page.defined.find(name);
        const bool variable = at == page.defined.end() ? std::isnan(constantValue(name))
                                                       : page.lines[at->second].kind == LineKind::Variable;
        if (variable) variables.push_back(name);
    }
    return variables;
}

/// y(x) for y of a line “y = …”.
void nameVariables(const Line& line, const std::vector<std::string>& variables, Problem& problem) {
    std::string call = encodeUtf8(std::u32string_view(decodeUtf8(line.source))
                                      .substr(static_cast<std::size_t>(line.nameSpan.first - 1),
                                              static_cast<std::size_t>(line.nameSpan.last - line.nameSpan.first + 1))) +
                       "(";
    for (const std::string& name : variables) call += (call.ends_with("(") ? "" : ", ") + name;
    call += ")";
    problem.remedy = Remedy{line.nameSpan.first, line.nameSpan.last, call};
    problem.suggestion = "write " + call + " = … for a function";
}

/// A quantity whose formula cannot be read: what is wrong in it comes before what is not defined in it, and a variable
/// is meant where a usual letter of one stands.
void lookIntoFormula(const Page& page, const Line& line, Problem& problem) {
    const std::vector<Token> tokens = outlineLine(line.source).body;
    if (tokens.empty()) return;
    const ParsedExpression parsed = parseExpression(tokens, looseNames(page, tokens));
    if (!parsed.expression) {
        problem = parsed.problems.front();
        return;
    }
    const std::vector<std::string> variables = variablesIn(page, *parsed.expression);
    const bool usual = std::ranges::all_of(variables, isUsualVariable);
    if (usual && !variables.empty() && variables.size() <= 2) nameVariables(line, variables, problem);
}

/// Words that are no formula at all.
bool isProse(std::span<const Token> tokens) {
    return tokens.size() > 2 && std::ranges::all_of(tokens.first(tokens.size() - 1), [](const Token& token) {
               return token.kind == TokenKind::Word && decodeUtf8(token.text).size() > 1 && !isFunctionName(token.text);
           });
}

/// “cos(x)” as “f(x) = cos(x)”; what is wrong within it comes first.
std::optional<Remedy> asFunction(const Page& page, const Line& line, Problem& problem) {
    const std::u32string text = decodeUtf8(line.source);
    const LexResult lexed = tokenize(text, 0, text.size());
    if (!lexed.problems.empty()) return std::nullopt;
    if (isProse(lexed.tokens)) {
        problem = {-1, 1, static_cast<int>(text.size()), "These words are no formula.",
                   "begin the line with # for a remark"};
        problem.remedy = Remedy{1, 0, "# "};
        return problem.remedy;
    }
    const ParsedExpression parsed = parseExpression(lexed.tokens, looseNames(page, lexed.tokens));
    if (!parsed.expression) {
        problem = parsed.problems.front();
        return problem.remedy;
    }
    if (!parsed.expression || isCondition(*parsed.expression)) return std::nullopt;
    const std::vector<std::string> variables = variablesIn(page, *parsed.expression);
    if (variables.empty() || variables.size() > 2) return std::nullopt;
    std::string spelledNames;
    for (const std::string& name : variables) spelledNames += (spelledNames.empty() ? "" : ", ") + name;
    return Remedy{1, static_cast<int>(text.size()), freshName(page) + "(" + spelledNames + ") = " + encodeUtf8(text)};
}

} // namespace

void addRemedies(Page& page) {
    for (Line& line : page.lines) {
        if (line.problems.empty()) continue;
        Problem& problem = line.problems.front();
        if (line.kind == LineKind::Quantity && !line.body && problem.severity == Problem::Severity::Error) {
            lookIntoFormula(page, line, problem);
            continue;
        }
        if (problem.remedy) continue;
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
            nameVariables(line, free, problem);
        }
    }
}

} // namespace coulter
