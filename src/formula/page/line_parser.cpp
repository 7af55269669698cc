#include "formula/page/line_parser.h"

#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "formula/notation/units.h"
#include "formula/page/line_phrases.h"

#include <algorithm>
#include <array>

namespace coulter {
namespace {

struct Clause {
    std::string keyword;
    std::size_t keywordAt = 0;
    std::size_t begin = 0; ///< of its content
    std::size_t end = 0;
};

constexpr std::array<std::u32string_view, 19> clauseKeywords{
    U"unit",    U"from",  U"step",   U"count",     U"logarithmic", U"label",   U"seed",
    U"columns", U"units", U"period", U"harmonics", U"where",       U"weights", U"pitch",
    U"origin",  U"rows",  U"turned", U"variable",  U"assumed"};

/// Words that make a line what it is, and what reads it.
struct Phrase {
    const char* word;
    void (*outline)(LineOutline&, const std::vector<Token>&);
    bool beforeText = false;      ///< only where text in quotation marks follows
    const char* second = nullptr; ///< only where this word follows
};
constexpr std::array<Phrase, 9> phrases{{{"solves", outlineSolution},
                                         {"interpolates", outlineInterpolation},
                                         {"fits", outlineFit},
                                         {"from", outlineTable, true},
                                         {"Fourier", outlineFourier, false, "coefficients"},
                                         {"Fourier", outlineFourier, false, "overshoot"},
                                         {"spectral", outlineFourier, false, "derivative"},
                                         {"spectrum", outlineFourier, false, "of"},
                                         {"for", outlineSearch}}};

/// Where the line's head ends, and its clauses: a clause starts after a comma outside quotation marks.
struct Split {
    std::size_t head = 0;
    std::vector<Clause> clauses;
};

Split splitClauses(std::u32string_view text) {
    Split split{text.size(), {}};
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == U'"') quoted = !quoted;
        if (quoted || text[i] != U',') continue;
        std::size_t word = i + 1;
        while (word < text.size() && isSpace(text[word])) ++word;
        for (const auto keyword : clauseKeywords) {
            const std::size_t after = word + keyword.size();
            if (text.substr(word, keyword.size()) != keyword || (after < text.size() && isLetter(text[after])))
                continue;
            if (split.clauses.empty())
                split.head = i;
            else
                split.clauses.back().end = i;
            split.clauses.push_back({encodeUtf8(keyword), word, after, text.size()});
            break;
        }
    }
    return split;
}

class Outliner {
public:
    explicit Outliner(const std::string& source) : text_(decodeUtf8(source)) { out_.line.source = source; }

    LineOutline run() {
        Line& line = out_.line;
        std::size_t begin = 0;
        while (begin < text_.size() && isSpace(text_[begin])) ++begin;
        if (begin == text_.size()) return std::move(out_);
        if (text_[begin] == U'#') {
            line.kind = LineKind::Prose;
            return std::move(out_);
        }
        line.kind = LineKind::Unread;
        if (text_.size() > longestLine) {
            report(line, {static_cast<int>(longestLine) + 1, static_cast<int>(text_.size())},
                   "This line is longer than 10000 characters.", "name parts of it on lines of their own");
            return std::move(out_);
        }
        const Split split = splitClauses(text_);
        LexResult lexed = tokenize(text_, begin, split.head);
        if (!lexed.problems.empty()) {
            line.problems = lexed.problems;
            return std::move(out_);
        }
        head(lexed.tokens);
        for (const Clause& clause : split.clauses) readClause(clause);
        return std::move(out_);
    }

private:
    void head(const std::vector<Token>& tokens) {
        Line& line = out_.line;
        const std::size_t end = tokens.size() - 1;
        std::string name;
        const std::size_t length = readName(tokens, name);
        line.nameSpan = {tokens[0].span.first, tokens[length > 0 ? length - 1 : 0].span.last};
        if (length > 0 && isWord(tokens[length], "in")) return variable(tokens, name, length + 1);
        if (length > 0 && isSymbol(tokens[length], "~")) return random(tokens, name, length + 1);
        if (drawsCases(tokens)) return drawn(tokens);
        for (const Phrase& phrase : phrases) {
            const std::size_t at = wordOutside(tokens, phrase.word);
            if (at < end && (!phrase.beforeText || tokens[at + 1].kind == TokenKind::String) &&
                (!phrase.second || isWord(tokens[at + 1], phrase.second)))
                return phrase.outline(out_, tokens);
        }

        std::size_t equals = end;
        int depth = 0;
        for (std::size_t i = 0; i < end; ++i) {
            if (isSymbol(tokens[i], "(") || isSymbol(tokens[i], "{") || isSymbol(tokens[i], "[")) ++depth;
            if (isSymbol(tokens[i], ")") || isSymbol(tokens[i], "}") || isSymbol(tokens[i], "]")) --depth;
            if (isSymbol(tokens[i], "=") && depth <= 0) {
                equals = i;
                break;
            }
        }
        if (equals == end) {
            if (compares(tokens)) return drawn(tokens);
            if (tokens[0].kind == TokenKind::Word && end >= 2 && isWord(tokens[1], "in")) return badName(tokens[0]);
            report(line, {tokens[0].span.first, std::max(tokens[0].span.first, tokens[end].span.first - 1)},
                   std::string(definesNothing), "write f(x) = … to name a formula, or … = ? to ask for a value");
            return;
        }
        if (equals + 2 == end && isSymbol(tokens[equals + 1], "?")) {
            line.kind = LineKind::Question;
            out_.body = slice(tokens, 0, equals);
            return;
        }
        if (length == 0 && tokens[0].kind == TokenKind::Word && equals == 1) return badName(tokens[0]);
        const bool isCall = length > 0 && isSymbol(tokens[length], "(") && isSymbol(tokens[equals - 1], ")") &&
                            closing(tokens, length) == equals - 1;
        if (length == 0 || (length != equals && !isCall)) return drawn(tokens);
        line.name = name;
        if (length == equals && isFourierSum(tokens, equals + 1)) {
            report(line, line.nameSpan, "A Fourier sum is a function.",
                   "write " + name + "(t, N) = Fourier sum of r(t)");
            return;
        }
        if (length == equals) {
            line.kind = LineKind::Quantity;
            out_.body = slice(tokens, equals + 1, end);
            // A plain number, with or without sign and percent, is what dragging changes.
            std::size_t at = equals + 1;
            const std::size_t first = at;
            if (at < end && isSymbol(tokens[at], "-")) ++at;
            if (at < end && tokens[at].kind == TokenKind::Number) {
                ++at;
                if (at < end && isSymbol(tokens[at], "%")) ++at;
                if (at == end) line.plainNumber = Span{tokens[first].span.first, tokens[end - 1].span.last};
            }
            return;
        }
        if (isPeriod(tokens, length, equals)) return;
        if (!parameters(tokens, length + 1, equals - 1)) return;
        line.kind = LineKind::Function;
        if (isFourierSum(tokens, equals + 1)) line.transform = Transform::Sum;
        out_.body = slice(tokens, line.transform == Transform::Sum ? equals + 4 : equals + 1, end);
    }

    /// x^2 + y^2 = 1, x y > 1: a condition without a name.
    void drawn(const std::vector<Token>& tokens) {
        out_.line.kind = LineKind::Drawn;
        out_.line.nameSpan = {tokens[0].span.first, std::max(tokens[0].span.first, tokens.back().span.first - 1)};
        out_.body = tokens;
    }

    /// Whether a relation stands outside of all brackets.
    static bool compares(std::span<const Token> tokens) {
        int depth = 0;
        for (const Token& token : tokens) {
            depth += deeper(token);
            const bool relates = token.text == "<" || token.text == ">" || token.text == "<=" || token.text == ">=" ||
                                 token.text == "!=" || token.text == "=";
            if (token.kind == TokenKind::Symbol && relates && depth == 0) return true;
        }
        return false;
    }

    /// f(x, k) for k in {1, 2}, without a name that it gets and without an equation.
    static bool drawsCases(const std::vector<Token>& tokens) {
        const std::size_t at = wordOutside(tokens, "for"), in = wordOutside(tokens, "in"), end = tokens.size() - 1;
        if (at == 0 || in <= at || in + 1 >= end || !isSymbol(tokens[in + 1], "{")) return false;
        return !compares(std::span(tokens).first(at));
    }

    /// The bracket that closes the one at a place.
    static std::size_t closing(const std::vector<Token>& tokens, std::size_t at) {
        int depth = 0;
        for (std::size_t i = at; i < tokens.size(); ++i) {
            depth += deeper(tokens[i]);
            if (depth == 0) return i;
        }
        return tokens.size();
    }

    /// r(t + 6) = r(t): the same name on both sides, and its parameter alone on the right.
    bool isPeriod(const std::vector<Token>& tokens, std::size_t length, std::size_t equals) {
        Line& line = out_.line;
        const std::size_t end = tokens.size() - 1;
        std::string parameter, other, again;
        const std::size_t p = readName(std::span(tokens).subspan(length + 1), parameter);
        const std::size_t plus = length + 1 + p;
        if (p == 0 || !isSymbol(tokens[plus], "+")) return false;
        const std::size_t right = equals + 1, n = readName(std::span(tokens).subspan(right), other);
        if (n == 0 || other != line.name || !isSymbol(tokens[right + n], "(")) return false;
        const std::size_t m = readName(std::span(tokens).subspan(right + n + 1), again);
        if (m == 0 || again != parameter || !isSymbol(tokens[right + n + 1 + m], ")") || right + n + m + 2 != end)
            return false;
        line.kind = LineKind::Period;
        line.parameters = {parameter};
        out_.body = slice(tokens, plus + 1, equals - 1);
        return true;
    }

    void badName(const Token& token) {
        const std::u32string letters = decodeUtf8(token.text);
        const std::string first = encodeUtf8(std::u32string_view(letters).substr(0, 1));
        const std::string rest = encodeUtf8(std::u32string_view(letters).substr(1));
        report(out_.line, token.span, "A name is one letter, with a subscript if you like.",
               "write " + first + "_{" + rest + "}");
    }

    bool parameters(const std::vector<Token>& tokens, std::size_t at, std::size_t end) {
        Line& line = out_.line;
        if (at == end) {
            report(line, {tokens[at - 1].span.first, tokens[end].span.last}, "The function has no parameter.",
                   "write " + line.name + " = … for a quantity");
            return false;
        }
        while (at < end) {
            std::string name;
            const std::size_t length = readName(std::span(tokens).subspan(at, end - at), name);
            if (length == 0) {
                if (tokens[at].kind == TokenKind::Word) {
                    badName(tokens[at]);
                } else {
                    report(line, tokens[at].span, "A parameter is a name: one letter, with a subscript if you like.");
                }
                return false;
            }
            if (std::ranges::count(line.parameters, name) > 0) {
                report(line, tokens[at].span, "The parameter " + name + " stands here twice.");
                return false;
            }
            line.parameters.push_back(name);
            at += length;
            if (at == end) return true;
            if (!isSymbol(tokens[at], ",") || at + 1 == end) {
                report(line, tokens[at].span, "Parameters are separated by commas.");
                return false;
            }
            ++at;
        }
        return true;
    }

    void variable(const std::vector<Token>& tokens, const std::string& name, std::size_t at) {
        out_.line.name = name;
        if (outlineInterval(out_, tokens, name, at)) out_.line.kind = LineKind::Variable;
    }

    /// X ~ N(2, 0.5^2)
    void random(const std::vector<Token>& tokens, const std::string& name, std::size_t at) {
        Line& line = out_.line;
        line.name = name;
        const std::size_t end = tokens.size() - 1;
        const bool normal = isWord(tokens[at], "N"), uniform = isWord(tokens[at], "U");
        if (!normal && !uniform)
            return report(line, tokens[at].span, "Numbers are distributed as N or U.",
                          "write " + name + " ~ N(mean, variance) or " + name + " ~ U(low, high)");
        line.distribution = normal ? Distribution::Normal : Distribution::Uniform;
        const Span place{tokens[at].span.first, std::max(tokens[at].span.first, tokens[end].span.first - 1)};
        const std::string form = normal ? "write N(2, 0.5^2)" : "write U(0, 1)";
        if (at + 1 >= end || !isSymbol(tokens[at + 1], "(") || !isSymbol(tokens[end - 1], ")"))
            return report(line, place, "What the numbers are distributed by stands in brackets.", form);
        std::size_t begin = at + 2;
        int depth = 0;
        for (std::size_t i = begin; i < end; ++i) {
            if (isSymbol(tokens[i], "(")) ++depth;
            if (isSymbol(tokens[i], ")")) --depth;
            if (i + 1 != end && !(isSymbol(tokens[i], ",") && depth == 0)) continue;
            out_.arguments.push_back(slice(tokens, begin, i));
            begin = i + 1;
        }
        if (out_.arguments.size() != 2) {
            out_.arguments.clear();
            return report(line, place,
                          normal ? "A normal distribution has a mean and a variance."
                                 : "A uniform distribution has two ends.",
                          form);
        }
        line.kind = LineKind::Random;
    }

    /// columns 1, 3 or columns "time", "drawdown"; units s, m
    void readListClause(const Clause& clause, Span keyword) {
        Line& line = out_.line;
        const bool units = clause.keyword == "units";
        std::vector<std::string>& list = units ? line.units : line.picked;
        std::size_t begin = clause.begin;
        bool quoted = false;
        for (std::size_t i = clause.begin; i <= clause.end; ++i) {
            if (i < clause.end && text_[i] == U'"') quoted = !quoted;
            if (i < clause.end && (quoted || text_[i] != U',')) continue;
            std::string one = trimmed(std::u32string_view(text_).substr(begin, i - begin));
            if (!units && one.size() >= 2 && one.front() == '"' && one.back() == '"')
                one = one.substr(1, one.size() - 2);
            const Span place{static_cast<int>(begin) + 1, std::max(static_cast<int>(begin) + 1, static_cast<int>(i))};
            if (one.empty())
                return report(line, place, units ? "A unit is missing here." : "A column is missing here.",
                              units ? "write 1 for a number without one" : "write its number, or its heading");
            if (units && !isUnit(one))
                return report(line, place, "“" + one + "” is not a unit that is known.",
                              "write it as in m, kg m-3, cm/day or °C");
            list.push_back(std::move(one));
            begin = i + 1;
        }
        if (list.size() != line.unknowns.size())
            report(line, keyword,
                   "The clause “" + clause.keyword + "” names " + std::to_string(list.size()) + ", and there are " +
                       std::to_string(line.unknowns.size()) + " columns.",
                   "give one for each name before “from”");
    }

    /// pitch 0.05; pitch 0.05, 0.1; origin -6, -6; rows upwards; turned 90; variable "head"
    void readFieldClause(const Clause& clause, Span keyword) {
        Line& line = out_.line;
        const LexResult lexed = tokenize(text_, clause.begin, clause.end);
        if (!lexed.problems.empty()) {
            line.problems.insert(line.problems.end(), lexed.problems.begin(), lexed.problems.end());
            return;
        }
        const std::vector<Token>& tokens = lexed.tokens;
        const std::size_t end = tokens.size() - 1;
        if (clause.keyword == "rows") {
            line.rowsUpwards = end == 1 && isWord(tokens[0], "upwards");
            if (!line.rowsUpwards && !(end == 1 && isWord(tokens[0], "downwards")))
                report(line, keyword, "Rows of a file run upwards or downwards.", "write rows upwards");
            return;
        }
        if (clause.keyword == "turned") {
            static const std::array<std::string, 4> turns{"0", "90", "180", "270"};
            const auto at = end == 1 ? std::ranges::find(turns, tokens[0].text) : turns.end();
            if (at == turns.end())
                return report(line, keyword, "A picture is turned by 90, 180 or 270 degrees, counter-clockwise.",
                              "write turned 90");
            line.quarters = static_cast<int>(at - turns.begin());
            return;
        }
        if (clause.keyword == "variable") {
            if (end != 1 || tokens[0].kind != TokenKind::String || tokens[0].text.empty())
                return report(line, keyword, "The name of a variable of the file stands in quotation marks.",
                              "write variable \"head\"");
            line.table = tableKey(line.table, tokens[0].text);
            return;
        }
        std::vector<std::vector<Token>>& list = clause.keyword == "pitch" ? out_.pitch : out_.origin;
        std::size_t begin = 0;
        int depth = 0;
        for (std::size_t i = 0; i <= end; ++i) {
            depth += deeper(tokens[i]);
            if (i != end && !(isSymbol(tokens[i], ",") && depth == 0)) continue;
            if (i == begin)
                return report(line, i < end ? tokens[i].span : keyword, "A number is missing here.",
                              clause.keyword == "pitch" ? "write pitch 0.05" : "write origin -6, -6");
            list.push_back(slice(tokens, begin, i));
            begin = i + 1;
        }
    }

    void readClause(const Clause& clause) {
        Line& line = out_.line;
        const Span keyword{static_cast<int>(clause.keywordAt) + 1, static_cast<int>(clause.begin)};
        if (!seen_.insert(clause.keyword).second)
            return report(line, keyword, "The clause “" + clause.keyword + "” stands here twice.");
        if (line.kind == LineKind::Unread) return;
        if (clause.keyword == "pitch" || clause.keyword == "origin" || clause.keyword == "rows" ||
            clause.keyword == "turned" || clause.keyword == "variable") {
            if (line.table.empty())
                return report(line, keyword, "The clause “" + clause.keyword + "” belongs to a field from a file.",
                              "write it after p(x, y) from \"slice.tif\"");
            return readFieldClause(clause, keyword);
        }
        const bool ofTable = clause.keyword == "columns" || clause.keyword == "units";
        if (ofTable != (line.kind == LineKind::Table))
            return report(line, keyword,
                          ofTable ? "The clause “" + clause.keyword + "” belongs to a table."
                                  : "The clause “" + clause.keyword + "” does not belong to a table.",
                          ofTable ? "write it after (t, s) from \"readings.csv\""
                                  : "write “, units s, m” for the units of its columns");
        if (ofTable) return readListClause(clause, keyword);
        if (clause.keyword == "assumed") {
            if (line.kind != LineKind::Variable && line.kind != LineKind::Quantity)
                return report(line, keyword, "Only an interval or a number can be assumed.",
                              "write it as x in [0, 1], or a = 1");
            line.isAssumed = true;
            return;
        }
        const bool ofTransform = clause.keyword == "period" || clause.keyword == "harmonics";
        const bool takesHarmonics = line.transform != Transform::Derivative && line.transform != Transform::Spectrum;
        if (ofTransform && (line.transform == Transform::None || (clause.keyword == "harmonics" && !takesHarmonics)))
            return report(line, keyword, "The clause “" + clause.keyword + "” does not belong to this line.",
                          "write it after (n, a, b) = Fourier coefficients of r(t)");
        const bool isVariable =
            line.kind == LineKind::Variable || (line.kind == LineKind::Random && clause.keyword == "count");
        if (clause.keyword == "seed" && line.kind != LineKind::Random)
            return report(line, keyword, "The clause “seed” belongs to random numbers.",
                          "write it after X ~ N(0, 1), count 500");
        const bool ofColumns = line.kind == LineKind::Quantity || line.kind == LineKind::Question ||
                               line.kind == LineKind::Fit ||
                               (line.kind == LineKind::Search && line.sought == Sought::InRows);
        if (clause.keyword == "where" && !ofColumns)
            return report(line, keyword, "The clause “where” chooses rows of columns.",
                          "write it after what is computed from columns, such as m = mean(s), where t > 5");
        if (clause.keyword == "weights" && line.kind != LineKind::Fit)
            return report(line, keyword, "The clause “weights” belongs to a fit.",
                          "write it after (a, b) fits s = a + b t");
        if ((clause.keyword == "step" || clause.keyword == "count" || clause.keyword == "logarithmic") && !isVariable) {
            return report(line, keyword, "The clause “" + clause.keyword + "” belongs to a variable with its interval.",
                          "write it after x in [a, b]");
        }
        if (clause.keyword == "from" && line.kind != LineKind::Quantity) {
            return report(line, keyword, "The clause “from … to …” belongs to a quantity.");
        }
        const std::u32string_view content = std::u32string_view(text_).substr(clause.begin, clause.end - clause.begin);
        if (clause.keyword == "unit") {
            line.unit = trimmed(content);
            if (line.unit.empty()) return report(line, keyword, "The unit is missing.", "write unit m");
            if (!isUnit(line.unit)) {
                std::size_t start = clause.begin;
                while (isSpace(text_[start])) ++start;
                report(line, {static_cast<int>(start) + 1, static_cast<int>(start + decodeUtf8(line.unit).size())},
                       "“" + line.unit + "” is not a unit that is known.", "write it as in m, kg m-3, cm/day or °C");
            } else if (hasBrokenExponent(line.unit)) {
                std::size_t start = clause.begin;
                while (isSpace(text_[start])) ++start;
                line.problems.push_back(
                    {-1, static_cast<int>(start) + 1, static_cast<int>(start + decodeUtf8(line.unit).size()),
                     "Exponents of units are whole numbers; in “" + line.unit + "” the point is read as a product.",
                     "leave the unit out, and say it in the label", Problem::Severity::Note});
            }
            return;
        }
        const LexResult lexed = tokenize(text_, clause.begin, clause.end);
        if (!lexed.problems.empty()) {
            line.problems.insert(line.problems.end(), lexed.problems.begin(), lexed.problems.end());
            return;
        }
        const std::size_t end = lexed.tokens.size() - 1;
        if (clause.keyword == "logarithmic") {
            line.grid.logarithmic = true;
            if (end > 0) report(line, lexed.tokens[0].span, "Nothing follows “logarithmic” but a comma.");
        } else if (clause.keyword == "label") {
            if (end != 1 || lexed.tokens[0].kind != TokenKind::String)
                return report(line, keyword, "A label is text in quotation marks.", "write label \"Depth\"");
            line.label = lexed.tokens[0].text;
        } else if (clause.keyword == "from") {
            const auto to = std::ranges::find_if(lexed.tokens, [](const Token& token) { return isWord(token, "to"); });
            if (to == lexed.tokens.end())
                return report(line, keyword, "The range has no upper end.", "write from 0 to 10");
            const auto middle = static_cast<std::size_t>(to - lexed.tokens.begin());
            out_.from = slice(lexed.tokens, 0, middle);
            out_.to = slice(lexed.tokens, middle + 1, end);
        } else {
            (clause.keyword == "step"        ? out_.step
             : clause.keyword == "seed"      ? out_.seed
             : clause.keyword == "period"    ? out_.period
             : clause.keyword == "harmonics" ? out_.harmonics
             : clause.keyword == "where"     ? out_.where
             : clause.keyword == "weights"   ? out_.weights
                                             : out_.count) = slice(lexed.tokens, 0, end);
        }
    }

    std::u32string text_;
    LineOutline out_;
    std::set<std::string> seen_;
};

} // namespace

bool Line::good() const {
    return kind != LineKind::Unread &&
           std::ranges::none_of(problems, [](const Problem& p) { return p.severity == Problem::Severity::Error; });
}

namespace {

/// The formula of a line that is drawn, with the names of its cases.
void readDrawn(const std::vector<Token>& tokens, KnownNames names, Line& line) {
    const std::size_t end = std::min(wordOutside(tokens, "for"), tokens.size() - 1);
    for (std::size_t i = end + 1; i < tokens.size() && !isWord(tokens[i], "in"); ++i) {
        std::string name;
        const std::size_t length = readName(std::span(tokens).subspan(i), name);
        if (length == 0) continue;
        names.values.insert(name);
        line.unknowns.push_back(name);
        i += length - 1;
    }
    const std::vector<Token> formula = slice(tokens, 0, end);
    ParsedExpression parsed = parseExpression(formula, names);
    if (!parsed.expression) {
        ParsedExpression condition = parseExpression(formula, names, Wanted::Condition);
        if (condition.expression || line.unknowns.empty()) parsed = std::move(condition);
    }
    line.body = parsed.expression;
    line.problems.insert(line.problems.end(), parsed.problems.begin(), parsed.problems.end());
}

} // namespace

LineOutline outlineLine(const std::string& source) { return Outliner(source).run(); }

Line readLine(LineOutline outline, const KnownNames& page) {
    Line line = std::move(outline.line);
    KnownNames inScope = page;
    for (const std::string& parameter : line.parameters) {
        inScope.values.insert(parameter);
        inScope.functions.erase(parameter);
    }
    const auto read = [&](const std::vector<Token>& tokens, ExprPtr& into) {
        if (tokens.empty()) return;
        ParsedExpression parsed = parseExpression(tokens, inScope);
        into = parsed.expression;
        line.problems.insert(line.problems.end(), parsed.problems.begin(), parsed.problems.end());
    };
    if (line.kind == LineKind::Drawn)
        readDrawn(outline.body, inScope, line);
    else
        read(outline.body, line.body);
    read(outline.low, line.low);
    for (const std::vector<Token>& tokens : outline.equations) {
        const ParsedExpression parsed = parseExpression(tokens, inScope, Wanted::Condition);
        line.problems.insert(line.problems.end(), parsed.problems.begin(), parsed.problems.end());
        if (!parsed.expression) continue;
        const Expr& e = *parsed.expression;
        if (e.kind != ExprKind::Compare || e.relations != std::vector<std::string>{"="})
            report(line, e.span,
                   line.kind == LineKind::Fit ? "A fit is made to one equation."
                                              : "A condition to solve is one equation.",
                   line.kind == LineKind::Fit ? "write it as s = a + b t" : "write it as 2a + b = 5");
        else
            line.equations.push_back(parsed.expression);
    }
    read(outline.high, line.high);
    read(outline.from, line.from);
    read(outline.to, line.to);
    read(outline.count, line.count);
    read(outline.step, line.step);
    read(outline.seed, line.seed);
    read(outline.period, line.period);
    read(outline.harmonics, line.harmonics);
    read(outline.along, line.along);
    read(outline.weights, line.weights);
    if (!outline.where.empty()) {
        ParsedExpression parsed = parseExpression(outline.where, inScope, Wanted::Condition);
        line.where = parsed.expression;
        line.problems.insert(line.problems.end(), parsed.problems.begin(), parsed.problems.end());
    }
    for (const std::vector<Token>& tokens : outline.arguments) read(tokens, line.arguments.emplace_back());
    for (const std::vector<Token>& tokens : outline.pitch) read(tokens, line.pitch.emplace_back());
    for (const std::vector<Token>& tokens : outline.origin) read(tokens, line.origin.emplace_back());
    return line;
}

} // namespace coulter
