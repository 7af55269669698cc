#include "formula/lines/typed_line.h"

#include "formula/base/text.h"
#include "formula/lines/converted_units.h"
#include "formula/lines/respelling.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"
#include "formula/page/line_parser.h"
#include "formula/page/line_phrases.h"
#include "special/catalogue.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <optional>
#include <set>
#include <span>

namespace coulter {
namespace {

constexpr int mostRespellings = 12;

/// A canonical name as a page spells it: "x_{max}".
/// A text with its tokens, of which parts can be cut out.
struct Text {
    std::u32string letters;
    std::vector<Token> tokens; ///< without the End token; empty where the text cannot be split into any

    explicit Text(const std::string& text) : letters(decodeUtf8(text)) {
        LexResult lexed = tokenize(letters, 0, letters.size());
        if (!lexed.problems.empty()) return;
        lexed.tokens.pop_back();
        tokens = std::move(lexed.tokens);
    }
    std::string part(std::size_t begin, std::size_t end) const {
        if (begin >= end) return "";
        const auto first = static_cast<std::size_t>(tokens[begin].span.first - 1);
        return encodeUtf8(
            std::u32string_view(letters).substr(first, static_cast<std::size_t>(tokens[end - 1].span.last) - first));
    }
    /// Where a symbol stands outside of all brackets, from a place on; the number of tokens if nowhere.
    std::size_t outside(std::string_view symbol, std::size_t begin = 0) const {
        int depth = 0;
        for (std::size_t i = begin; i < tokens.size(); ++i) {
            depth += deeper(tokens[i]);
            if (depth == 0 && tokens[i].text == symbol && tokens[i].kind != TokenKind::String) return i;
        }
        return tokens.size();
    }
};

/// Names in an expression, without those that run inside of it; those of page functions' variables, too.
void collectNames(const Page& page, const Expr& e, const std::set<std::string>& bound,
                  std::vector<std::string>& names) {
    const auto add = [&](const std::string& name) {
        if (std::ranges::find(names, name) == names.end()) names.push_back(name);
    };
    if (e.kind == ExprKind::Name && !bound.contains(e.text)) add(e.text);
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if ((bindsName(e.kind) && i == 2) || e.kind == ExprKind::Derivative) inner.insert(e.text);
        collectNames(page, *e.operands[i], inner, names);
    }
    if (e.kind != ExprKind::Call) return;
    const Line* function = page.find(e.text, LineKind::Function);
    if (!function || !function->body) return;
    for (const std::string& name : freeVariables(page, function->body)) {
        if (std::ranges::count(function->parameters, name) == 0) add(name);
    }
}

class Reader {
public:
    explicit Reader(const Page& page) : page_(page) {}

    TypedLine read(const std::string& typed) {
        TypedLine as;
        if (const auto question = conversionQuestion(typed)) return {*question, {}, {}, false};
        as.text = respelled(typed);
        if (as.text.find_first_not_of(" \t") == std::string::npos || Text(as.text).tokens.empty()) {
            as.text = inPrint(as.text);
            if (Text(as.text).tokens.empty()) return {typed, {}, {}, false};
        }
        as.text = withCalls(withBracketsBehindDerivative(as.text));
        const bool good = isGood(as.text);
        if (!good) splitIntervals(as);
        as.text = inPrint(as.text);
        if (!good || outlineLine(as.text).line.kind == LineKind::Drawn) understand(as);
        if (as.text.empty()) as.text = typed;
        return as;
    }

private:
    /// The names of the page, and all letters of a text that may be further ones.
    KnownNames namesWith(const std::string& text) const {
        KnownNames names = page_.names;
        const Text read(text);
        for (std::size_t i = 0; i < read.tokens.size(); ++i) {
            const Token& token = read.tokens[i];
            std::string name;
            const std::size_t length = readName(std::span(read.tokens).subspan(i), name);
            if (length > 0) {
                const bool opens = i + length < read.tokens.size() && isSymbol(read.tokens[i + length], "(");
                if (!names.functions.contains(name) && std::isnan(constantValue(name)) && !(opens && isFunction(name)))
                    names.values.insert(name);
                i += length - 1;
            } else if (token.kind == TokenKind::Word && i + 1 < read.tokens.size() &&
                       isSymbol(read.tokens[i + 1], "(")) {
                continue; // a function that nobody knows
            } else if (const std::string rest = behindFunction(token.text);
                       token.kind == TokenKind::Word && !rest.empty()) {
                if (!names.functions.contains(rest)) names.values.insert(rest); // sinx
            } else if (token.kind == TokenKind::Word && isProduct(token.text)) {
                for (const char32_t letter : decodeUtf8(token.text)) {
                    const std::string one = encodeUtf8(std::u32string(1, letter));
                    if (!names.functions.contains(one) && std::isnan(constantValue(one))) names.values.insert(one);
                }
            }
        }
        return names;
    }

    /// The name that stands behind a function without a space: x of sinx.
    static std::string behindFunction(const std::string& word) {
        for (std::size_t length = word.size() - 1; length >= 2; --length) {
            const std::string rest = word.substr(length);
            if (isFunctionName(word.substr(0, length)) && isNameLetter(rest)) return canonicalWord(rest);
        }
        return "";
    }

    /// A letter before a bracket that is a function and no factor: of the catalogue, or one that usually is.
    static bool isFunction(const std::string& name) {
        const std::string letter = nameParts(name).letter;
        return isFunctionName(letter) || letter == "f" || letter == "g" || letter == "h";
    }

    /// Letters without a space that are a product with a variable, such as xy or kx.
    static bool isProduct(const std::string& word) {
        const std::u32string letters = decodeUtf8(word);
        return letters.size() <= 3 && !isFunctionName(word) && !greekLetter(word) &&
               std::ranges::any_of(letters,
                                   [](char32_t c) { return isUsualVariable(encodeUtf8(std::u32string(1, c))); }) &&
               word != "int" && word != "not" && word != "rot";
    }

    ParsedExpression parse(const std::string& text, Wanted wanted = Wanted::Number) const {
        return parseExpression(decodeUtf8(text), namesWith(text), wanted);
    }

    /// Whether a line of the page defines a name that nothing else may take: a number that was assumed gives way.
    bool isTaken(const std::string& name) const {
        const auto at = page_.defined.find(name);
        if (at == page_.defined.end()) return false;
        const Line& line = page_.lines[at->second];
        return !(line.isAssumed && line.kind == LineKind::Quantity);
    }

    /// Whether a line is the notation already, with all that it names on the page.
    bool isGood(const std::string& text) const {
        const LineOutline outline = outlineLine(text);
        if (outline.line.kind == LineKind::Unread) return false;
        const Line line = readLine(outline, page_.names);
        if (!line.good()) return false;
        // A quantity that depends on a variable is a function.
        if (line.kind != LineKind::Quantity || !line.body) return true;
        return freeVariables(page_, line.body).empty() && !isTaken(line.name);
    }

    /// The text with spellings from elsewhere put right one after the other, wherever they stand.
    std::string inPrint(std::string text) const {
        for (int i = 0; i < mostRespellings; ++i) {
            const auto remedy = spellingOf(text);
            if (!remedy) break;
            const std::u32string letters = decodeUtf8(text);
            const auto first = static_cast<std::size_t>(remedy->first - 1),
                       last = static_cast<std::size_t>(remedy->last);
            if (first > letters.size() || last > letters.size()) break;
            text = encodeUtf8(std::u32string_view(letters).substr(0, first)) + remedy->text +
                   encodeUtf8(std::u32string_view(letters).substr(last));
        }
        return text;
    }

    std::optional<Remedy> spellingOf(const std::string& text) const {
        const auto among = [](const Problems& problems) -> std::optional<Remedy> {
            for (const Problem& problem : problems) {
                if (problem.remedy && problem.remedy->isSpelling && problem.remedy->first > 0) return problem.remedy;
            }
            return std::nullopt;
        };
        const LineOutline outline = outlineLine(text);
        if (const auto found = among(outline.line.problems)) return found;
        const Line line = readLine(outline, namesWith(text));
        if (const auto found = among(line.problems)) return found;
        if (line.kind != LineKind::Unread) return std::nullopt;
        return among(parse(text, Wanted::Condition).problems);
    }

    /// d/dx x^3 as d/dx(x^3).
    static std::string withBracketsBehindDerivative(const std::string& text) {
        const Text read(text);
        const auto& tokens = read.tokens;
        std::size_t at = 0;
        const auto order = [&] {
            if (at + 1 < tokens.size() && isSymbol(tokens[at], "^") && tokens[at + 1].kind == TokenKind::Number)
                at += 2;
        };
        if (tokens.empty() || !isWord(tokens[at++], "d")) return text;
        order();
        if (at + 1 >= tokens.size() || !isSymbol(tokens[at], "/") || tokens[at + 1].kind != TokenKind::Word ||
            tokens[at + 1].text.size() != 2 || tokens[at + 1].text[0] != 'd')
            return text;
        at += 2;
        order();
        std::size_t end = read.outside("=");
        if (at >= end || isSymbol(tokens[at], "(")) return text;
        const std::string rest = end < tokens.size() ? " " + read.part(end, tokens.size()) : "";
        return read.part(0, at) + "(" + read.part(at, end) + ")" + rest;
    }

    /// Functions of the page that stand without their variables get them: 2y + 1 is 2y(x) + 1.
    std::string withCalls(const std::string& text) const {
        const Text read(text);
        const auto& tokens = read.tokens;
        std::string out;
        std::size_t copied = 0;
        const std::size_t equals = read.outside("=");
        const bool asks = !tokens.empty() && isSymbol(tokens.back(), "?");
        for (std::size_t i = 0; i < tokens.size(); ++i) {
            std::string name;
            const std::size_t length = readName(std::span(tokens).subspan(i), name);
            if (length == 0) continue;
            std::size_t next = i + length;
            while (next < tokens.size() && isSymbol(tokens[next], "'")) ++next;
            const Line* function = page_.find(name, LineKind::Function);
            const bool isCalled = next < tokens.size() && (isSymbol(tokens[next], "(") || isSymbol(tokens[next], "^"));
            const bool isDefined = i == 0 && next == equals && !asks;
            if (function && !isCalled && !isDefined && !function->parameters.empty()) {
                const auto end = static_cast<std::size_t>(tokens[next - 1].span.last);
                out += encodeUtf8(std::u32string_view(read.letters).substr(copied, end - copied)) + "(";
                for (std::size_t k = 0; k < function->parameters.size(); ++k)
                    out += (k > 0 ? ", " : "") + spelledName(function->parameters[k]);
                out += ")";
                copied = end;
            }
            i = next - 1;
        }
        out += encodeUtf8(std::u32string_view(read.letters).substr(copied));
        return searchInWords(out);
    }

    /// max of y(x) as maximum of y(x) for x.
    std::string searchInWords(const std::string& text) const {
        const Text read(text);
        const auto& tokens = read.tokens;
        static constexpr std::array<std::pair<std::string_view, const char*>, 8> words{
            {{"max", "maximum"},
             {"min", "minimum"},
             {"maximum", "maximum"},
             {"minimum", "minimum"},
             {"zeros", "zeros"},
             {"roots", "zeros"},
             {"extrema", "extrema"},
             {"inflections", "inflections"}}};
        if (tokens.size() < 3 || !isWord(tokens[1], "of")) return text;
        const auto* word = std::ranges::find(words, std::string_view(tokens[0].text),
                                             &std::pair<std::string_view, const char*>::first);
        if (word == words.end()) return text;
        std::size_t end = tokens.size();
        if (end > 4 && isSymbol(tokens[end - 1], "?") && isSymbol(tokens[end - 2], "=")) end -= 2;
        const std::string head = std::string(word->second) + " of " + read.part(2, end);
        if (read.outside("for") < tokens.size()) return head;
        const ParsedExpression parsed = parse(read.part(2, end));
        const std::vector<std::string> variables =
            parsed.expression ? variablesOf(*parsed.expression, "") : std::vector<std::string>{};
        if (variables.size() != 1 || parsed.expression->kind == ExprKind::Name) return text;
        const bool hasInterval = page_.find(variables[0], LineKind::Variable);
        return head + " for " + spelledName(variables[0]) + (hasInterval ? "" : " in [-5, 5]");
    }

    /// An interval of a variable, however it is spelled: 0 < x < 1.
    std::optional<std::string> asInterval(const std::string& text) const {
        const std::string spelling = inPrint(respelled(text));
        if (outlineLine(spelling).line.kind != LineKind::Variable) return std::nullopt;
        return spelling;
    }

    /// Takes “for x in [0, 1], y in [0, 2]” off the end of a line that is no search; “for” may be left out.
    void splitIntervals(TypedLine& as) const {
        const Text read(as.text);
        const std::size_t all = read.tokens.size();
        std::size_t at = read.outside("for");
        std::size_t begin = at + 1;
        if (at == all) at = read.outside(","), begin = at + 1;
        for (; at > 0 && begin + 2 < all; at = read.outside(",", begin), begin = at + 1) {
            std::vector<std::string> intervals;
            for (std::size_t from = begin; from < all;) {
                const std::size_t end = read.outside(",", from);
                const auto interval = asInterval(read.part(from, end));
                if (!interval) break;
                intervals.push_back(*interval);
                from = end + 1;
            }
            const std::size_t separators = intervals.empty() ? 0 : intervals.size() - 1;
            if (intervals.empty() || separators != commasFrom(read, begin)) {
                if (isWord(read.tokens[at], "for")) return;
                continue;
            }
            as.given = std::move(intervals);
            as.text = read.part(0, at);
            return;
        }
    }
    static std::size_t commasFrom(const Text& read, std::size_t begin) {
        std::size_t count = 0;
        for (std::size_t at = read.outside(",", begin); at < read.tokens.size(); at = read.outside(",", at + 1))
            ++count;
        return count;
    }

    /// {(1, 2), (3, 5)}: points, of which each coordinate is a column.
    bool asPoints(TypedLine& as) const {
        const Text read(as.text);
        const std::size_t equals = read.outside("=");
        const std::size_t from = equals < read.tokens.size() ? equals + 1 : 0;
        const ParsedExpression parsed = parse(read.part(from, read.tokens.size()));
        if (!parsed.expression || parsed.expression->kind != ExprKind::List) return false;
        std::array<std::string, 2> columns;
        for (const ExprPtr& point : parsed.expression->operands) {
            if (point->kind != ExprKind::Vector || point->operands.size() != 2) return false;
            for (std::size_t k = 0; k < 2; ++k)
                columns[k] += (columns[k].empty() ? "" : ", ") + spelled(*point->operands[k]);
        }
        std::array<std::string, 2> names{freeName({"x", "t"}, *parsed.expression),
                                         freeName({"y", "s"}, *parsed.expression)};
        if (from > 0) {
            const ParsedExpression head = parse(read.part(0, equals));
            if (!head.expression || head.expression->kind != ExprKind::Vector || head.expression->operands.size() != 2)
                return false;
            for (std::size_t k = 0; k < 2; ++k) {
                if (head.expression->operands[k]->kind != ExprKind::Name) return false;
                names[k] = head.expression->operands[k]->text;
            }
        }
        as.text = spelledName(names[0]) + " = {" + columns[0] + "}";
        as.given = {spelledName(names[1]) + " = {" + columns[1] + "}"};
        as.drawn = "(" + spelledName(names[0]) + ", " + spelledName(names[1]) + ")";
        return true;
    }

    /// y = a x for a in {1, 2}: a function of both, and its cases.
    bool asFamily(TypedLine& as) const {
        const Text read(as.text);
        const std::size_t equals = read.outside("="), at = read.outside("for"), in = read.outside("in");
        std::string name, member;
        const std::size_t length = readName(read.tokens, name);
        if (length == 0 || length != equals || in <= at || in + 1 >= read.tokens.size() ||
            !isSymbol(read.tokens[in + 1], "{") || page_.defined.contains(name) ||
            readName(std::span(read.tokens).subspan(at + 1), member) + at + 1 != in)
            return false;
        const std::string formula = read.part(equals + 1, at);
        const ParsedExpression parsed = parse(formula);
        if (!parsed.expression) return false;
        std::vector<std::string> open = openNames(*parsed.expression);
        if (std::erase(open, member) == 0) return false;
        std::vector<std::string> variables = variablesOf(*parsed.expression, name);
        std::erase(variables, member);
        if (variables.empty() && open.size() == 1) variables = open;
        if (variables.size() != 1) return false;
        const std::string call = spelledName(name) + "(" + spelledName(variables[0]) + ", " + spelledName(member) + ")";
        as.text = call + " = " + formula;
        as.given.push_back(call + " " + read.part(at, read.tokens.size()));
        assume(as, *parsed.expression, variables, "[-5, 5]");
        std::erase(as.assumed, spelledName(member) + " = 1, assumed");
        return true;
    }

    /// How likely a letter is a variable: the smaller, the likelier.
    int rankOf(const std::string& name) const {
        if (page_.find(name, LineKind::Variable)) return 0;
        if (isUsualVariable(name)) return name == "φ" || name == "θ" ? 2 : 1;
        for (const char* letter : {"r", "s", "u", "v", "ρ", "τ", "ξ"}) {
            if (name == letter) return 3;
        }
        return 4;
    }

    /// The names in a formula that nothing on the page fixes.
    std::vector<std::string> openNames(const Expr& e) const {
        std::vector<std::string> names;
        collectNames(page_, e, {}, names);
        std::erase_if(names, [&](const std::string& name) {
            if (page_.find(name, LineKind::Variable)) return false;
            return page_.defined.contains(name) || !std::isnan(constantValue(name));
        });
        return names;
    }

    /// Those that it runs along: the likeliest letters, two at most.
    std::vector<std::string> variablesOf(const Expr& e, const std::string& dependent) const {
        std::vector<std::string> names = openNames(e);
        std::erase(names, dependent);
        if (names.empty()) return {};
        int best = 4;
        for (const std::string& name : names) best = std::min(best, rankOf(name));
        std::vector<std::string> variables;
        for (const std::string& name : names) {
            const int rank = rankOf(name);
            if (rank == best || (best == 0 && rank == 1)) variables.push_back(name);
        }
        if (best == 4) variables.resize(1); // none of the usual letters: the others are numbers
        if (variables.size() > 2) variables.resize(best <= 1 ? 2 : 1);
        std::ranges::sort(variables);
        return variables;
    }

    /// What the formula needs beside its variables' intervals: numbers for the other letters.
    void assume(TypedLine& as, const Expr& e, const std::vector<std::string>& variables, const char* interval) const {
        const auto isGiven = [&](const std::string& name) {
            return std::ranges::any_of(as.given,
                                       [&](const std::string& line) { return outlineLine(line).line.name == name; });
        };
        std::vector<std::string> open = openNames(e), numbers, intervals;
        std::ranges::sort(open);
        for (const std::string& name : open) {
            if (page_.defined.contains(name) || isGiven(name)) continue;
            if (std::ranges::count(variables, name) > 0)
                intervals.push_back(spelledName(name) + " in " + interval + ", assumed");
            else
                numbers.push_back(spelledName(name) + " = 1, assumed");
        }
        as.assumed.insert(as.assumed.end(), numbers.begin(), numbers.end());
        as.assumed.insert(as.assumed.end(), intervals.begin(), intervals.end());
    }

    std::string freeName(std::initializer_list<const char*> letters, const Expr& formula) const {
        std::vector<std::string> used;
        collectNames(page_, formula, {}, used);
        const auto isFree = [&](const std::string& name) {
            return !page_.defined.contains(name) && std::ranges::count(used, name) == 0;
        };
        for (const char* letter : letters) {
            if (isFree(letter)) return letter;
        }
        return numbered(*letters.begin());
    }
    std::string numbered(const std::string& name) const {
        int i = 2;
        while (page_.defined.contains(name + "_" + std::to_string(i))) ++i;
        return name + "_" + std::to_string(i);
    }

    /// A formula as a function under a name.
    bool asFunction(TypedLine& as, const std::string& name, const std::string& formula, const Expr& e) const {
        const std::vector<std::string> variables = variablesOf(e, name);
        if (variables.empty()) return false;
        const bool isAngle = variables.size() == 1 && (variables[0] == "φ" || variables[0] == "θ");
        const std::string letter = nameParts(name).letter;
        as.isRoundAngle = isAngle && e.kind != ExprKind::Vector && (letter == "r" || letter == "ρ");
        std::string list;
        for (const std::string& variable : variables) list += (list.empty() ? "" : ", ") + spelledName(variable);
        as.text = spelledName(name) + "(" + list + ") = " + formula;
        const bool isCurve = e.kind == ExprKind::Vector && variables.size() == 1;
        assume(as, e, variables, as.isRoundAngle || isCurve ? "[0, 2 pi]" : "[-5, 5]");
        return true;
    }

    /// x = cos t, y = sin 2t: a curve by its coordinates.
    bool asCoordinates(TypedLine& as) const {
        const Text read(as.text);
        std::vector<std::string> names, formulas;
        for (std::size_t begin = 0; begin < read.tokens.size();) {
            const std::size_t end = read.outside(",", begin), equals = read.outside("=", begin);
            std::string name;
            const std::size_t length = readName(std::span(read.tokens).subspan(begin), name);
            if (length == 0 || begin + length != equals || equals + 1 >= end) return false;
            names.push_back(name);
            formulas.push_back(read.part(equals + 1, end));
            begin = end + 1;
        }
        using Names = std::vector<std::string>;
        if (names != Names{"x", "y"} && names != Names{"x", "y", "z"}) return false;
        std::string vector;
        for (const std::string& formula : formulas) vector += (vector.empty() ? "(" : ", ") + formula;
        vector += ")";
        const ParsedExpression parsed = parse(vector);
        return parsed.expression &&
               asFunction(as, freeName({"c", "p", "q"}, *parsed.expression), vector, *parsed.expression);
    }

    void understand(TypedLine& as) const {
        const Text read(as.text);
        if (asCoordinates(as) || asFamily(as) || asPoints(as)) return;
        const LineOutline outline = outlineLine(as.text);
        const std::size_t equals = read.outside("=");
        if (outline.line.kind == LineKind::Quantity && equals < read.tokens.size()) {
            const std::string formula = read.part(equals + 1, equals + outline.body.size());
            const std::string clauses = read.part(equals + outline.body.size(), read.tokens.size());
            const ParsedExpression parsed = parse(formula);
            if (!parsed.expression) return;
            const std::vector<std::string> open = openNames(*parsed.expression);
            if (open.empty() || std::ranges::count(open, outline.line.name) > 0) return;
            // x = y^2 runs along the upright coordinate, and y may be a coordinate already: these are equations.
            const bool sideways = outline.line.name == "x" && open == std::vector<std::string>{"y"};
            const bool isCoordinate = page_.find(outline.line.name, LineKind::Variable) && open.size() == 1;
            if ((sideways || isCoordinate) && parsed.expression->kind != ExprKind::Name) {
                as.text = formula + " = " + spelledName(outline.line.name);
                return asDrawn(as);
            }
            const bool taken = isTaken(outline.line.name);
            if (asFunction(as, taken ? numbered(outline.line.name) : outline.line.name, formula, *parsed.expression))
                as.text += clauses;
            return;
        }
        if (outline.line.kind == LineKind::Drawn) return asDrawn(as);
        if (outline.line.kind == LineKind::Function && equals < read.tokens.size()) {
            // f(x) = a x: letters that usually are no variables become numbers.
            const ParsedExpression parsed = parse(read.part(equals + 1, equals + outline.body.size()));
            if (!parsed.expression) return;
            std::vector<std::string> open = openNames(*parsed.expression);
            std::erase_if(
                open, [&](const std::string& name) { return std::ranges::count(outline.line.parameters, name) > 0; });
            if (std::ranges::none_of(open, isUsualVariable))
                assume(as, *parsed.expression, outline.line.parameters, "[-5, 5]");
            return;
        }
        if (outline.line.kind != LineKind::Unread || read.tokens.empty()) return;
        const ParsedExpression parsed = parse(as.text);
        if (!parsed.expression) return;
        const Expr& e = *parsed.expression;
        const Expr* inner = &e;
        while (inner->kind == ExprKind::Group) inner = inner->operands[0].get();
        if (inner->kind == ExprKind::List) {
            as.text = freeName({"y", "s", "u"}, e) + " = " + as.text;
        } else if (inner->kind == ExprKind::Derivative || openNames(e).empty()) {
            as.text += " = ?";
        } else {
            const bool isVector = inner->kind == ExprKind::Vector;
            const std::string name =
                isVector ? freeName({"c", "p", "q"}, e) : freeName({"f", "g", "h", "u", "v", "w"}, e);
            asFunction(as, name, as.text, *inner);
        }
    }

    /// A condition: where it holds along one variable is looked for, and in the plane it is drawn.
    void asDrawn(TypedLine& as) const {
        const Text read(as.text);
        const std::size_t cases = read.outside("for");
        const std::string formula = read.part(0, cases);
        ParsedExpression parsed = parse(formula);
        if (!parsed.expression) parsed = parse(formula, Wanted::Condition);
        if (!parsed.expression) return;
        std::vector<std::string> open = openNames(*parsed.expression);
        const Line line = readLine(outlineLine(as.text), namesWith(as.text));
        std::erase_if(open, [&](const std::string& name) { return std::ranges::count(line.unknowns, name) > 0; });
        if (!isCondition(*parsed.expression)) {
            assume(as, *parsed.expression, open, "[-5, 5]");
            std::erase_if(as.assumed, [&](const std::string& each) {
                return std::ranges::count(line.unknowns, outlineLine(each).line.name) > 0;
            });
            return;
        }
        const bool isEquation = parsed.expression->kind == ExprKind::Compare &&
                                parsed.expression->relations == std::vector<std::string>{"="};
        if (isEquation && open.size() == 1) {
            std::string interval = " in [-10, 10]";
            if (page_.find(open[0], LineKind::Variable)) interval.clear();
            for (const std::string& given : as.given) {
                const Text said(given);
                if (outlineLine(given).line.name == open[0])
                    interval = " " + said.part(said.outside("in"), said.tokens.size());
            }
            as.given.clear();
            as.text = formula + " for " + spelledName(open[0]) + interval;
            return;
        }
        std::vector<std::string> variables = open;
        if (variables.size() > 2) variables = variablesOf(*parsed.expression, "");
        assume(as, *parsed.expression, variables, "[-5, 5]");
        if (open.size() == 1) { // a region needs the other coordinate, too
            for (const char* other : {"x", "y"}) {
                if (open[0] != other && !page_.defined.contains(other))
                    as.assumed.push_back(std::string(other) + " in [-5, 5], assumed");
            }
        }
    }

    const Page& page_;
};

} // namespace

TypedLine readTyped(const Page& page, const std::string& typed) { return Reader(page).read(typed); }

} // namespace coulter
