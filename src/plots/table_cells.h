#pragma once
#include "figure/document.h"

namespace coulter {

// Numbers of a table changed by hand: each gives the document that it would make, in which the table says that it is no
// longer what its file has.

/// One number changed; NaN: it is missing. The row behind the last one is a new row, with all else missing.
Document withCell(const Document& document, const std::string& source, std::size_t row, std::size_t column,
                  double value);

/// Some rows taken away.
Document withoutRows(const Document& document, const std::string& source, const std::vector<std::size_t>& rows);

/// All rows in the order of one column's numbers, missing ones last; equal ones stay in their order.
Document withTableSorted(const Document& document, const std::string& source, std::size_t column, bool descending);

/// A column of a page that belongs to a table: one of its own, or one that is computed from them row by row.
struct ComputedColumn {
    std::string name; ///< canonical
    std::string unit;
    Column numbers;
};
/// The columns that lines of the page compute from a table's, in the order of the lines.
std::vector<ComputedColumn> computedColumns(const Document& document, const std::string& source);

} // namespace coulter
