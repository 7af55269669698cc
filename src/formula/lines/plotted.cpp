#include "formula/lines/plotted.h"

#include "formula/algebra/margin.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/lines/measured_lines.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

class PlottedReader {
public:
    PlottedReader(const Page& page, const std::string& text, std::size_t variables)
        : page_(page), text_(decodeUtf8(text)), wanted_(variables) {}

    Plotted run() {
        const LexResult lexed = tokenize(text_, 0, text_.size());
        if (!lexed.problems.empty()) {
            out_.problems = lexed.problems;
            return std::move(out_);
        }
        const std::span<const Token> tokens(lexed.tokens);
        int depth = 0; // pieces have a “for” of their own
        const auto found = std::ranges::find_if(tokens, [&](const Token& token) {
            if (isSymbol(token, "{") || isSymbol(token, "(")) ++depth;
            if (isSymbol(token, "}") || isSymbol(token, ")")) --depth;
            return depth == 0 && isWord(token, "for");
        });
        const auto split = static_cast<std::size_t>(found - tokens.begin());
        if (found != tokens.end() && !readCases(tokens.subspan(split + 1))) return std::move(out_);
        KnownNames known = page_.names;
        for (const std::string& name : out_.caseNames) known.values.insert(name);
        ParsedExpression parsed = parseExpression(tokens.first(split), known);
        if (!parsed.expression) {
            const ParsedExpression condition = parseExpression(tokens.first(split), known, Wanted::Condition);
            if (condition.expression) {
                out_.condition = condition.expression;
                out_.expression = marginOf(condition.expression);
                findVariables();
                return std::move(out_);
            }
            out_.problems = parsed.problems;
            // What is missing along a plot is a variable, and if something was measured along it, just as far.
            for (Problem& problem : out_.problems) {
                if (!problem.remedy || problem.remedy->first != 0) continue;
                const std::string name = problem.remedy->text.substr(0, problem.remedy->text.find(' '));
                const std::string extent = measuredExtent(page_, name);
                problem.remedy->text = name + " in " + (extent.empty() ? "[-5, 5]" : extent);
                problem.suggestion = "define it on a line of its own, such as " + problem.remedy->text;
            }
            return std::move(out_);
        }
        out_.expression = parsed.expression;
        findVariables();
        return std::move(out_);
    }

private:
    bool refuse(Span span, std::string sentence, std::string suggestion = "") {
        out_.problems.push_back({-1, span.first, span.last, std::move(sentence), std::move(suggestion)});
        out_.expression = nullptr;
        return false;
    }

    /// After “for”: a name, or names in brackets; “in”; the cases in braces.
    bool readCases(std::span<const Token> tokens) {
        std::size_t at = 0;
        const bool several = isSymbol(tokens[0], "(");
        if (several) ++at;
        for (;;) {
            std::string name;
            const std::size_t length = readName(tokens.subspan(at), name);
            if (length == 0) return refuse(tokens[at].span, "A name is missing after “for”.", "write for a in {1, 2}");
            out_.caseNames.push_back(name);
            at += length;
            if (!several || !isSymbol(tokens[at], ",")) break;
            ++at;
        }
        if (several && !isSymbol(tokens[at++], ")"))
            return refuse(tokens[at - 1].span, "The names after “for” need a closing bracket.");
        if (isWord(tokens[at], "in") && !several && isColumnOfCases(tokens.subspan(at + 1)))
            return readColumnOfCases(tokens.subspan(at + 1));
        if (!isWord(tokens[at], "in") || !isSymbol(tokens[std::min(at + 1, tokens.size() - 1)], "{")) {
            return refuse(tokens[at].span, "The list of cases is missing.",
                          "write for " + out_.caseNames[0] + " in {1, 2}");
        }
        const Token opened = tokens[at + 1];
        at += 2;
        while (!isSymbol(tokens[at], "}")) {
            if (tokens[at].kind == TokenKind::End) return refuse(opened.span, "This “{” is never closed.", "add “}”");
            if (!readCase(tokens, at, several)) return false;
            if (out_.cases.size() > mostCases) return refuse(opened.span, "One plot has at most 100 cases.");
        }
        if (out_.cases.empty())
            return refuse(opened.span, "The list of cases is empty.", "write at least one value in the braces");
        if (tokens[at + 1].kind != TokenKind::End)
            return refuse(tokens[at + 1].span, "Nothing can follow the list of cases.");
        return true;
    }

    /// Whether the cases are the numbers of a column or of a list that goes on by equal steps.
    bool isColumnOfCases(std::span<const Token> tokens) const {
        const bool goesOn = std::ranges::any_of(tokens, [](const Token& token) { return isSymbol(token, "..."); });
        if (isSymbol(tokens[0], "{") && !goesOn) return false;
        const ParsedExpression parsed = parseExpression(tokens, page_.names);
        return goesOn || (parsed.expression && coulter::isColumn(page_, parsed.expression));
    }

    bool readColumnOfCases(std::span<const Token> tokens) {
        const ParsedExpression parsed = parseExpression(tokens, page_.names);
        if (!parsed.expression) {
            out_.problems = parsed.problems;
            return false;
        }
        const ColumnAnswer found = columnsOf(page_, parsed.expression);
        if (found.columns.empty()) {
            out_.problems = found.problems;
            return false;
        }
        const Span place = parsed.expression->span;
        if (found.columns.size() > 1) return refuse(place, "Each case is one number here, and these are vectors.");
        if (found.columns[0]->size() > mostCases) return refuse(place, "One plot has at most 100 cases.");
        for (const double value : *found.columns[0]) {
            if (!std::isfinite(value)) return refuse(place, "One of these cases has no finite value.");
            out_.cases.push_back({value});
            // Ten digits say what a step of a list adds up to.
            out_.spelled.push_back({parseExpression(decodeUtf8(roundedNumber(value, 10)), page_.names).expression});
        }
        return true;
    }

    bool readCase(std::span<const Token> tokens, std::size_t& at, bool several) {
        std::vector<double> values;
        std::vector<ExprPtr> spelled;
        if (several) {
            if (!isSymbol(tokens[at], "("))
                return refuse(tokens[at].span, "Each case needs its values in brackets.", "write {(1, 2), (3, 4)}");
            ++at;
        }
        for (std::size_t k = 0; k < out_.caseNames.size(); ++k) {
            std::size_t end = at;
            int depth = 0;
            for (; tokens[end].kind != TokenKind::End; ++end) {
                if (depth == 0 &&
                    (isSymbol(tokens[end], ",") || isSymbol(tokens[end], "}") || isSymbol(tokens[end], ")")))
                    break;
                if (isSymbol(tokens[end], "(")) ++depth;
                if (isSymbol(tokens[end], ")")) --depth;
            }
            const ParsedExpression parsed = parseExpression(tokens.subspan(at, end - at), page_.names);
            if (!parsed.expression) {
                out_.problems = parsed.problems;
                return false;
            }
            const Compiled compiled = compile(page_, parsed.expression, {});
            if (!compiled.program) {
                out_.problems = compiled.problems;
                return false;
            }
            double value = 0;
            double* to = &value;
            Evaluator (*compiled.program)({}, std::span<double* const>(&to, 1), 1);
            if (!std::isfinite(value)) return refuse(parsed.expression->span, "This case has no finite value.");
            values.push_back(value);
            spelled.push_back(parsed.expression);
            at = end;
            if (k + 1 < out_.caseNames.size()) {
                if (!isSymbol(tokens[at], ","))
                    return refuse(tokens[at].span, "This case has fewer values than there are names.");
                ++at;
            }
        }
        if (several) {
            if (!isSymbol(tokens[at], ")"))
                return refuse(tokens[at].span, "This case has more values than there are names.");
            ++at;
        }
        out_.cases.push_back(std::move(values));
        out_.spelled.push_back(std::move(spelled));
        if (isSymbol(tokens[at], ",")) {
            ++at;
            if (isSymbol(tokens[at], "}")) return refuse(tokens[at].span, "A case is missing here.");
        } else if (!isSymbol(tokens[at], "}") && tokens[at].kind != TokenKind::End) {
            return refuse(tokens[at].span, "Cases are separated by commas.");
        }
        return true;
    }

    bool isCase(const std::string& name) const {
        return std::ranges::find(out_.caseNames, name) != out_.caseNames.end();
    }

    void findVariables() {
        std::vector<std::string> free = freeVariables(page_, out_.expression);
        std::erase_if(free, [&](const std::string& name) { return isCase(name); });
        if (coulter::isColumn(page_, out_.expression, out_.caseNames)) {
            out_.isColumn = true;
            if (free.empty()) return;
            refuse(out_.expression->span,
                   "This mixes a column with the variable " + free[0] + ": it cannot run along both.",
                   "write the column in place of " + free[0] + ", or draw the two one over the other");
            return;
        }
        const Span all{1, std::max(1, static_cast<int>(text_.size()))};
        if (free.size() > wanted_) {
            std::string list;
            for (const auto& name : free) list += (list.empty() ? "" : " and ") + name;
            refuse(all,
                   (wanted_ == 1 ? "A curve runs along one variable, this depends on "
                                 : "A field runs along two variables, this depends on ") +
                       list + ".",
                   "give one of them its cases: for " + free[0] + " in {…}");
            return;
        }
        const auto callPlace = [&](const std::string& name) {
            if (out_.expression->kind != ExprKind::Call) return std::size_t{0};
            const auto& operands = out_.expression->operands;
            return static_cast<std::size_t>(std::ranges::find_if(operands,
                                                                 [&](const ExprPtr& operand) {
                                                                     return operand->kind == ExprKind::Name &&
                                                                            operand->text == name;
                                                                 }) -
                                            operands.begin());
        };
        const auto linePlace = [&](const std::string& name) { return page_.defined.at(name); };
        std::ranges::sort(free, {},
                          [&](const std::string& name) { return std::pair(callPlace(name), linePlace(name)); });
        out_.variables = free;
        // What is constant along a variable runs along those of the page, if that is clear.
        for (const Line& line : page_.lines) {
            if (out_.variables.size() == wanted_) return;
            if (line.kind != LineKind::Variable || !line.good() || isCase(line.name)) continue;
            if (std::ranges::find(free, line.name) == free.end()) out_.variables.push_back(line.name);
        }
        if (out_.variables.size() == wanted_) return;
        if (wanted_ == 1)
            refuse(all, "The page has no variable to draw this along.", "add a line such as x in [0, 10]");
        else
            refuse(all, "A field runs along two variables, and the page has no second one.",
                   "add a line such as y in [0, 10]");
    }

    const Page& page_;
    std::u32string text_;
    std::size_t wanted_;
    Plotted out_;
};

} // namespace

Plotted readPlotted(const Page& page, const std::string& text, std::size_t variables) {
    return PlottedReader(page, text, variables).run();
}

} // namespace coulter
