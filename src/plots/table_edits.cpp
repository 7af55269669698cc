#include "plots/table_edits.h"

#include "formula/base/text.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/measured/measured_grid.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "formula/page/free_names.h"
#include "plots/page_edits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace coulter {
namespace {

/// Most columns that a new line names; further ones are there by hand.
constexpr std::size_t mostNamed = 12;

/// A name for a column: its heading where that is one, else the first letter of its heading, else the next free one.
std::string nameFor(const DataColumn& column, const Page& page, std::set<std::string>& taken) {
    const auto isFree = [&](const std::string& name) {
        return !page.defined.contains(name) && std::isnan(constantValue(name)) && !taken.contains(name);
    };
    const std::u32string heading = decodeUtf8(column.name);
    const LexResult lexed = tokenize(heading, 0, heading.size());
    std::string name;
    const std::size_t length = lexed.problems.empty() ? readName(lexed.tokens, name) : 0;
    if (length == 0 || length + 1 != lexed.tokens.size()) {
        name.clear();
        const char32_t first = heading.empty()                            ? U' '
                               : heading[0] >= U'A' && heading[0] <= U'Z' ? heading[0] - U'A' + U'a'
                                                                          : heading[0];
        if (first >= U'a' && first <= U'z') name = std::string(1, static_cast<char>(first));
    }
    std::string chosen = name;
    for (int i = 1; !name.empty() && !isFree(chosen) && i < 100; ++i)
        chosen = nameParts(name).letter + "_" + std::to_string(i);
    for (char letter = 'a'; (chosen.empty() || !isFree(chosen)) && letter <= 'z'; ++letter)
        chosen = std::string(1, letter);
    taken.insert(chosen);
    return chosen;
}

/// ", pitch 0.05, origin -6, -6, rows upwards, turned 90"
std::string clausesOf(const GridPlace& place) {
    std::string text;
    const auto add = [&](const char* name, const std::vector<double>& numbers) {
        for (std::size_t i = 0; i < numbers.size(); ++i)
            text += (i == 0 ? std::string(", ") + name + " " : ", ") + shortestNumber(numbers[i]);
    };
    add("pitch", place.pitch);
    add("origin", place.origin);
    if (place.rowsUpwards) text += ", rows upwards";
    return place.quarters > 0 ? text + ", turned " + std::to_string(90 * place.quarters) : text;
}

/// A grid or a mesh as a function of its directions, each of which becomes a variable of the page, and a heatmap of it.
/// A third direction is a quantity that is run through.
Document withField(Document changed, const DataTable& table, const Page& page, std::size_t panel,
                   const GridPlace& place) {
    constexpr std::array<const char*, 3> usual{"x", "y", "t"};
    std::set<std::string> taken;
    DataColumn numbers = table.columns[0];
    if (numbers.name.empty()) numbers.name = "p";
    std::string call = spelledName(nameFor(numbers, page, taken)) + "(";
    std::vector<std::string> lines;
    GridOfTable grid;
    if (!table.mesh) {
        grid = gridOf(table);
        layGrid(grid, place);
    }
    const bool isPicture =
        !table.mesh && (std::ranges::any_of(table.axes, &DataAxis::isCounted) || table.axes[0].name.empty());
    for (std::size_t k = 0; k < (table.mesh ? 2 : table.axes.size()); ++k) {
        DataAxis axis;
        if (table.mesh) {
            const auto [low, high] = std::ranges::minmax(*table.mesh->places[k]);
            axis.unit = table.mesh->unit;
            axis.places = std::make_shared<const std::vector<double>>(std::vector{low, high});
        } else {
            axis = grid.axes[k];
        }
        const DataColumn named{axis.name.empty() ? usual[k] : axis.name, "", "", nullptr};
        const std::string variable = spelledName(nameFor(named, page, taken)),
                          unit = axis.unit.empty() ? "" : ", unit " + axis.unit;
        const std::string first = roundedNumber(axis.places->front(), 12),
                          last = roundedNumber(axis.places->back(), 12);
        call += (k == 0 ? "" : ", ") + variable;
        lines.push_back(k < 2 ? variable + " in " + intervalOf(*axis.places, isPicture) + unit
                              : variable + " = " + first + ", from " + first + " to " + last + unit);
    }
    call += ")";
    const TableKey key = readTableKey(table.source);
    changed.page.push_back(call + (isPicture ? " from \"" : " interpolates \"") + key.file + "\"" +
                           (key.variable.empty() ? "" : ", variable \"" + key.variable + "\"") + clausesOf(place));
    changed.page.insert(changed.page.end(), lines.begin(), lines.end());
    changed.panels[std::min(panel, changed.panels.size() - 1)].plots.push_back(plotOf(call, "heatmap"));
    return changed;
}

} // namespace

Document withTable(const Document& document, DataTable table, std::size_t panel, const GridPlace& place) {
    Document changed = document;
    const std::string source = table.source;
    const Page page = readPage(document);
    std::vector<std::string> names;
    std::set<std::string> taken;
    for (const DataColumn& column : table.columns) {
        if (names.size() < mostNamed) names.push_back(nameFor(column, page, taken));
    }
    changed.tables.put(std::move(table));
    const bool isNamed = std::ranges::any_of(page.lines, [&](const Line& line) { return line.table == source; });
    if (isNamed) return changed;
    const DataTables::Entry kept = changed.tables.find(source);
    if (kept->mesh || kept->axes.size() > 1) return withField(std::move(changed), *kept, page, panel, place);
    std::string line;
    for (const std::string& name : names) line += (line.empty() ? "" : ", ") + spelledName(name);
    if (names.size() > 1) line = "(" + line + ")";
    changed.page.push_back(line + " from \"" + source + "\"");
    const std::string of =
        names.size() > 1 ? "(" + spelledName(names[0]) + ", " + spelledName(names[1]) + ")" : spelledName(names[0]);
    changed.panels[std::min(panel, changed.panels.size() - 1)].plots.push_back(plotOf(of, "points"));
    return changed;
}

std::optional<std::string> tableOfPlot(const Page& page, const Plot& plot) {
    const Plotted plotted = readPlotted(page, plot.of, 1);
    if (!plotted.expression || !plotted.isColumn) return std::nullopt;
    std::optional<std::string> source;
    // Through columns that are computed from others, too.
    std::set<std::string> seen;
    const auto look = [&](const auto& self, const ExprPtr& expression) -> void {
        for (const std::string& name : freeColumns(page, expression)) {
            if (!seen.insert(name).second) continue;
            const Line& line = page.lines[page.defined.at(name)];
            if (line.kind == LineKind::Table) source = line.table;
            if (line.body) self(self, line.body);
        }
    };
    look(look, plotted.expression);
    return source;
}

Document withRowsLeftOut(const Document& document, const std::string& source, const std::vector<std::size_t>& rows,
                         bool leftOut) {
    Document changed = document;
    const DataTables::Entry known = document.tables.find(source);
    if (!known) return changed;
    DataTable table = *known;
    std::set<std::size_t> all(table.leftOut.begin(), table.leftOut.end());
    for (const std::size_t row : rows) {
        if (leftOut && row < table.rows())
            all.insert(row);
        else
            all.erase(row);
    }
    table.leftOut.assign(all.begin(), all.end());
    changed.tables.put(std::move(table));
    return changed;
}

std::string valuesToShow(Document& document) {
    constexpr std::size_t most = 4;
    const Page page = readPage(document);
    std::vector<std::string> names;
    std::size_t rows = 0;
    for (const Line& line : page.lines) {
        const std::vector<std::string> own = line.unknowns.empty() ? std::vector{line.name} : line.unknowns;
        for (const std::string& name : own) {
            const Column column = page.columnOf(name);
            if (!column || names.size() >= most || (rows > 0 && column->size() != rows)) continue;
            rows = column->size();
            names.push_back(spelledName(name));
        }
    }
    if (names.empty()) {
        for (const Line& line : page.lines) {
            if (line.kind != LineKind::Function || !line.good() || line.parameters.size() != 1) continue;
            const Line* variable = page.find(line.parameters[0], LineKind::Variable);
            if (!variable || !(variable->interval.high > variable->interval.low)) continue;
            std::string place;
            for (int i = 1; place.empty() || page.defined.contains(place); ++i)
                place = nameParts(line.parameters[0]).letter + "_" + std::to_string(i);
            const double low = variable->interval.low, step = (variable->interval.high - low) / 10;
            document.page.push_back(spelledName(place) + " = {" + roundedNumber(low, 12) + ", " +
                                    roundedNumber(low + step, 12) + ", ..., " +
                                    roundedNumber(variable->interval.high, 12) + "}" +
                                    (variable->unit.empty() ? "" : ", unit " + variable->unit));
            return spelledName(place) + ", " + spelledName(line.name) + "(" + spelledName(place) + ")";
        }
    }
    std::string text;
    for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
    return text;
}

bool isLeftOut(const Document& document, const std::string& source, std::size_t row) {
    const DataTables::Entry table = document.tables.find(source);
    return table && std::ranges::binary_search(table->leftOut, row);
}

} // namespace coulter
