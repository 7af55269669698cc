#include "plots/table_cells.h"

#include "formula/lines/read_page.h"
#include "formula/page/free_names.h"
#include "formula/page/page.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace coulter {
namespace {

/// Makes a table over given rows of the old one.
DataTable rearranged(const DataTable& table, const std::vector<std::size_t>& order) {
    DataTable changed = table;
    changed.isEdited = true;
    changed.isBeside = false; // its file has others
    for (DataColumn& column : changed.columns) {
        std::vector<double> numbers;
        numbers.reserve(order.size());
        for (const std::size_t row : order) numbers.push_back((*column.numbers)[row]);
        column.numbers = std::make_shared<const std::vector<double>>(std::move(numbers));
    }
    changed.leftOut.clear();
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (std::ranges::binary_search(table.leftOut, order[i])) changed.leftOut.push_back(i);
    }
    return changed;
}

Document with(const Document& document, DataTable table) {
    Document changed = document;
    changed.tables.put(std::move(table));
    return changed;
}

/// Whether an expression depends on a column of a table, directly or through other columns.
bool dependsOn(const Page& page, const ExprPtr& expression, const std::string& source, std::set<std::string>& seen) {
    return std::ranges::any_of(freeColumns(page, expression), [&](const std::string& name) {
        if (!seen.insert(name).second) return false;
        const Line& line = page.lines[page.defined.at(name)];
        return line.kind == LineKind::Table ? line.table == source
                                            : line.body && dependsOn(page, line.body, source, seen);
    });
}

} // namespace

Document withCell(const Document& document, const std::string& source, std::size_t row, std::size_t column,
                  double value) {
    const DataTables::Entry known = document.tables.find(source);
    if (!known || column >= known->columns.size() || row > known->rows()) return document;
    const bool isNew = row == known->rows();
    DataTable table = *known;
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
        if (!isNew && k != column) continue;
        std::vector<double> numbers = *table.columns[k].numbers;
        if (isNew) numbers.push_back(std::nan(""));
        if (k == column) numbers[row] = value;
        table.columns[k].numbers = std::make_shared<const std::vector<double>>(std::move(numbers));
    }
    table.isEdited = true;
    table.isBeside = false;
    return table == *known ? document : with(document, std::move(table));
}

Document withoutRows(const Document& document, const std::string& source, const std::vector<std::size_t>& rows) {
    const DataTables::Entry known = document.tables.find(source);
    if (!known) return document;
    std::vector<std::size_t> kept;
    for (std::size_t i = 0; i < known->rows(); ++i) {
        if (std::ranges::find(rows, i) == rows.end()) kept.push_back(i);
    }
    return kept.size() == known->rows() ? document : with(document, rearranged(*known, kept));
}

Document withTableSorted(const Document& document, const std::string& source, std::size_t column, bool descending) {
    const DataTables::Entry known = document.tables.find(source);
    if (!known || column >= known->columns.size()) return document;
    const std::vector<double>& numbers = *known->columns[column].numbers;
    std::vector<std::size_t> order(known->rows());
    std::iota(order.begin(), order.end(), 0);
    std::ranges::stable_sort(order, [&](std::size_t a, std::size_t b) {
        const double x = numbers[a], y = numbers[b];
        if (std::isnan(x) || std::isnan(y)) return !std::isnan(x) && std::isnan(y);
        return descending ? x > y : x < y;
    });
    return std::ranges::is_sorted(order) ? document : with(document, rearranged(*known, order));
}

std::vector<ComputedColumn> computedColumns(const Document& document, const std::string& source) {
    std::vector<ComputedColumn> computed;
    const DataTables::Entry table = document.tables.find(source);
    if (!table) return computed;
    const Page page = readPage(document);
    for (const Line& line : page.lines) {
        if (line.kind != LineKind::Numbers || !line.good() || !line.body) continue;
        const Column column = page.columnOf(line.name);
        std::set<std::string> seen;
        if (column && column->size() == table->rows() && dependsOn(page, line.body, source, seen))
            computed.push_back({line.name, page.unitOf(line.name), column});
    }
    return computed;
}

} // namespace coulter
