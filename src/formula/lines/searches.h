#pragma once
#include "formula/page/page.h"

namespace coulter {

/// What a search found, or the problem that it could not be made.
struct SearchAnswer {
    Places places;
    Sought sought = Sought::Zeros;
    Problems problems;
};

/// Answers a search: every zero of an equation, extremum or inflection along its variable's interval, or where the
/// function is largest or smallest. What is called proven holds for real numbers, not for samples:
///   a place that is found exists, lies in its bounds, and no other one does;
///   parts without a place have none;
///   the rest of the interval is listed as unsettled.
/// A closed end counts as the interval's own to within its rounding, so that sin(x) = 0 for x in [0, 2π] has 2π.
///
/// Method: bisection, breadth first; parts are left out where the bounds of the function exclude zero, and decided by
/// the interval Newton method where its slope does (R. E. Moore, "Methods and Applications of Interval Analysis", 1979,
/// chapter 5); about a place at the border of parts the same on a slightly larger part (epsilon inflation: S. M. Rump,
/// "Verification methods", Acta Numerica 19, 2010). Functions are taken apart into
/// factors, which tells multiple zeros, and shows what is a pole and no zero. Extrema and inflections are the zeros of
/// symbolic derivatives.
/// @param share  of the work that a page may take: it is read at each stroke of a key
SearchAnswer searchLine(const Page& page, const Line& line, double share = 1);

/// The same for text such as “sin(x) = 0 for x in [1, 10]”; none if the text is no search.
std::optional<SearchAnswer> searchText(const Page& page, std::string_view text);

} // namespace coulter
