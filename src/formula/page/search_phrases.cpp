// What is looked for along an interval or over a rectangle, and what is measured there. See line_phrases.h.
#include "formula/notation/parser.h"
#include "formula/page/line_phrases.h"

#include <algorithm>
#include <array>
#include <optional>

namespace coulter {
namespace {

constexpr std::array<std::pair<const char*, Sought>, 5> soughtWords{{{"zeros", Sought::Zeros},
                                                                     {"extrema", Sought::Extrema},
                                                                     {"maximum", Sought::Maximum},
                                                                     {"minimum", Sought::Minimum},
                                                                     {"inflections", Sought::Inflections}}};
constexpr std::array<std::pair<const char*, Measure>, 4> measureWords{
    {{"length", Measure::Length}, {"mean", Measure::Mean}, {"area", Measure::Area}, {"volume", Measure::Volume}}};
constexpr const char* searchExample = "write f(x) = 0 for x in [0, 10], or maximum of f(x) for x in [0, 10]";

bool isAmong(const Token& token, const auto& words) {
    return std::ranges::any_of(words, [&](const auto& each) { return isWord(token, each.first); });
}

/// x in [0, 1], or x alone, up to the end; of two variables x in [0, 1], y in [0, 2 - x], whose second ends are
/// arguments.
bool readVariables(LineOutline& out, const std::vector<Token>& tokens, std::size_t at, const std::string& example) {
    Line& line = out.line;
    const auto refuse = [&](Span place, const std::string& sentence, const std::string& suggestion) {
        report(line, place, sentence, suggestion);
        return false;
    };
    const std::size_t end = tokens.size() - 1;
    std::vector<std::vector<Token>> ends;
    Interval first;
    for (std::size_t begin = std::min(at, end); line.parameters.empty() || begin < end;) {
        std::size_t comma = begin;
        for (int depth = 0; comma < end && !(isSymbol(tokens[comma], ",") && depth == 0); ++comma)
            depth += deeper(tokens[comma]);
        const std::vector<Token> one = slice(tokens, begin, comma);
        std::string name;
        const std::size_t length = readName(one, name);
        if (length == 0) return refuse(tokens[begin].span, "A variable is missing after “for”.", example);
        if (std::ranges::count(line.parameters, name) > 0)
            return refuse(tokens[begin].span, "The variable " + name + " stands here twice.", "");
        line.parameters.push_back(name);
        if (isWord(one[length], "in")) {
            if (isSymbol(one[length + 1], "{")) // the cases of a plot
                return refuse({tokens[0].span.first, tokens.back().span.first - 1}, std::string(definesNothing),
                              "write f(x) = … to name a formula, or … = ? to ask for a value");
            if (!outlineInterval(out, one, name, length + 1)) return false;
        } else if (one[length].kind != TokenKind::End) {
            return refuse(one[length].span, "An interval is missing here.", "write " + name + " in [0, 1]");
        }
        if (line.parameters.size() == 1)
            first = line.interval;
        else
            line.across = line.interval;
        ends.push_back(std::move(out.low));
        ends.push_back(std::move(out.high));
        out.low.clear();
        out.high.clear();
        if (comma < end && comma + 1 == end)
            return refuse(tokens[comma].span, "A variable is missing after this comma.", example);
        begin = comma + 1;
    }
    if (line.parameters.size() > 2)
        return refuse(line.nameSpan, "There are more than two variables here.",
                      "nest integrals for more: int int int …");
    if (line.parameters.size() == 2 && ends[0].empty() != ends[2].empty())
        return refuse(line.nameSpan, "Of two variables both intervals are said, or neither.",
                      "write for " + line.parameters[0] + " in [0, 1], " + line.parameters[1] + " in [0, 1]");
    line.interval = first;
    out.low = std::move(ends[0]);
    out.high = std::move(ends[1]);
    if (line.parameters.size() == 2 && !ends[2].empty()) out.arguments = {std::move(ends[2]), std::move(ends[3])};
    return true;
}

/// z = …, or (a, b) = … before what is looked for: the token behind the equals sign; 0 if nothing is named.
std::size_t readNamesOfPlaces(const std::vector<Token>& tokens, std::vector<std::string>& names) {
    const bool bracket = isSymbol(tokens[0], "(");
    std::size_t at = bracket ? 1 : 0;
    do {
        const std::size_t length = readName(std::span(tokens).subspan(at), names.emplace_back());
        if (length == 0) return 0;
        at += length;
    } while (bracket && isSymbol(tokens[at], ",") && ++at < tokens.size() - 1);
    if (bracket && !isSymbol(tokens[at++], ")")) return 0;
    if (!isSymbol(tokens[at], "=")) return 0;
    return isAmong(tokens[at + 1], soughtWords) || isAmong(tokens[at + 1], measureWords) ? at + 1 : 0;
}

void outlineMeasure(LineOutline& out, const std::vector<Token>& formula, bool inRows, const Token& rows, bool hasName) {
    Line& line = out.line;
    const bool ofSurface = line.measure == Measure::Volume, takesTwo = ofSurface || line.measure == Measure::Mean;
    if (inRows)
        return report(line, rows.span, "Only an equation holds in all rows or not.", "write s = f(t) for all rows");
    if (line.parameters.size() > 1 && !takesTwo)
        return report(line, line.nameSpan, "Only a volume or a mean is taken over two variables.",
                      "write volume of h(x, y) for x in [0, 1], y in [0, 1]");
    if (line.parameters.size() < 2 && ofSurface)
        return report(line, line.nameSpan, "A volume lies under a surface, over two variables.",
                      "write volume of h(x, y) for x in [0, 1], y in [0, 1]");
    if (line.parameters.size() == 2 && out.arguments.empty())
        return report(line, line.nameSpan, "Of a region both intervals are said.",
                      "write for " + line.parameters[0] + " in [0, 1], " + line.parameters[1] + " in [0, 1]");
    if (line.unknowns.size() > 1) return report(line, line.nameSpan, "A measure is one number.", "give it one name");
    line.unknowns.clear();
    out.body = formula;
    line.kind = hasName ? LineKind::Quantity : LineKind::Question;
}

/// Of two variables extrema are sought, or places where two equations hold; whether the line asks for that.
bool fitsPlane(Line& line, std::size_t equations, bool everywhere) {
    const std::string x = line.parameters[0], y = line.parameters[1], args = "(" + x + ", " + y + ")";
    const std::string over = " for " + x + " in [0, 1], " + y + " in [0, 1]";
    const auto refuse = [&](const std::string& sentence, const std::string& suggestion) {
        report(line, line.nameSpan, sentence, suggestion);
        return false;
    };
    if (everywhere || line.sought == Sought::Inflections)
        return refuse("This is looked for along one variable.",
                      "fix the other one: f(" + x + ", 2) for " + x + " in [0, 1]");
    if (equations == 1)
        return refuse("One equation over two variables holds along a curve.",
                      "draw it, by a line without “for”; or add a second one: f" + args + " = 0 and g" + args + " = 0" +
                          over);
    if (equations > 2) return refuse("Two equations decide where two variables are.", "leave out what is more");
    return true;
}

/// Whether there are as many names as an answer has columns.
bool fitNames(Line& line) {
    const std::size_t places = line.parameters.size(), names = line.unknowns.size();
    const bool withValues = line.sought != Sought::Zeros;
    if (names == 0 || names == places || (withValues && names == places + 1)) return true;
    const std::string one = places == 1 ? "z = …" : "(a, b) = …", more = places == 1 ? "(a, b) = …" : "(a, b, c) = …";
    report(line, line.nameSpan,
           places == 1 ? "Places along one variable are one column." : "Places over two variables are two columns.",
           "write " + one + (withValues ? "; or " + more + " with what the function is worth there" : ""));
    return false;
}

} // namespace

void outlineSearch(LineOutline& out, const std::vector<Token>& all) {
    Line& line = out.line;
    std::vector<Token> tokens = all;
    if (tokens.size() > 3 && isSymbol(tokens[tokens.size() - 2], "?") && isSymbol(tokens[tokens.size() - 3], "="))
        tokens = slice(tokens, 0, tokens.size() - 3);
    const std::size_t at = wordOutside(tokens, "for");
    // z = zeros of …: the places are a column of this name.
    const std::size_t start = readNamesOfPlaces(tokens, line.unknowns);
    if (start == 0) line.unknowns.clear();
    std::size_t begin = start;
    std::optional<Sought> sought;
    for (const auto& [word, meaning] : soughtWords) {
        if (!isWord(tokens[start], word)) continue;
        sought = meaning;
        if (!isWord(tokens[start + 1], "of"))
            return report(line, tokens[start + 1].span, "The word “of” is missing after “" + std::string(word) + "”.",
                          "write " + std::string(word) + " of f(x) for x in [0, 10]");
        begin = start + 2;
    }
    for (const auto& [word, meaning] : measureWords) {
        if (!isWord(tokens[start], word) || !isWord(tokens[start + 1], "of")) continue;
        line.measure = meaning;
        begin = start + 2;
    }
    if (start > 0) line.name = line.unknowns.front();
    if (begin >= at) return report(line, tokens[at].span, "What is looked at is missing before “for”.", searchExample);
    const bool everywhere = isWord(tokens[at + 1], "all"); // f(x) = g(x) for all x in [0, 1]
    line.nameSpan = {tokens[0].span.first, tokens[start > 0 ? start - 2 : at - 1].span.last};
    const bool inRows = everywhere && isWord(tokens[at + 2], "rows") && tokens[at + 3].kind == TokenKind::End;
    if (!inRows && !readVariables(out, tokens, everywhere ? at + 2 : at + 1, searchExample)) return;
    // Equations ask where they hold.
    std::vector<std::vector<Token>> equations;
    std::size_t equals = at, first = begin;
    int depth = 0;
    for (std::size_t i = begin; i <= at; ++i) {
        depth += i < at ? deeper(tokens[i]) : 0;
        if (equals == at && i < at && isSymbol(tokens[i], "=") && depth == 0) equals = i;
        if (i < at && !(isWord(tokens[i], "and") && depth == 0)) continue;
        equations.push_back(slice(tokens, first, i));
        first = i + 1;
    }
    if (equals < at && sought)
        return report(line, tokens[equals].span, "An equation has no " + tokens[start].text + ".",
                      "leave out “" + tokens[start].text + " of”");
    if (line.measure != Measure::None)
        return outlineMeasure(out, slice(tokens, begin, at), inRows, tokens[std::min(at + 2, tokens.size() - 1)],
                              start > 0);
    if (equals == at && !sought && !inRows)
        return report(line, line.nameSpan, "What is looked for along " + line.parameters[0] + " is not said.",
                      searchExample);
    if (everywhere && (equals == at || start > 0))
        return report(line, {tokens[at].span.first, tokens[at + 1].span.last},
                      inRows ? "Only an equation holds in all rows or not."
                             : "Only an equation holds for all places or not.",
                      inRows ? "write s = f(t) for all rows" : "write f(x) = g(x) for all x in [0, 1]");
    line.sought = inRows ? Sought::InRows : everywhere ? Sought::Everywhere : sought.value_or(Sought::Zeros);
    if (line.parameters.size() == 2 && !fitsPlane(line, equals < at ? equations.size() : 0, everywhere)) return;
    if (!fitNames(line)) return;
    if (line.unknowns.size() == 1) line.unknowns.clear(); // the line is called so itself
    if (equals < at && line.parameters.size() != 2) equations = {slice(tokens, begin, at)};
    if (equals < at)
        out.equations = std::move(equations);
    else
        out.body = slice(tokens, begin, at);
    line.kind = LineKind::Search;
}

} // namespace coulter
