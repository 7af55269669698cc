#pragma once
#include "formula/lines/search_parts.h"

#include <optional>
#include <string_view>

namespace coulter {

/// Answers a search: every zero of an equation, extremum or inflection along its variable's interval; every common zero
/// of two equations, or every extremum, in the rectangle of two variables; or where the function is largest or
/// smallest. What is called proven holds for real numbers, not for samples:
///   a place that is found exists, lies in its bounds, and no other one does;
///   parts without a place have none;
///   the rest of the interval or rectangle is listed as unsettled.
/// A closed end counts as the interval's own to within its rounding, so that sin(x) = 0 for x in [0, 2π] has 2π.
/// Methods: interval_search.h, plane_search.h.
/// @param share  of the work that a page may take: it is read at each stroke of a key
SearchAnswer searchLine(const Page& page, const Line& line, double share = 1);

/// The same for text such as “sin(x) = 0 for x in [1, 10]”; none if the text is no search.
std::optional<SearchAnswer> searchText(const Page& page, std::string_view text);

} // namespace coulter
