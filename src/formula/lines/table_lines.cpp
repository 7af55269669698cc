#include "formula/lines/table_lines.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/lines/measured_lines.h"
#include "formula/measured/measured_grid.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

namespace coulter {
namespace {

/// A heading as the name that it would be on a page; empty if it is none.
std::string canonicalHeading(const std::string& heading) {
    const std::u32string text = decodeUtf8(heading);
    const LexResult lexed = tokenize(text, 0, text.size());
    std::string name;
    const std::size_t length = lexed.problems.empty() ? readName(lexed.tokens, name) : 0;
    return length > 0 && length + 1 == lexed.tokens.size() ? name : "";
}

std::string headings(const DataTable& table) {
    std::string text;
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
        const std::string& name = table.columns[k].name;
        text += (k == 0 ? "" : ", ") + (name.empty() ? std::to_string(k + 1) : name);
    }
    return text;
}

std::optional<std::size_t> columnBy(const DataTable& table, const std::string& wanted) {
    std::size_t number = 0;
    const auto [end, error] = std::from_chars(wanted.data(), wanted.data() + wanted.size(), number);
    if (error == std::errc{} && end == wanted.data() + wanted.size() && number >= 1 && number <= table.columns.size())
        return number - 1;
    const auto at = std::ranges::find(table.columns, wanted, &DataColumn::name);
    if (at == table.columns.end()) return std::nullopt;
    return static_cast<std::size_t>(at - table.columns.begin());
}

/// Which column each name of the line stands for; empty with a problem on the line.
std::vector<std::size_t> columnsOfLine(Line& line, const DataTable& table) {
    std::vector<std::size_t> chosen;
    const auto refuse = [&](std::string sentence, std::string suggestion) {
        line.problems.push_back(
            {-1, line.nameSpan.first, line.nameSpan.last, std::move(sentence), std::move(suggestion)});
        return std::vector<std::size_t>{};
    };
    for (const std::string& wanted : line.picked) {
        const auto column = columnBy(table, wanted);
        if (!column)
            return refuse("“" + table.source + "” has no column “" + wanted + "”; it has " + headings(table) + ".",
                          "name one of these, or its number");
        chosen.push_back(*column);
    }
    if (!chosen.empty()) return chosen;
    for (const std::string& name : line.unknowns) {
        const auto at = std::ranges::find_if(
            table.columns, [&](const DataColumn& each) { return canonicalHeading(each.name) == name; });
        if (at != table.columns.end()) chosen.push_back(static_cast<std::size_t>(at - table.columns.begin()));
    }
    if (chosen.size() == line.unknowns.size()) return chosen;
    if (line.unknowns.size() > table.columns.size())
        return refuse("“" + table.source + "” has " + std::to_string(table.columns.size()) +
                          (table.columns.size() == 1 ? " column" : " columns") + " of numbers (" + headings(table) +
                          "), and here are " + std::to_string(line.unknowns.size()) + " names.",
                      "leave out a name");
    chosen.clear();
    for (std::size_t k = 0; k < line.unknowns.size(); ++k) chosen.push_back(k);
    return chosen;
}

Column onlyRows(const Column& numbers, const std::vector<std::size_t>& leftOut, bool kept) {
    if (kept && leftOut.empty()) return numbers;
    std::vector<double> some(numbers->size(), std::nan(""));
    if (kept) some = *numbers;
    for (const std::size_t row : leftOut) {
        if (row < some.size()) some[row] = kept ? std::nan("") : (*numbers)[row];
    }
    return std::make_shared<const std::vector<double>>(std::move(some));
}

} // namespace

void readTableLine(Line& line, const DataTables& tables, const GridPlace& place) {
    const DataTables::Entry table = tables.find(line.table);
    const auto refuse = [&](std::string sentence, std::string suggestion) {
        line.problems.push_back(
            {-1, line.nameSpan.first, line.nameSpan.last, std::move(sentence), std::move(suggestion)});
    };
    if (!table)
        return refuse("The numbers of “" + line.table + "” are not here.",
                      "save the figure beside that file, or take it in with Data…");
    if (!table->trouble.empty()) return refuse("“" + line.table + "” cannot be read: " + table->trouble, "");
    DataTable full = *table; // of a grid: each number with its place, in a row of its own
    if (!table->axes.empty()) {
        GridOfTable grid = gridOf(*table);
        if (grid.far)
            return refuse("“" + line.table + "” has " + roundedNumber(static_cast<double>(grid.far->size()), 3) +
                              " numbers, more than columns of a page hold.",
                          "take it as a function, such as h(x, y) from \"" + readTableKey(line.table).file + "\"");
        if (const std::string trouble = layGrid(grid, place); !trouble.empty()) return refuse(trouble, "");
        full.axes = std::move(grid.axes);
        full.columns[0].numbers = std::move(grid.values);
        full.columns = columnsInFull(full);
    } else if (table->mesh) {
        full.columns = columnsInFull(*table);
    } else if (place.isStated()) {
        return refuse("“" + line.table + "” is a table, and has no pitch, origin or rows of a grid.", "");
    }
    const std::vector<std::size_t> chosen = columnsOfLine(line, full);
    if (!line.good()) return;
    const bool ownUnits = !line.units.empty();
    for (const std::size_t k : chosen) {
        const DataColumn& column = full.columns[k];
        line.columns.push_back(onlyRows(column.numbers, table->leftOut, true));
        if (!ownUnits) line.units.push_back(column.unit);
        line.labels.push_back(column.meaning);
    }
}

std::optional<Page> pageOfLeftOut(const Page& page, const DataTables& tables) {
    std::optional<Page> changed;
    for (std::size_t i = 0; i < page.lines.size(); ++i) {
        const Line& line = page.lines[i];
        const DataTables::Entry table = line.kind == LineKind::Table && line.good() ? tables.find(line.table) : nullptr;
        if (!table || table->leftOut.empty() || !table->axes.empty() || table->mesh) continue;
        if (!changed) {
            changed = page;
            changed->whole = std::make_shared<const Page>(page);
        }
        const std::vector<std::size_t> chosen = columnsOfLine(changed->lines[i], *table);
        for (std::size_t k = 0; k < chosen.size(); ++k)
            changed->lines[i].columns[k] = onlyRows(table->columns[chosen[k]].numbers, table->leftOut, false);
    }
    if (!changed) return std::nullopt;
    // What is computed from columns follows, each line after those that it needs.
    std::set<std::size_t> done;
    const auto compute = [&](const auto& self, std::size_t index) -> void {
        Line& line = changed->lines[index];
        if (line.kind != LineKind::Numbers || !line.good() || !done.insert(index).second) return;
        for (const std::string& name : freeColumns(*changed, line.body)) self(self, changed->defined.at(name));
        ColumnAnswer found = columnsOf(*changed, line.body);
        if (!found.columns.empty()) line.columns = std::move(found.columns);
    };
    for (std::size_t i = 0; i < changed->lines.size(); ++i) compute(compute, i);
    return changed;
}

} // namespace coulter
