#pragma once
#include "formula/lines/measured_lines.h"

namespace coulter {

/// Gives a table's line its columns, units and labels, or the problem that keeps it from having them: the numbers are
/// those of the columns that the line picks; else of those that are headed by its names; else of the first ones.
/// @param place  how a grid among the tables is laid on its axes
void readTableLine(Line& line, const DataTables& tables, const GridPlace& place = {});

/// The page as the rows that are left out of its tables have it: in every other row its columns are undefined, and what
/// is computed from whole columns (means, fits) stays what it is. None if no row is left out.
std::optional<Page> pageOfLeftOut(const Page& page, const DataTables& tables);

} // namespace coulter
