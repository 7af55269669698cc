#include "data/table_shape.h"

#include "data/table_cell.h"
#include "data/table_rows.h"
#include "formula/base/text.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "formula/notation/units.h"

#include <algorithm>
#include <array>
#include <map>

namespace coulter {
namespace {

constexpr std::array<char, 5> delimiters{',', ';', '\t', '|', ' '};
constexpr std::array<char, 2> decimals{'.', ','};
/// Rows that are looked at.
constexpr std::size_t mostRows = 200;

using TextRow = std::pair<std::size_t, std::vector<std::string>>; // its line, its cells

bool isComment(const std::vector<std::string>& cells) {
    const std::string_view first = withoutSpaces(cells[0]);
    return first.starts_with('#') || first.starts_with('%') || first.starts_with("//");
}

std::vector<TextRow> rowsOf(std::string_view text, char delimiter) {
    std::vector<TextRow> rows;
    TableRows reader(delimiter, [&](const TableRow& row) {
        std::vector<std::string> cells(row.cells.begin(), row.cells.end());
        if (!isComment(cells)) rows.emplace_back(row.line, std::move(cells));
        return rows.size() < mostRows;
    });
    reader.add(text);
    if (!reader.hasEnded()) reader.finish();
    return rows;
}

/// The number of cells that most rows have, the later ones counting more, for headings stand first.
std::size_t usualWidth(const std::vector<TextRow>& rows) {
    std::map<std::size_t, std::size_t> count;
    for (std::size_t i = 0; i < rows.size(); ++i) count[rows[i].second.size()] += i + 1;
    std::size_t best = 0, most = 0;
    for (const auto& [cells, weight] : count) {
        if (weight > most) best = cells;
        most = std::max(most, weight);
    }
    return best;
}

/// How well rows are a table of numbers so: their share of cells that are numbers in rows of the usual width. What
/// needs separators between thousands counts less, for a decimal sign is likelier.
double fitness(const std::vector<TextRow>& rows, char decimal) {
    const std::size_t width = usualWidth(rows);
    double good = 0, all = 0;
    for (const auto& [line, cells] : rows) {
        all += static_cast<double>(std::max(width, cells.size()));
        if (cells.size() != width) continue;
        for (const std::string& each : cells) {
            const TableCell cell = readCell(each, decimal);
            if (cell.kind == CellKind::Number) good += cell.isGrouped ? 0.6 : 1;
            if (cell.kind == CellKind::Missing) good += 0.9;
        }
    }
    // Of two that fit equally well the one with more columns: a delimiter that is not there fits anything.
    return all > 0 ? good / all * (1 + 0.05 * static_cast<double>(std::min<std::size_t>(width, 8))) : 0;
}

/// Columns that hold numbers, by their later cells, for headings stand first: words among them are refused later, where
/// they are not the most part by far.
std::vector<bool> numericColumns(const std::vector<TextRow>& rows, std::size_t width, char decimal) {
    std::vector<std::size_t> numbers(width), words(width), numbersBefore(width);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto& cells = rows[i].second;
        const bool later = i >= rows.size() / 2;
        for (std::size_t k = 0; k < std::min(width, cells.size()); ++k) {
            const CellKind kind = readCell(cells[k], decimal).kind;
            if (kind == CellKind::Number) ++(later ? numbers : numbersBefore)[k];
            if (kind == CellKind::Words && later) ++words[k];
        }
    }
    std::vector<bool> numeric;
    for (std::size_t k = 0; k < width; ++k)
        numeric.push_back(words[k] == 0 ? numbers[k] + numbersBefore[k] > 0 : 2 * numbers[k] >= words[k]);
    return numeric;
}

bool isDataRow(const std::vector<std::string>& cells, const std::vector<bool>& numeric, char decimal) {
    bool any = false;
    for (std::size_t k = 0; k < std::min(cells.size(), numeric.size()); ++k) {
        if (!numeric[k]) continue;
        const CellKind kind = readCell(cells[k], decimal).kind;
        if (kind == CellKind::Words) return false;
        any = any || kind == CellKind::Number;
    }
    return any;
}

/// With a mark in place of bytes that mean nothing in UTF-8, as a recipe can keep it.
std::string readable(std::string_view text) { return encodeUtf8(decodeUtf8(text)); }

/// "(m)" or "m" as a unit; empty if it is none.
std::string unitIn(std::string_view text) {
    text = withoutSpaces(text);
    if (text.size() >= 2 && (text.front() == '(' || text.front() == '['))
        text = withoutSpaces(text.substr(1, text.size() - 2));
    std::string unit(text);
    return !unit.empty() && unit == readable(unit) && isUnit(unit) ? unit : "";
}

/// Whether a row is units below these headings.
bool isUnitsRow(const std::vector<std::string>& cells, const std::vector<std::string>& headings) {
    bool any = false;
    for (const std::string& each : headings) {
        const std::string_view text = withoutSpaces(each);
        if (text.empty() || (text.front() >= '0' && text.front() <= '9')) return false;
    }
    for (const std::string& each : cells) {
        const std::string_view text = withoutSpaces(each);
        if (text.empty() || text == "-") continue;
        if (unitIn(text).empty()) return false;
        any = true;
    }
    return any;
}

bool isSymbol(const std::string& word) {
    const std::u32string text = decodeUtf8(word);
    const LexResult lexed = tokenize(text, 0, text.size());
    std::string name;
    const std::size_t length = lexed.problems.empty() ? readName(lexed.tokens, name) : 0;
    return length > 0 && length + 1 == lexed.tokens.size();
}

} // namespace

Heading readHeading(std::string_view text, std::string_view unit) {
    Heading heading;
    text = withoutSpaces(text);
    heading.unit = unitIn(unit);
    std::string_view words = text;
    if (!text.empty() && (text.back() == ')' || text.back() == ']')) {
        const auto open = text.rfind(text.back() == ')' ? '(' : '[');
        const std::string found = open == std::string_view::npos ? "" : unitIn(text.substr(open));
        if (!found.empty()) {
            heading.unit = found;
            words = text.substr(0, open);
        }
    } else if (const auto solidus = text.find('/'); solidus != std::string_view::npos) {
        const std::string found = unitIn(text.substr(solidus + 1));
        if (!found.empty()) {
            heading.unit = found;
            words = text.substr(0, solidus);
        }
    }
    words = withoutSpaces(words);
    const auto space = words.rfind(' ');
    const std::string last(space == std::string_view::npos ? words : words.substr(space + 1));
    if (isSymbol(last)) {
        heading.name = last;
        if (space != std::string_view::npos) heading.meaning = withoutSpaces(words.substr(0, space));
    } else {
        heading.name = heading.meaning = words;
    }
    heading.name = readable(heading.name);
    heading.meaning = readable(heading.meaning);
    while (!heading.meaning.empty() && (heading.meaning.back() == ',' || heading.meaning.back() == ':'))
        heading.meaning.pop_back();
    return heading;
}

std::optional<FoundShape> findShape(std::string_view beginning, const TableShape& given) {
    FoundShape found;
    found.shape = given;
    std::vector<TextRow> rows;
    double best = 0;
    for (const char delimiter : delimiters) {
        if (given.delimiter && *given.delimiter != delimiter) continue;
        std::vector<TextRow> split = rowsOf(beginning, delimiter);
        for (const char decimal : decimals) {
            if (given.decimal && *given.decimal != decimal) continue;
            double fits = fitness(split, decimal);
            // A comma that could be between cells is: in quotation marks alone, or beside another delimiter, it is a
            // decimal sign.
            if (decimal == ',' && (delimiter == ',' || usualWidth(split) == 1)) fits *= 0.55;
            if (fits <= best) continue;
            best = fits;
            rows = split;
            found.shape.delimiter = delimiter;
            found.shape.decimal = decimal;
        }
    }
    if (rows.empty()) return std::nullopt;
    const char decimal = *found.shape.decimal;
    const std::size_t width = usualWidth(rows);
    found.isNumeric = numericColumns(rows, width, decimal);
    if (std::ranges::count(found.isNumeric, true) == 0) return std::nullopt;
    std::size_t first = 0;
    while (first < rows.size() && (given.firstRow ? rows[first].first < *given.firstRow
                                                  : rows[first].second.size() != width ||
                                                        !isDataRow(rows[first].second, found.isNumeric, decimal)))
        ++first;
    if (first == rows.size()) return std::nullopt;
    // A row that has numbers right above is one with a slip, not a heading: it must not be lost.
    const auto hasNumber = [&](const std::vector<std::string>& cells) {
        for (std::size_t k = 0; k < cells.size(); ++k) {
            if (found.isNumeric[k] && readCell(cells[k], decimal).kind == CellKind::Number) return true;
        }
        return false;
    };
    while (!given.firstRow && first > 0 && rows[first - 1].second.size() == width && hasNumber(rows[first - 1].second))
        --first;
    found.shape.firstRow = rows[first].first;
    // The last one or two rows before the numbers that are as wide: a heading, and its units.
    std::vector<std::size_t> wide;
    for (std::size_t i = 0; i < first; ++i) {
        if (rows[i].second.size() == width) wide.push_back(i);
    }
    const std::vector<std::string>* units = nullptr;
    if (wide.size() > 1 && isUnitsRow(rows[wide.back()].second, rows[wide[wide.size() - 2]].second)) {
        units = &rows[wide.back()].second;
        wide.pop_back();
    }
    for (std::size_t k = 0; k < width; ++k) {
        const std::string_view heading = wide.empty() ? "" : std::string_view(rows[wide.back()].second[k]);
        found.headings.push_back(readHeading(heading, units ? std::string_view((*units)[k]) : ""));
    }
    for (std::size_t i = 0; i < first; ++i) {
        const bool used = (!wide.empty() && i == wide.back()) || &rows[i].second == units;
        if (!used) found.skipped.push_back(rows[i].first);
    }
    return found;
}

} // namespace coulter
