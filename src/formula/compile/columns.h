#pragma once
#include "formula/compile/compile.h"
#include "formula/page/page.h"

#include <string>
#include <vector>

namespace coulter {

// Columns: numbers side by side, on which arithmetic and functions act one by one.

/// Most numbers of one column.
inline constexpr double mostNumbers = 10'000'000;
/// Most numbers of all columns of a page together.
inline constexpr double mostNumbersOfPage = 2 * mostNumbers;

/// Whether an expression is worth a column: a list stands in it, or it depends on a column of the page, directly or
/// through functions.
/// @param fixed  names that stand for something else
bool isColumn(const Page& page, const ExprPtr& expression, std::span<const std::string> fixed = {});

/// Columns of one length, one for each component of an expression.
struct ColumnAnswer {
    std::vector<Column> columns; ///< empty exactly if there is a problem
    Problems problems;
};

/// The columns that an expression is worth; what is a mere number in it counts for every row. Undefined numbers are
/// NaN.
/// @param fixed  values that take the place of names
ColumnAnswer columnsOf(const Page& page, const ExprPtr& expression, const FixedValues& fixed = {});

/// The same for text.
ColumnAnswer columnsOf(const Page& page, const std::string& text, const FixedValues& fixed = {});

/// A column as it is spelled, with all its numbers: "{0, 0.5, 1}".
std::string spelled(const std::vector<double>& column);

} // namespace coulter
