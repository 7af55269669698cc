// A table of values: columns of the page side by side, under what they are.
#include "formula/algebra/unit_inference.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr std::size_t mostRows = 60, mostColumns = 12;

const Setting digitsSetting{.key = "digits",
                            .label = "digits",
                            .meaning = "significant digits of each number",
                            .type = SettingType::Number,
                            .usual = 4.0,
                            .least = 1,
                            .greatest = 15,
                            .step = 1,
                            .isStyle = false};

const Setting* const settings[] = {&digitsSetting,    &anchorSetting,      &noteColourSetting,  &noteLettersSetting,
                                   &alignSetting,     &fillSetting,        &fillOpacitySetting, &framedSetting,
                                   &noteWidthSetting, &notePatternSetting, &dashesSetting,      &paddingSetting,
                                   &behindSetting};

/// "t, f(t), (a, b)" at its outer commas.
std::vector<std::string> parts(const std::string& text) {
    std::vector<std::string> all(1);
    int depth = 0;
    for (const char c : text) {
        if (c == '(' || c == '{' || c == '[') ++depth;
        if (c == ')' || c == '}' || c == ']') --depth;
        if (c == ',' && depth <= 0)
            all.emplace_back();
        else
            all.back() += c;
    }
    return all;
}

struct ValueColumn {
    Box heading;
    std::vector<Box> before,
        behind;                 ///< of each number what stands before its decimal point, and what stands from it on
    double left = 0, right = 0; ///< the widest of these
    double width() const { return std::max(heading.width, left + right); }
};

/// A number in two parts at its decimal point; one with a power of ten, or none at all, in one.
std::pair<Box, Box> numberBoxes(double value, int digits, Em size) {
    if (std::isnan(value)) return {textBox("–", FontId::Text, size), {}};
    std::string text = roundedNumber(value, digits);
    if (text.find_first_of("en") != std::string::npos) return {layoutMath(*valueMath(text), size, false), {}};
    const bool negative = text.starts_with('-');
    if (negative) text.erase(0, 1);
    const std::size_t point = std::min(text.find('.'), text.size());
    return {textBox((negative ? "−" : "") + text.substr(0, point), FontId::Text, size),
            textBox(text.substr(point), FontId::Text, size)};
}

Problem problem(std::string sentence, std::string suggestion) {
    return {-1, 0, 0, std::move(sentence), std::move(suggestion)};
}

/// One column of the table; none and the problem if it is none of the page.
std::optional<ValueColumn> readColumn(const Page& page, const std::string& text, int digits, Em size, std::size_t& rows,
                                      Problems& problems) {
    const std::u32string letters = decodeUtf8(text);
    const LexResult lexed = tokenize(letters, 0, letters.size());
    if (lexed.problems.empty() && lexed.tokens.size() < 2) {
        problems.push_back(problem("Between two commas of a table of values a column is missing.", "write x, f(x)"));
        return std::nullopt;
    }
    const ParsedExpression parsed =
        lexed.problems.empty() ? parseExpression(lexed.tokens, page.names) : ParsedExpression{nullptr, lexed.problems};
    const ColumnAnswer found =
        parsed.expression ? columnsOf(page, parsed.expression) : ColumnAnswer{{}, parsed.problems};
    if (found.columns.size() != 1) {
        problems.push_back(found.problems.empty()
                               ? problem("A column of a table of values holds numbers, and “" + text + "” is a vector.",
                                         "write its components one by one")
                               : found.problems.front());
        problems.back().line = -1;
        return std::nullopt;
    }
    const std::vector<double>& numbers = *found.columns[0];
    if (numbers.size() > mostRows || (rows > 0 && numbers.size() != rows)) {
        problems.push_back(numbers.size() > mostRows
                               ? problem("A table of values has at most " + std::to_string(mostRows) + " rows, and “" +
                                             text + "” has " + std::to_string(numbers.size()) + ".",
                                         "choose fewer places")
                               : problem("The columns of a table of values are of one length; “" + text + "” has " +
                                             std::to_string(numbers.size()) + " rows, and those before it " +
                                             std::to_string(rows) + ".",
                                         "choose as many places for each"));
        return std::nullopt;
    }
    rows = numbers.size();
    ValueColumn column;
    column.heading = layoutMath(*formulaMath(*parsed.expression), size, false);
    const std::string unit = unitOfExpression(page, parsed.expression);
    if (!unit.empty() && unit != "1") {
        const bool compound = unit.find_first_of(" /.") != std::string::npos;
        column.heading.append(textBox(compound ? " / (" : " / ", FontId::Text, size));
        column.heading.append(layoutMath(*unitMath(unit), size, false));
        if (compound) column.heading.append(textBox(")", FontId::Text, size));
    }
    for (const double value : numbers) {
        const auto [before, behind] = numberBoxes(value, digits, size);
        column.before.push_back(before);
        column.behind.push_back(behind);
        column.left = std::max(column.left, column.before.back().width);
        column.right = std::max(column.right, column.behind.back().width);
    }
    return column;
}

/// Columns side by side: headings between two rules, the numbers below with their decimal points in line, a rule at
/// the foot. The origin is the left end of the headings' baseline.
Box words(const Page& page, const std::string& text, const Settings& values, Em size, Problems& problems) {
    std::vector<ValueColumn> columns;
    std::size_t rows = 0;
    const auto digits = static_cast<int>(number(values, digitsSetting));
    for (const std::string& part : parts(text)) {
        auto column = readColumn(page, part, digits, size, rows, problems);
        if (!column) return {};
        columns.push_back(std::move(*column));
        if (columns.size() > mostColumns) {
            problems.push_back(problem("A table of values has at most 12 columns.", "make a second one"));
            return {};
        }
    }
    const double gap = 1.1 * size, line = 1.3 * size, rule = 0.05 * size, pad = 0.35 * size;
    Box table;
    double descent = 0.25 * size;
    for (const ValueColumn& column : columns) {
        table.ascent = std::max({table.ascent, column.heading.ascent, 0.8 * size.mm});
        descent = std::max(descent, column.heading.descent);
    }
    double x = 0.3 * size;
    const double first = descent + pad + line;
    for (const ValueColumn& column : columns) {
        const double width = column.width();
        table.add(column.heading, x + (width - column.heading.width) / 2, 0);
        const double point = x + (width - column.left - column.right) / 2 + column.left;
        for (std::size_t i = 0; i < rows; ++i) {
            const double y = first + static_cast<double>(i) * line;
            table.add(column.before[i], point - column.before[i].width, y);
            table.add(column.behind[i], point, y);
        }
        x += width + gap;
    }
    table.width = x - gap + 0.3 * size;
    table.ascent += pad;
    table.descent = first + (static_cast<double>(rows) - 1) * line + 0.35 * size + pad;
    for (const double y : {-table.ascent, descent + pad / 2, table.descent - rule})
        table.rules.push_back({0, y, table.width, rule});
    return table;
}

Point middle(const DrawnNote& note) {
    const double half = note.words.width / 2;
    const auto align = static_cast<Align>(word(note.settings, alignSetting));
    return {note.at[0].x + (align == Align::Left ? half : align == Align::Right ? -half : 0), note.at[0].y};
}

void draw(const DrawnNote& note, Canvas& canvas) { drawWords(note, middle(note), canvas); }

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middle(note)); }

constexpr Point usual[] = {{0, 0}};

} // namespace

extern const NoteKind valuesNote{.name = "values",
                                 .meaning = "a table of values: columns of the page side by side, such as t, f(t)",
                                 .leastPlaces = 1,
                                 .mostPlaces = 1,
                                 .settings = settings,
                                 .words = words,
                                 .draw = draw,
                                 .wordsRect = wordsRect,
                                 .usual = usual};

} // namespace coulter
