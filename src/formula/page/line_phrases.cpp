#include "formula/page/line_phrases.h"

#include "formula/notation/parser.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <optional>

namespace coulter {

void report(Line& line, Span span, std::string sentence, std::string suggestion) {
    line.problems.push_back({-1, span.first, span.last, std::move(sentence), std::move(suggestion)});
}

std::vector<Token> slice(const std::vector<Token>& tokens, std::size_t begin, std::size_t end) {
    std::vector<Token> part(tokens.begin() + static_cast<std::ptrdiff_t>(begin),
                            tokens.begin() + static_cast<std::ptrdiff_t>(end));
    Token stop;
    stop.span = {tokens[end].span.first, tokens[end].span.first};
    part.push_back(stop);
    return part;
}

std::size_t wordOutside(const std::vector<Token>& tokens, std::string_view word) {
    int depth = 0;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        depth += deeper(tokens[i]);
        if (depth == 0 && isWord(tokens[i], word)) return i;
    }
    return tokens.size();
}

int deeper(const Token& token) {
    if (isSymbol(token, "(") || isSymbol(token, "{") || isSymbol(token, "[")) return 1;
    return isSymbol(token, ")") || isSymbol(token, "}") || isSymbol(token, "]") ? -1 : 0;
}

bool outlineInterval(LineOutline& out, const std::vector<Token>& tokens, const std::string& name, std::size_t at) {
    Line& line = out.line;
    const std::size_t end = tokens.size() - 1;
    const bool opens = isSymbol(tokens[at], "[") || isSymbol(tokens[at], "(");
    if (at >= end || !opens) {
        report(line, tokens[at].span, "An interval is missing here.", "write " + name + " in [0, 1]");
        return false;
    }
    const bool closes = isSymbol(tokens[end - 1], "]") || isSymbol(tokens[end - 1], ")");
    if (!closes || end - 1 == at) {
        report(line, tokens[at].span, "This “" + tokens[at].text + "” of the interval is never closed.",
               "add “]” for a closed end or “)” for an open one");
        return false;
    }
    std::size_t comma = end;
    int depth = 0;
    for (std::size_t i = at + 1; i < end - 1; ++i) {
        depth += deeper(tokens[i]);
        if (isSymbol(tokens[i], ",") && depth == 0) {
            comma = i;
            break;
        }
    }
    if (comma == end) {
        report(line, {tokens[at].span.first, tokens[end - 1].span.last},
               "An interval has two ends, separated by a comma.", "write " + name + " in [0, 1]");
        return false;
    }
    line.interval.lowClosed = isSymbol(tokens[at], "[");
    line.interval.highClosed = isSymbol(tokens[end - 1], "]");
    out.low = slice(tokens, at + 1, comma);
    out.high = slice(tokens, comma + 1, end - 1);
    return true;
}

namespace {

struct NamesForm {
    const char* word;    ///< what the names stand before
    const char* missing; ///< what is said where a name is missing
    const char* twice;   ///< of a name that stands there twice
    const char* example;
};

/// (a, b) before a word, or one name alone: whether they could be read. The line is called by the first.
bool readNames(LineOutline& out, const std::vector<Token>& tokens, const NamesForm& form, std::size_t& after) {
    Line& line = out.line;
    const auto refuse = [&](Span place, const std::string& sentence) {
        report(line, place, sentence, std::string("write ") + form.example);
        return false;
    };
    const std::size_t end = tokens.size() - 1;
    std::size_t at = isSymbol(tokens[0], "(") ? 1 : 0;
    const bool bracket = at == 1;
    do {
        std::string name;
        const std::size_t length = readName(std::span(tokens).subspan(at), name);
        if (length == 0) return refuse(tokens[at].span, form.missing);
        if (std::ranges::count(line.unknowns, name) > 0) {
            report(line, tokens[at].span, std::string(form.twice) + name + " stands here twice.");
            return false;
        }
        line.unknowns.push_back(name);
        at += length;
    } while (isSymbol(tokens[at], ",") && ++at < end);
    if (bracket && isSymbol(tokens[at], ")")) ++at;
    if (!isWord(tokens[at], form.word) && !isSymbol(tokens[at], form.word))
        return refuse(tokens[at].span, form.missing);
    line.name = line.unknowns.front();
    line.nameSpan = {tokens[0].span.first, tokens[at - 1].span.last};
    after = at + 1;
    return true;
}

/// Equations from a token on, separated by commas; whether they could be read.
bool readEquations(LineOutline& out, const std::vector<Token>& tokens, std::size_t begin, const char* example) {
    const std::size_t end = tokens.size() - 1;
    int depth = 0;
    for (std::size_t i = begin; i <= end; ++i) {
        depth += deeper(tokens[i]);
        if (i != end && !(isSymbol(tokens[i], ",") && depth <= 0)) continue;
        if (i == begin) {
            report(out.line, tokens[i].span, "A condition is missing here.", example);
            return false;
        }
        out.equations.push_back(slice(tokens, begin, i));
        begin = i + 1;
    }
    return true;
}

} // namespace

void outlineSolution(LineOutline& out, const std::vector<Token>& tokens) {
    std::size_t after = 0;
    const NamesForm form{"solves", "The unknowns that are to be found stand before “solves”.", "The unknown ",
                         "(a, b) solves 2a + b = 5, a - 4b = 1"};
    if (readNames(out, tokens, form, after) && readEquations(out, tokens, after, "write it as 2a + b = 5"))
        out.line.kind = LineKind::Solution;
}

void outlineFit(LineOutline& out, const std::vector<Token>& tokens) {
    std::size_t after = 0;
    const NamesForm form{"fits", "The coefficients that are to be found stand before “fits”.", "The coefficient ",
                         "(a, b) fits s = a + b t"};
    if (!readNames(out, tokens, form, after) || !readEquations(out, tokens, after, "write it as s = a + b t")) return;
    if (out.equations.size() != 1)
        return report(out.line, out.line.nameSpan, "A fit is made to one equation.",
                      "write each fit on a line of its own");
    out.line.kind = LineKind::Fit;
}

namespace {

/// p(x, y) before a word at a token: whether it could be read as a function.
bool readFunctionHead(LineOutline& out, const std::vector<Token>& tokens, std::size_t at, const char* missing,
                      const std::string& example) {
    Line& line = out.line;
    const Span place{tokens[0].span.first, tokens[at].span.last};
    std::string name;
    const std::size_t length = readName(tokens, name);
    if (length == 0 || !isSymbol(tokens[length], "(") || !isSymbol(tokens[at - 1], ")")) {
        report(line, place, missing, example);
        return false;
    }
    for (std::size_t i = length + 1; i < at; ++i) {
        std::string parameter;
        const std::size_t inside = readName(std::span(tokens).subspan(i), parameter);
        i += inside;
        if (inside == 0 || i >= at || !(isSymbol(tokens[i], ",") || i == at - 1)) {
            report(line, place, missing, example);
            return false;
        }
        if (std::ranges::count(line.parameters, parameter) > 0) {
            report(line, place, "The parameter " + parameter + " stands here twice.");
            return false;
        }
        line.parameters.push_back(parameter);
    }
    line.name = name;
    line.nameSpan = {tokens[0].span.first, tokens[length - 1].span.last};
    return true;
}

/// Columns in brackets after the token `at`, each an expression; the token after them, or 0 with a problem.
std::size_t readColumns(LineOutline& out, const std::vector<Token>& tokens, std::size_t at,
                        const std::string& example) {
    const std::size_t end = tokens.size() - 1;
    const std::string word = tokens[at++].text;
    const auto refuse = [&] {
        report(out.line, tokens[std::min(at, end)].span, "Columns in brackets follow “" + word + "”.", example);
        return std::size_t{0};
    };
    if (at >= end || !isSymbol(tokens[at], "(")) return refuse();
    int depth = 0;
    std::size_t begin = at + 1;
    for (std::size_t i = at; i < end; ++i) {
        depth += deeper(tokens[i]);
        const bool closes = depth == 0;
        if (!closes && !(isSymbol(tokens[i], ",") && depth == 1)) continue;
        if (i == begin) return refuse();
        out.arguments.push_back(slice(tokens, begin, i));
        begin = i + 1;
        if (closes) return i + 1;
    }
    return refuse();
}

} // namespace

void outlineTable(LineOutline& out, const std::vector<Token>& tokens) {
    std::size_t after = 0;
    if (!isSymbol(tokens[0], "(") && wordOutside(tokens, "from") > 2) return outlineMeasured(out, tokens, "from");
    const NamesForm form{"from", "The names of the columns stand before “from”.", "The column ",
                         "(t, s) from \"readings.csv\""};
    if (!readNames(out, tokens, form, after)) return;
    Line& line = out.line;
    if (tokens[after + 1].kind != TokenKind::End)
        return report(line, tokens[after + 1].span, "Nothing follows the name of a table but a comma and a clause.",
                      "such as “, columns 1, 3”");
    line.table = tokens[after].text;
    if (line.table.empty()) return report(line, tokens[after].span, "The name of the table is empty.");
    line.kind = LineKind::Table;
}

void outlineMeasured(LineOutline& out, const std::vector<Token>& tokens, std::string_view word) {
    Line& line = out.line;
    const std::size_t at = wordOutside(tokens, word);
    const std::string example = "write p(x, y) " + std::string(word) + " \"slice.tif\"";
    if (!readFunctionHead(out, tokens, at, "A function stands before the name of a file of its values.", example))
        return;
    if (tokens[at + 2].kind != TokenKind::End)
        return report(line, tokens[at + 2].span, "Nothing follows the name of a file but a comma and a clause.",
                      "such as “, pitch 0.05”");
    line.table = tokens[at + 1].text;
    if (line.table.empty()) return report(line, tokens[at + 1].span, "The name of the file is empty.");
    line.interpolates = word == "interpolates";
    line.kind = LineKind::Function;
}

void outlineInterpolation(LineOutline& out, const std::vector<Token>& tokens) {
    Line& line = out.line;
    const std::size_t at = wordOutside(tokens, "interpolates");
    if (tokens[at + 1].kind == TokenKind::String) return outlineMeasured(out, tokens, "interpolates");
    const std::size_t on = wordOutside(tokens, "on"), end = tokens.size() - 1;
    const std::string example =
        on < end ? "write h(x, y) interpolates (X, Y, H) on (a, b, c)" : "write S(x) interpolates (t, s)";
    const char* missing = on < end ? "A function of two variables stands before “interpolates”."
                                   : "A function of one variable stands before “interpolates”.";
    if (!readFunctionHead(out, tokens, at, missing, example)) return;
    std::size_t next = readColumns(out, tokens, at, example);
    if (next == 0) return;
    const Span place{tokens[at + 1].span.first, tokens[next - 1].span.last};
    const std::size_t columns = out.arguments.size(), variables = line.parameters.size();
    if (on == next) {
        next = readColumns(out, tokens, on, example);
        if (next == 0) return;
        const std::size_t corners = out.arguments.size() - columns;
        if (variables != 2 || columns != 3)
            return report(line, place, "Over elements two variables run, and nodes have two coordinates and a value.",
                          example);
        if (corners != 3 && corners != 4)
            return report(line, tokens[on].span, "An element has three nodes or four.", example);
    } else if (variables == 2 && columns == 3 && next == end) {
        return report(line, place, "It is not said which nodes belong together.",
                      "name the columns of each element's nodes: on (a, b, c)");
    } else if (variables != 1 || columns != 2) {
        return report(line, place, "A function of one variable interpolates two columns.", example);
    }
    if (next != end)
        return report(line, tokens[next].span, "Nothing follows these columns but a comma and a clause.", example);
    line.interpolates = true;
    line.kind = LineKind::Function;
}

bool isFourierSum(const std::vector<Token>& tokens, std::size_t at) {
    return at + 3 < tokens.size() && isWord(tokens[at], "Fourier") && isWord(tokens[at + 1], "sum") &&
           isWord(tokens[at + 2], "of");
}

void outlineFourier(LineOutline& out, const std::vector<Token>& tokens) {
    struct Form {
        Transform transform;
        std::size_t words, names;
        const char *wanted, *example;
    };
    static constexpr std::array<Form, 5> forms{
        {{Transform::Coefficients, 2, 3, "Coefficients are three columns: the orders, and those of cos and of sin.",
          "(n, a, b) = Fourier coefficients of r(t)"},
         {Transform::ComplexCoefficients, 3, 3,
          "Complex coefficients are three columns: the orders, their real parts and their imaginary parts.",
          "(n, p, q) = complex Fourier coefficients of r(t)"},
         {Transform::Overshoot, 2, 2, "An overshoot is two columns: the harmonics, and how far each sum overshoots.",
          "(N, h) = Fourier overshoot of r(t) at 2"},
         {Transform::Derivative, 2, 1, "A spectral derivative is one column.", "w = spectral derivative of u by t"},
         {Transform::Spectrum, 1, 2, "A spectrum is two columns: wave numbers and amplitudes.",
          "(k, A) = spectrum of u by t"}}};
    Line& line = out.line;
    const std::size_t end = tokens.size() - 1, fourier = wordOutside(tokens, "Fourier");
    const bool isComplex = fourier < end && fourier > 0 && isWord(tokens[fourier - 1], "complex"),
               isOvershoot = fourier < end && isWord(tokens[fourier + 1], "overshoot");
    const Form& form = forms[isComplex                               ? 1
                             : isOvershoot                           ? 2
                             : fourier < end                         ? 0
                             : wordOutside(tokens, "spectral") < end ? 3
                                                                     : 4];
    std::size_t at = 0;
    const NamesForm names{"=", "The names of the columns stand before “=”.", "The column ", form.example};
    if (!readNames(out, tokens, names, at)) return;
    const std::string example = std::string("write ") + form.example;
    if (line.unknowns.size() != form.names) return report(line, line.nameSpan, form.wanted, example);
    at += form.words;
    if (at >= end || !isWord(tokens[at], "of"))
        return report(line, tokens[std::min(at, end)].span, "The word “of” is missing here.", example);
    const bool ofSamples = form.transform == Transform::Derivative || form.transform == Transform::Spectrum;
    const std::size_t by = isOvershoot ? std::min(end, wordOutside(tokens, "at"))
                           : ofSamples ? std::min(end, wordOutside(tokens, "by"))
                                       : end;
    if (at + 1 >= by) return report(line, tokens[at].span, "What is looked at is missing here.", example);
    out.body = slice(tokens, at + 1, by);
    if (isOvershoot && by + 1 >= end)
        return report(line, tokens[by].span, "The place of the jump is missing here.", example);
    if (by < end && by + 1 == end) return report(line, tokens[by].span, "A column is missing after “by”.", example);
    if (by < end) out.along = slice(tokens, by + 1, end);
    line.transform = form.transform;
    if (!ofSamples) {
        // r(t): along its variable, whatever that is elsewhere.
        std::string function, variable;
        const std::size_t length = readName(std::span(tokens).subspan(at + 1), function), open = at + 1 + length;
        const std::size_t inside =
            length > 0 && isSymbol(tokens[open], "(") ? readName(std::span(tokens).subspan(open + 1), variable) : 0;
        if (inside == 0 || !isSymbol(tokens[open + 1 + inside], ")") || open + 2 + inside != by)
            return report(line, {tokens[at + 1].span.first, tokens[by - 1].span.last},
                          "Coefficients belong to a function of the page.",
                          "name it on a line of its own, then " + example);
        line.parameters = {variable};
    }
    line.kind = LineKind::Fourier;
}

} // namespace coulter
