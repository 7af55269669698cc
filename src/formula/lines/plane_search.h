#pragma once
#include "formula/lines/search_parts.h"

namespace coulter {

/// Answers a search over two variables: where two equations hold at once (or both components of a vector are zero), the
/// extrema and saddles of a function, or where it is largest or smallest. See searches.h for what is claimed. Throws a
/// SearchRefusal.
///
/// Method: `planeZerosOf` of both functions, or of the slopes of one; the determinant of its second derivatives tells
/// what a level place is. Of the largest and smallest values the edges of the rectangle are searched as intervals.
/// @param work  most operations of arithmetic
SearchAnswer searchPlane(const Page& page, const Line& line, double work);

} // namespace coulter
