#pragma once
#include "figure/document.h"
#include "formula/lines/measured_lines.h"

#include <optional>

namespace coulter {

/// A document with a table taken in: a line of its page that names the columns, by their symbols or else by letters
/// that are free, and the second column over the first as points in a panel; a single one by the number of its rows.
/// A table of the same name is replaced, and its line stays.
/// @param place  where the numbers of a grid lie, if not as its file says; the line says it
Document withTable(const Document& document, DataTable table, std::size_t panel, const GridPlace& place = {});

/// The table that a plot draws rows of, one for one; none if it draws no columns of a table.
std::optional<std::string> tableOfPlot(const Page& page, const Plot& plot);

/// A document in which rows of a table count or do not.
Document withRowsLeftOut(const Document& document, const std::string& source, const std::vector<std::size_t>& rows,
                         bool leftOut);

/// Whether a row of a table is left out.
bool isLeftOut(const Document& document, const std::string& source, std::size_t row);

/// What a table of values shows at first, as columns of the page side by side: "t, s". A page without columns gets one
/// of eleven places along the variable of its first function.
std::string valuesToShow(Document& document);

} // namespace coulter
