#include "formula/lines/measured_lines.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/measured/element_mesh.h"
#include "formula/measured/measured_grid.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <list>
#include <mutex>

namespace coulter {
namespace {

MeasuredAnswer measuredRefused(Span span, std::string sentence, std::string suggestion = "") {
    MeasuredAnswer answer;
    answer.problems = {{-1, span.first, span.last, std::move(sentence), std::move(suggestion)}};
    return answer;
}

std::string listed(const std::vector<std::string>& names) {
    std::string text;
    for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
    return text;
}

/// Names of a grid's directions as they are told.
std::string directions(const std::vector<DataAxis>& axes) {
    std::vector<std::string> names;
    for (const DataAxis& axis : axes)
        names.push_back((axis.name.empty() ? "unnamed" : axis.name) + " × " + std::to_string(axis.places->size()));
    return listed(names);
}

MeasuredAnswer readElements(std::span<const Column> places, std::span<const Column> corners, const Column& numbers,
                            Span at, std::optional<double> first) {
    MeshOfColumns read = meshOf(places, corners, first);
    MeasuredAnswer answer;
    for (const std::string& sentence : read.notes)
        answer.problems.push_back({-1, at.first, at.last, sentence, "", Problem::Severity::Note});
    if (!read.mesh) return measuredRefused(at, read.trouble);
    const bool byElement = numbers->size() != places[0]->size();
    std::vector<double> values = *numbers;
    if (byElement) { // of those that are left
        values.clear();
        for (const std::size_t row : read.rows) values.push_back((*numbers)[row]);
    }
    answer.field = fieldOfMesh(std::move(read.mesh), std::move(values), byElement);
    return answer;
}

/// The last fields on elements that were read. A page is read with every key that is pressed, and columns from a table
/// are the same ones each time; it never changes what is answered.
class KnownFields {
public:
    std::optional<MeasuredAnswer> find(const std::vector<Column>& columns) {
        const std::scoped_lock lock(mutex_);
        const auto at = std::ranges::find(entries_, columns, &Entry::columns);
        return at == entries_.end() ? std::nullopt : std::optional(at->answer);
    }
    void keep(std::vector<Column> columns, MeasuredAnswer answer) {
        constexpr std::size_t most = 6;
        const std::scoped_lock lock(mutex_);
        entries_.push_front({std::move(columns), std::move(answer)});
        if (entries_.size() > most) entries_.pop_back();
    }

private:
    struct Entry {
        std::vector<Column> columns; ///< held, so that no others can stand at their place
        MeasuredAnswer answer;
    };
    std::mutex mutex_;
    std::list<Entry> entries_;
};

/// A field on elements, or the trouble that their columns make; what was noted of them is noted at a place.
MeasuredAnswer fieldOfColumns(std::span<const Column> places, std::span<const Column> corners, const Column& numbers,
                              Span at, std::optional<double> first = {}) {
    static KnownFields known;
    std::vector<Column> columns(places.begin(), places.end());
    columns.insert(columns.end(), corners.begin(), corners.end());
    columns.push_back(numbers);
    auto answer = known.find(columns);
    if (!answer) {
        answer = readElements(places, corners, numbers, at, first);
        known.keep(std::move(columns), *answer);
    }
    for (Problem& problem : answer->problems) problem.first = at.first, problem.last = at.last;
    return *answer;
}

MeasuredAnswer measuredOnMesh(const Line& line, const DataTable& table, const GridPlace& place) {
    const std::string quoted = "“" + line.table + "”";
    if (place.isStated())
        return measuredRefused(line.nameSpan, quoted + " is a mesh, and has no pitch, origin or rows of a grid.");
    if (line.parameters.size() != 2)
        return measuredRefused(line.nameSpan, quoted + " is a mesh, over which two variables run.",
                               "write " + line.name + "(x, y)");
    if (!line.interpolates && table.rows() == table.mesh->places[0]->size())
        return measuredRefused(line.nameSpan, quoted + " has a number for each node, between which it is linear.",
                               "write " + line.name + "(x, y) interpolates \"" + readTableKey(line.table).file + "\"");
    MeasuredAnswer answer =
        fieldOfColumns(table.mesh->places, table.mesh->corners, table.columns[0].numbers, line.nameSpan, 0);
    answer.unit = table.columns[0].unit;
    answer.meaning = table.columns[0].meaning;
    return answer;
}

} // namespace

MeasuredAnswer measuredFromTable(const Line& line, const DataTables& tables, const GridPlace& place) {
    const DataTables::Entry table = tables.find(line.table);
    const std::string quoted = "“" + line.table + "”";
    if (!table)
        return measuredRefused(line.nameSpan, "The numbers of " + quoted + " are not here.",
                               "save the figure beside that file, or take it in with Data…");
    if (!table->trouble.empty()) return measuredRefused(line.nameSpan, quoted + " cannot be read: " + table->trouble);
    if (table->mesh) return measuredOnMesh(line, *table, place);
    GridOfTable grid = gridOf(*table);
    if (!grid.trouble.empty()) return measuredRefused(line.nameSpan, quoted + " is no grid: " + grid.trouble);
    if (const std::string trouble = layGrid(grid, place); !trouble.empty())
        return measuredRefused(line.nameSpan, trouble);
    const std::size_t wanted = line.parameters.size(), given = grid.axes.size();
    if (wanted != given)
        return measuredRefused(line.nameSpan,
                               quoted + " runs in " + std::to_string(given) +
                                   (given == 1 ? " direction (" : " directions (") + directions(grid.axes) + "), and " +
                                   line.name + " has " + std::to_string(wanted) +
                                   (wanted == 1 ? " variable." : " variables."),
                               given == 2   ? "write " + line.name + "(x, y)"
                               : given == 3 ? "write " + line.name + "(x, y, t)"
                                            : "name a table of it: (t, s) from \"" + line.table + "\"");
    MeasuredAnswer answer;
    answer.unit = table->columns[0].unit;
    answer.meaning = table->columns[0].meaning;
    if (wanted == 1) {
        if (!line.interpolates)
            return measuredRefused(line.nameSpan, quoted + " runs in one direction: its numbers are columns.",
                                   "write (t, s) from \"" + line.table + "\", or " + line.name + "(t) interpolates it");
        auto points = std::make_shared<Interpolation>();
        for (std::size_t i = 0; i < grid.values->size(); ++i) {
            if (!std::isfinite((*grid.values)[i])) continue;
            points->x.push_back((*grid.axes[0].places)[i]);
            points->y.push_back((*grid.values)[i]);
        }
        if (points->x.size() < 2)
            return measuredRefused(line.nameSpan, "Between fewer than two points there is nothing.");
        answer.points = std::move(points);
        return answer;
    }
    MeasuredGrid measured;
    for (const DataAxis& axis : grid.axes) measured.places.push_back(*axis.places);
    measured.values = grid.values;
    measured.far = grid.far;
    measured.isLinear = line.interpolates;
    answer.field = fieldOfGrid(std::move(measured));
    return answer;
}

std::string measuredExtent(const Page& page, const std::string& parameter) {
    for (const Line& line : page.lines) {
        const auto at = std::ranges::find(line.parameters, parameter);
        if (!line.isMeasured() || !line.field || at == line.parameters.end()) continue;
        const auto k = static_cast<std::size_t>(at - line.parameters.begin());
        if (const auto& mesh = line.field->mesh()) {
            const auto [low, high] = std::ranges::minmax(k == 0 ? mesh->x : mesh->y);
            return intervalOf(std::array{low, high}, false);
        }
        return intervalOf(line.field->places(k), line.field->hasCells());
    }
    return "";
}

MeasuredAnswer measuredOnElements(const Page& page, const Line& line) {
    std::vector<Column> columns;
    for (const ExprPtr& argument : line.arguments) {
        if (!argument) return {};
        if (!isColumn(page, argument)) return measuredRefused(argument->span, "A column of numbers is wanted here.");
        ColumnAnswer found = columnsOf(page, argument);
        if (found.columns.empty()) {
            MeasuredAnswer answer;
            answer.problems = found.problems;
            return answer;
        }
        if (found.columns.size() > 1)
            return measuredRefused(argument->span, "A column holds numbers, and this is a vector.");
        columns.push_back(found.columns[0]);
    }
    const std::size_t nodes = columns[0]->size(), elements = columns[3]->size(), values = columns[2]->size();
    if (columns[1]->size() != nodes)
        return measuredRefused(line.arguments[1]->span,
                               "There are " + std::to_string(nodes) + " places to the right and " +
                                   std::to_string(columns[1]->size()) + " upwards.",
                               "give both as many numbers");
    for (std::size_t k = 4; k < columns.size(); ++k) {
        if (columns[k]->size() != elements)
            return measuredRefused(line.arguments[k]->span,
                                   "There are " + std::to_string(elements) + " first nodes of elements, and here are " +
                                       std::to_string(columns[k]->size()) + ".",
                                   "give all of them as many rows");
    }
    if (values != nodes && values != elements)
        return measuredRefused(line.arguments[2]->span,
                               "There are " + std::to_string(values) + " values for " + std::to_string(nodes) +
                                   " nodes and " + std::to_string(elements) + " elements.",
                               "give one for each node, or one for each element");
    const Span place{line.arguments[3]->span.first, line.arguments.back()->span.last};
    return fieldOfColumns({columns.data(), 2}, std::span(columns).subspan(3), columns[2], place);
}

} // namespace coulter
