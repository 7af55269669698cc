#pragma once
#include "formula/lines/search_parts.h"

namespace coulter {

/// Answers a search along one variable; see searches.h for what is claimed. Throws a SearchRefusal.
///
/// Method: bisection, breadth first; parts are left out where the bounds of the function exclude zero, and decided by
/// the interval Newton method where its slope does (R. E. Moore, "Methods and Applications of Interval Analysis", 1979,
/// chapter 5); about a place at the border of parts the same on a slightly larger part (epsilon inflation: S. M. Rump,
/// "Verification methods", Acta Numerica 19, 2010). Functions are taken apart into
/// factors, which tells multiple zeros, and shows what is a pole and no zero. Extrema and inflections are the zeros of
/// symbolic derivatives.
/// @param work  most operations of arithmetic
SearchAnswer searchInterval(const Page& page, const Line& line, double work);

} // namespace coulter
