#include "typeset/answer_math.h"

#include "formula/base/text.h"
#include "formula/lines/matrices.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coulter {

namespace {

constexpr int shownDigits = 4; ///< behind a formula that is not asked

/// How many digits of a value its error leaves, at most ten.
int certainDigits(double value, double error) {
    if (!(error > 0) || !std::isfinite(error) || value == 0) return 10;
    return std::clamp(static_cast<int>(std::floor(std::log10(std::abs(value) / error))), 1, 10);
}

/// The first numbers of a column, and the last one.
MathPtr columnMath(const std::vector<double>& column) {
    constexpr std::size_t most = 6;
    std::vector<MathPtr> parts;
    for (std::size_t i = 0; i < column.size(); ++i) {
        if (i > 0) parts.push_back(mathSymbol(",", MathClass::Punctuation));
        if (column.size() > most && i == most - 1) {
            parts.push_back(mathSymbol("…"));
            parts.push_back(mathSymbol(",", MathClass::Punctuation));
            i = column.size() - 1;
        }
        parts.push_back(valueMath(roundedNumber(column[i], 6), Ink::Answer));
    }
    return mathFenced("{", mathRow(std::move(parts)), "}");
}

/// Whether a formula is no more than a number that is written out: 3, −2 · 10⁻⁴.
bool isWrittenNumber(const Expr& e) {
    switch (e.kind) {
    case ExprKind::Number: return true;
    case ExprKind::Negate:
    case ExprKind::Group:
    case ExprKind::Multiply:
    case ExprKind::Power:
        return std::ranges::all_of(e.operands, [](const ExprPtr& each) { return isWrittenNumber(*each); });
    default: return false;
    }
}

MathPtr quietWord(const std::string& word) { return mathWord(word, MathClass::Ordinary, Ink::Muted); }

} // namespace

void appendUnit(std::vector<MathPtr>& parts, const std::string& unit) {
    if (unit.empty() || unit == "1") return;
    parts.push_back(mathSpace(0.22));
    parts.push_back(unitMath(unit));
}

MathPtr matrixMath(const MatrixValue& matrix, Ink ink) {
    std::vector<std::vector<MathPtr>> rows;
    for (std::size_t i = 0; i < matrix.rows; ++i) {
        std::vector<MathPtr>& row = rows.emplace_back();
        for (std::size_t j = 0; j < matrix.columns; ++j) {
            const std::size_t at = i * matrix.columns + j;
            const int digits = std::min(8, certainDigits(matrix.values[at], matrix.errors[at]));
            row.push_back(valueMath(roundedNumber(matrix.values[at], digits), ink));
        }
    }
    if (matrix.isNumber()) return rows[0][0];
    return mathFenced("(", mathGrid(std::move(rows), false), ")");
}

MathPtr answerMath(const Line& line) {
    if (line.formula) return formulaMath(*line.formula);
    if (line.matrix) return matrixMath(*line.matrix, Ink::Answer);
    std::vector<MathPtr> parts;
    for (const Column& column : line.columns) {
        if (!parts.empty()) parts.push_back(mathSymbol(",", MathClass::Punctuation));
        parts.push_back(columnMath(*column));
    }
    for (std::size_t i = 0; i < line.values.size(); ++i) {
        if (i > 0) parts.push_back(mathSymbol(",", MathClass::Punctuation));
        const int digits = i < line.errors.size() ? certainDigits(line.values[i], line.errors[i]) : 10;
        parts.push_back(valueMath(roundedNumber(line.values[i], digits), Ink::Answer));
    }
    if (parts.empty()) return mathWord("?", MathClass::Ordinary, Ink::Answer);
    return parts.size() == 1 ? parts[0] : mathFenced("(", mathRow(std::move(parts)), ")");
}

MathPtr coefficientsMath(const Line& line) {
    std::vector<MathPtr> parts;
    for (std::size_t i = 0; i < line.values.size(); ++i) {
        if (i > 0) parts.push_back(mathSymbol(",", MathClass::Punctuation));
        const double value = line.values[i], error = line.errors[i];
        const bool known = std::isfinite(error) && error > 0;
        // So many that the last ones are those of the error.
        const auto place = [](double x) { return static_cast<int>(std::floor(std::log10(std::abs(x)))); };
        const int digits = known && value != 0 ? std::clamp(place(value) - place(error) + 2, 1, 10) : 10;
        parts.push_back(valueMath(roundedNumber(value, digits), Ink::Answer));
        if (!known) continue;
        parts.push_back(mathSymbol("±", MathClass::Binary));
        parts.push_back(valueMath(roundedNumber(error, 2), Ink::Answer));
    }
    return line.values.size() == 1 ? mathRow(std::move(parts)) : mathFenced("(", mathRow(std::move(parts)), ")");
}

MathPtr worthMath(const Line& line, double error) {
    if (!line.good() || !line.body) return nullptr;
    if (line.kind != LineKind::Quantity || !line.value || line.plainNumber || isWrittenNumber(*line.body))
        return nullptr;
    const int digits = std::min(shownDigits, certainDigits(*line.value, error));
    std::vector<MathPtr> parts{mathSymbol("=", MathClass::Relation),
                               valueMath(roundedNumber(*line.value, digits), Ink::Answer)};
    appendUnit(parts, line.unit);
    return mathRow(std::move(parts));
}

MathPtr extentMath(const Line& line) {
    if (!line.good() || !line.body || line.kind != LineKind::Numbers || line.columns.size() != 1) return nullptr;
    const std::vector<double>& column = *line.columns[0];
    if (line.body->kind == ExprKind::List && column.size() <= line.body->operands.size()) return nullptr;
    std::vector<MathPtr> parts{valueMath(std::to_string(column.size()), Ink::Answer), mathSpace(0.3),
                               quietWord(column.size() == 1 ? "number" : "numbers")};
    double least = HUGE_VAL, greatest = -HUGE_VAL;
    constexpr std::size_t most = 1'000'000; // the page is set anew at each stroke of a key
    for (std::size_t i = 0; i < column.size() && column.size() <= most; ++i) {
        const double value = column[i];
        if (std::isnan(value)) continue;
        least = std::min(least, value);
        greatest = std::max(greatest, value);
    }
    for (const auto& [word, value] : {std::pair{"from", least}, std::pair{"to", greatest}}) {
        if (!(least <= greatest)) break;
        parts.insert(parts.end(), {mathSpace(0.3), quietWord(word), mathSpace(0.3),
                                   valueMath(roundedNumber(value, shownDigits), Ink::Answer)});
    }
    return mathRow(std::move(parts));
}

} // namespace coulter
