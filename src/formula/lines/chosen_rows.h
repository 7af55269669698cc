#pragma once
#include "formula/page/page.h"

namespace coulter {

/// Puts the clause of a line, such as “where t > 5”, into its formulas: each column in them is undefined in the rows
/// where the condition does not hold, so that those do not count in means and fits, and nothing is drawn there.
/// Print shows the formulas as they were written.
/// @return the problem, if the line has no columns that rows could be chosen of
std::optional<Problem> chooseRows(const Page& page, Line& line);

} // namespace coulter
