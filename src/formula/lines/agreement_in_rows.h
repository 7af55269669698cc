#pragma once
#include "formula/lines/searches.h"

namespace coulter {

/// Answers a line such as s = f(t) for all rows: how far both sides are apart in the rows of the page's columns, the
/// largest difference with its row, their root mean square and mean, left side less right. Rows where a side has no
/// value, or that are left out, do not count, and are said. Differences that rounding explains (a part of 10⁻¹³ of the
/// larger side) count as agreement. A problem if there is no column on either side.
SearchAnswer comparedInRows(const Page& page, const Line& line);

} // namespace coulter
