// The lines of a page as they are set. See formula_math.h.
#include "formula/base/text.h"
#include "formula/lines/answer.h"
#include "formula/lines/matrices.h"
#include "formula/measured/measured_field.h"
#include "formula/notation/expr_build.h"
#include "typeset/answer_math.h"
#include "typeset/formula_parts.h"
#include "typeset/line_parts.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coulter {

namespace {

void appendGrid(std::vector<MathPtr>& parts, const Line& line) {
    const auto say = [&](const std::string& word, const ExprPtr& value) {
        parts.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
        parts.push_back(mathSpace(0.35));
        parts.push_back(mathWord(word, MathClass::Ordinary, Ink::Muted));
        if (!value) return;
        parts.push_back(mathSpace(0.3));
        parts.push_back(formulaMath(*value));
    };
    if (line.count) say("count", line.count);
    if (line.step) say("step", line.step);
    if (line.seed) say("seed", line.seed);
    if (line.grid.logarithmic) say("logarithmic", nullptr);
}

/// The condition that chooses rows of columns.
void appendWhere(std::vector<MathPtr>& parts, const Line& line) {
    if (!line.where) return;
    parts.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
    appendWord(parts, "where");
    parts.push_back(formulaMath(*line.where));
}

/// “(a, b) = (2, 1) solves”, then the conditions one by one; of a fit in the same way.
std::vector<MathPtr> solutionTerms(const Line& line) {
    std::vector<MathPtr> head{namesMath(line)};
    const bool fits = line.kind == LineKind::Fit;
    if (line.values.size() == line.unknowns.size()) {
        head.push_back(mathSymbol("=", MathClass::Relation));
        head.push_back(fits ? coefficientsMath(line) : answerMath(line));
    }
    appendWord(head, fits ? "fits" : "solves");
    std::vector<MathPtr> terms;
    terms.push_back(mathRow(std::move(head)));
    for (const ExprPtr& equation : line.equations) {
        std::vector<MathPtr> part;
        part.push_back(formulaMath(*equation));
        if (equation != line.equations.back()) {
            part.push_back(mathSymbol(",", MathClass::Punctuation));
            part.push_back(mathSpace(0.3));
        }
        if (equation == line.equations.back()) {
            appendWhere(part, line);
            if (line.weights) {
                part.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
                appendWord(part, "weights");
                part.push_back(formulaMath(*line.weights));
            }
        }
        terms.push_back(mathRow(std::move(part)));
    }
    return terms;
}

/// What a matrix is called, its formula, and (where that is no matrix already) what comes out.
std::vector<MathPtr> matrixTerms(const Line& line) {
    std::vector<MathPtr> head{nameMath(line.name), mathSymbol("=", MathClass::Relation)};
    const bool isWritten = line.matrix->made.empty();
    if (!isWritten && line.body) head.push_back(formulaMath(*line.body));
    if (!isWritten) head.push_back(mathSymbol("=", MathClass::Relation));
    head.push_back(matrixMath(*line.matrix, isWritten ? Ink::Plain : Ink::Answer));
    appendUnit(head, line.unit);
    return {mathRow(std::move(head))};
}

/// “(t, s) from readings.csv”, then how many rows there are.
/// Columns in brackets; null if one of them could not be read.
MathPtr columnsMath(std::span<const ExprPtr> columns) {
    std::vector<MathPtr> parts;
    for (const ExprPtr& each : columns) {
        if (!each) return nullptr;
        if (!parts.empty()) parts.push_back(mathSymbol(",", MathClass::Punctuation));
        parts.push_back(formulaMath(*each));
    }
    return mathFenced("(", mathRow(std::move(parts)), ")");
}

/// How far apart places are that are even but for rounding; empty if they are not.
std::string pitchOf(std::span<const double> places) {
    if (places.size() < 2) return "";
    const double pitch = (places.back() - places.front()) / static_cast<double>(places.size() - 1);
    for (std::size_t i = 1; i < places.size(); ++i) {
        if (std::abs(places[i] - places[i - 1] - pitch) > 1e-6 * pitch) return "";
    }
    return roundedNumber(pitch, 6);
}

/// A function whose values are measured: what it stands between, or the file, then how many numbers it has.
std::vector<MathPtr> measuredTerms(const Line& line) {
    std::vector<MathPtr> parameters;
    for (const std::string& parameter : line.parameters) {
        if (!parameters.empty()) parameters.push_back(mathSymbol(",", MathClass::Punctuation));
        parameters.push_back(nameMath(parameter));
    }
    std::vector<std::vector<MathPtr>> terms{{applicationMath(nameMath(line.name), mathRow(std::move(parameters)))}};
    appendWord(terms[0], line.interpolates ? "interpolates" : "from");
    if (line.table.empty()) {
        const std::size_t values = line.parameters.size() == 1 ? 2 : 3;
        const std::span<const ExprPtr> all(line.arguments);
        if (all.size() < values) return {};
        terms[0].push_back(columnsMath(all.first(values)));
        if (all.size() > values) {
            terms.emplace_back();
            appendWord(terms.back(), "on");
            terms.back().push_back(columnsMath(all.subspan(values)));
        }
    } else {
        terms[0].push_back(mathWord("“" + line.table + "”"));
    }
    for (const auto& term : terms) {
        if (std::ranges::find(term, nullptr) != term.end()) return {};
    }
    if (line.field) {
        std::string size;
        if (line.field->mesh()) {
            size = std::to_string(line.field->mesh()->elements.size()) + " elements";
        } else {
            for (std::size_t k = 0; k < line.field->variables(); ++k)
                size += (k == 0 ? "" : " × ") + std::to_string(line.field->places(k).size());
            const std::string across = pitchOf(line.field->places(0)), up = pitchOf(line.field->places(1));
            if (!across.empty() && !up.empty()) size += ", pitch " + across + (across == up ? "" : ", " + up);
        }
        terms.back().push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
        terms.emplace_back();
        appendWord(terms.back(), size);
        appendUnit(terms.back(), line.unit);
    }
    std::vector<MathPtr> rows;
    for (auto& term : terms) rows.push_back(mathRow(std::move(term)));
    return rows;
}

std::vector<MathPtr> tableTerms(const Line& line) {
    std::vector<MathPtr> head{namesMath(line)};
    appendWord(head, "from");
    head.push_back(mathWord("“" + line.table + "”"));
    if (line.columns.empty()) return {mathRow(std::move(head))};
    const auto counting = static_cast<std::size_t>(
        std::ranges::count_if(*line.columns[0], [](double value) { return !std::isnan(value); }));
    const std::size_t rows = line.columns[0]->size();
    const std::string all = std::to_string(rows) + (rows == 1 ? " row" : " rows");
    std::vector<MathPtr> end;
    appendWord(
        end, counting == rows ? all : std::to_string(counting) + " of " + all + (counting == 1 ? " counts" : " count"));
    return {mathRow(std::move(head)), mathRow(std::move(end))};
}

/// The terms of a sum, with the signs before them.
void collectTerms(const Expr& e, std::vector<std::pair<const char*, const Expr*>>& terms) {
    if (e.kind != ExprKind::Add && e.kind != ExprKind::Subtract) {
        terms.emplace_back("", &e);
        return;
    }
    collectTerms(*e.operands[0], terms);
    terms.emplace_back(e.kind == ExprKind::Add ? "+" : "−", e.operands[1].get());
}

MathPtr signedTerm(const char* sign, MathPtr term) {
    return *sign == 0 ? term : mathRow({mathSymbol(sign, MathClass::Binary), std::move(term)});
}

/// Longer formulas do not fit in a row, in letters of their spelling.
constexpr std::size_t longestInRow = 60;

const Expr& withoutBrackets(const Expr& e) { return e.kind == ExprKind::Group ? *e.operands[0] : e; }

/// One term of a sum; a long fraction k (a + b − c)/d as k/d before the terms of its sum.
void addTerm(std::vector<MathPtr>& all, const char* sign, const Expr& term) {
    const bool isNegative = term.kind == ExprKind::Negate;
    const Expr& fraction = isNegative ? *term.operands[0] : term;
    const Expr* above = fraction.kind == ExprKind::Divide ? &withoutBrackets(*fraction.operands[0]) : nullptr;
    const Expr* factor = nullptr;
    if (above && above->kind == ExprKind::Multiply) {
        factor = above->operands[0].get();
        above = &withoutBrackets(*above->operands[1]);
    }
    std::vector<std::pair<const char*, const Expr*>> inner;
    if (above && spelled(term).size() > longestInRow) collectTerms(*above, inner);
    if (inner.size() < 2) {
        all.push_back(signedTerm(sign, formulaMath(term)));
        return;
    }
    std::vector<MathPtr> head;
    if (isNegative) head.push_back(mathSymbol("−"));
    head.push_back(mathFraction(factor ? formulaMath(*factor) : mathSymbol("1"),
                                formulaMath(withoutBrackets(*fraction.operands[1]))));
    head.push_back(mathSymbol("("));
    head.push_back(formulaMath(*inner[0].second));
    all.push_back(signedTerm(sign, mathRow(std::move(head))));
    for (std::size_t i = 1; i < inner.size(); ++i) {
        const MathPtr further = signedTerm(inner[i].first, formulaMath(*inner[i].second));
        all.push_back(i + 1 < inner.size() ? further : mathRow({further, mathSymbol(")")}));
    }
}

/// A formula such as a = b + c − d; one that is too long for a row is divided before its signs.
void addFormula(std::vector<MathPtr>& all, const Expr& formula) {
    if (formula.kind != ExprKind::Compare || spelled(formula).size() <= longestInRow) {
        all.push_back(formulaMath(formula));
        return;
    }
    std::vector<std::pair<const char*, const Expr*>> terms;
    collectTerms(*formula.operands[1], terms);
    const std::size_t first = all.size();
    for (const auto& [sign, term] : terms) addTerm(all, sign, *term);
    all[first] = mathRow({formulaMath(*formula.operands[0]), mathSymbol("=", MathClass::Relation), all[first]});
}

/// What is analysed, then what was taken as the period, and the harmonics that there are.
std::vector<MathPtr> fourierTerms(const Line& line) {
    const bool spectrum = line.transform == Transform::Spectrum;
    std::vector<MathPtr> head{namesMath(line), mathSymbol("=", MathClass::Relation)};
    static constexpr const char* words[] = {"",
                                            "Fourier coefficients of",
                                            "complex Fourier coefficients of",
                                            "Fourier overshoot of",
                                            "",
                                            "spectral derivative of",
                                            "spectrum of"};
    appendWord(head, words[static_cast<std::size_t>(line.transform)]);
    if (line.body) head.push_back(formulaMath(*line.body));
    if (line.along) {
        appendWord(head, line.transform == Transform::Overshoot ? "at" : "by");
        head.push_back(formulaMath(*line.along));
    }
    if (!line.value) return {mathRow(std::move(head))};
    head.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
    std::vector<MathPtr> end;
    appendWord(end, "period");
    end.push_back(valueMath(roundedNumber(*line.value, 6), Ink::Answer));
    std::vector<MathPtr> terms{mathRow(std::move(head))};
    if (spectrum) {
        end.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
        terms.push_back(mathRow(std::move(end)));
        end.clear();
        appendWord(end, "wave numbers");
        end.push_back(
            mathRow({nameMath(line.unknowns[0]), mathSymbol("=", MathClass::Relation), mathSymbol("2"), nameMath("π"),
                     nameMath("m"), mathSymbol("/"), valueMath(roundedNumber(*line.value, 6), Ink::Answer)}));
    }
    const auto comma = [] { return mathWord(",", MathClass::Ordinary, Ink::Muted); };
    if (line.transform != Transform::Derivative) {
        const double last = spectrum ? static_cast<double>(line.columns[0]->size() - 1) : line.columns[0]->back();
        if (!spectrum) {
            end.push_back(comma());
            end.push_back(mathSpace(0.25));
        }
        end.push_back(mathWord("up to", MathClass::Ordinary, Ink::Muted));
        end.push_back(mathSpace(0.25));
        end.push_back(nameMath(spectrum ? "m" : line.unknowns[0]));
        end.push_back(mathSymbol("=", MathClass::Relation));
        end.push_back(valueMath(roundedNumber(last, 6), Ink::Answer));
    }
    terms.push_back(mathRow(std::move(end)));
    for (const ExprPtr& formula : line.equations) {
        terms.back() = mathRow({terms.back(), comma()});
        addFormula(terms, *formula);
    }
    return terms;
}

} // namespace

MathPtr lineMath(const Line& line) {
    std::vector<MathPtr> parts;
    switch (line.kind) {
    case LineKind::Quantity:
    case LineKind::Numbers:
        if (!line.body) return nullptr;
        parts = {nameMath(line.name), mathSymbol("=", MathClass::Relation)};
        if (line.plainNumber) {
            const auto letters = decodeUtf8(line.source);
            std::string digits;
            for (int i = line.plainNumber->first - 1; i < line.plainNumber->last; ++i) {
                const char32_t c = letters[static_cast<std::size_t>(i)];
                if (!isSpace(c)) digits += c == U'−' ? "-" : encodeUtf8(std::u32string(1, c));
            }
            parts.push_back(valueMath(digits, Ink::Number));
        } else {
            parts.push_back(formulaMath(*line.body));
        }
        appendUnit(parts, line.unit);
        appendWhere(parts, line);
        return mathRow(std::move(parts));
    case LineKind::Matrix: return mathRow(matrixTerms(line));
    case LineKind::Function: {
        if (line.isMeasured()) {
            std::vector<MathPtr> terms = measuredTerms(line);
            return terms.empty() ? nullptr : mathRow(std::move(terms));
        }
        if (!line.body) return nullptr;
        std::vector<MathPtr> parameters;
        for (const std::string& parameter : line.parameters) {
            if (!parameters.empty()) parameters.push_back(mathSymbol(",", MathClass::Punctuation));
            parameters.push_back(nameMath(parameter));
        }
        MathPtr head = applicationMath(nameMath(line.name), mathRow(std::move(parameters)));
        return mathRow({head, mathSymbol("=", MathClass::Relation), formulaMath(*line.body)});
    }
    case LineKind::Period: {
        if (!line.body) return nullptr;
        const MathPtr parameter = nameMath(line.parameters[0]);
        return mathRow({applicationMath(nameMath(line.name), mathRow({parameter, mathSymbol("+", MathClass::Binary),
                                                                      formulaMath(*line.body)})),
                        mathSymbol("=", MathClass::Relation), applicationMath(nameMath(line.name), parameter)});
    }
    case LineKind::Variable: {
        if (!line.low || !line.high) return nullptr;
        MathPtr ends =
            mathRow({formulaMath(*line.low), mathSymbol(",", MathClass::Punctuation), formulaMath(*line.high)});
        parts = {nameMath(line.name), mathSymbol("∈", MathClass::Relation),
                 mathFenced(line.interval.lowClosed ? "[" : "(", ends, line.interval.highClosed ? "]" : ")")};
        appendUnit(parts, line.unit);
        appendGrid(parts, line);
        return mathRow(std::move(parts));
    }
    case LineKind::Random: {
        std::vector<MathPtr> arguments;
        for (const ExprPtr& each : line.arguments) {
            if (!each) return nullptr;
            if (!arguments.empty()) arguments.push_back(mathSymbol(",", MathClass::Punctuation));
            arguments.push_back(formulaMath(*each));
        }
        const char* letter = line.distribution == Distribution::Normal ? "N" : "U";
        parts = {nameMath(line.name), mathSymbol("∼", MathClass::Relation),
                 applicationMath(mathWord(letter), mathRow(std::move(arguments)))};
        appendUnit(parts, line.unit);
        appendGrid(parts, line);
        return mathRow(std::move(parts));
    }
    case LineKind::Solution:
    case LineKind::Fit:
    case LineKind::Table:
    case LineKind::Fourier:
    case LineKind::Search: return mathRow(lineTerms(line));
    case LineKind::Drawn: {
        if (!line.body) return nullptr;
        parts = {formulaMath(*line.body)};
        if (const auto cases = line.source.find(" for "); !line.unknowns.empty() && cases != std::string::npos)
            appendWord(parts, line.source.substr(cases + 1));
        return mathRow(std::move(parts));
    }
    case LineKind::Question: {
        if (!line.body) return nullptr;
        parts = {formulaMath(*line.body), mathSymbol("=", MathClass::Relation), answerMath(line)};
        if (!line.unit.empty()) appendUnit(parts, line.unit);
        appendWhere(parts, line);
        return mathRow(std::move(parts));
    }
    default: return nullptr;
    }
}

std::vector<MathPtr> lineTerms(const Line& line) {
    if (line.kind == LineKind::Solution || line.kind == LineKind::Fit) return solutionTerms(line);
    if (line.kind == LineKind::Table) return tableTerms(line);
    if (line.isMeasured()) return measuredTerms(line);
    if (line.kind == LineKind::Search) return searchTerms(line);
    if (line.kind == LineKind::Fourier) return fourierTerms(line);
    if (line.kind == LineKind::Numbers && line.body && line.body->kind == ExprKind::List) {
        std::vector<MathPtr> terms = listTerms(*line.body);
        terms.front() =
            mathRow({nameMath(line.name), mathSymbol("=", MathClass::Relation), mathSymbol("{"), terms.front()});
        std::vector<MathPtr> end{terms.back(), mathSymbol("}")};
        appendUnit(end, line.unit);
        terms.back() = mathRow(std::move(end));
        return terms;
    }
    std::vector<std::pair<const char*, const Expr*>> terms;
    if (line.body && (line.kind == LineKind::Function || line.kind == LineKind::Quantity))
        collectTerms(*line.body, terms);
    if (terms.size() < 2) {
        const MathPtr whole = lineMath(line);
        return whole ? std::vector{whole} : std::vector<MathPtr>{};
    }
    Line first = line;
    first.body = std::make_shared<Expr>(*terms[0].second);
    first.unit.clear();
    std::vector<MathPtr> parts{lineMath(first)};
    for (std::size_t i = 1; i < terms.size(); ++i) {
        std::vector<MathPtr> part{signedTerm(terms[i].first, formulaMath(*terms[i].second))};
        if (i + 1 == terms.size() && line.kind == LineKind::Quantity) appendUnit(part, line.unit);
        parts.push_back(mathRow(std::move(part)));
    }
    return parts;
}

} // namespace coulter
