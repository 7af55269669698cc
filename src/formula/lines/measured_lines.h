#pragma once
#include "formula/measured/grid_place.h"
#include "formula/page/page.h"

namespace coulter {

/// What a measured function is; neither field nor points if there is a problem.
struct MeasuredAnswer {
    std::shared_ptr<const MeasuredField> field;  ///< of two or three variables
    std::shared_ptr<const Interpolation> points; ///< of one
    std::string unit, meaning;                   ///< of its values, as the file has them
    Problems problems;                           ///< notes, too: which elements are not as they should be
};

/// What p(x, y) from "slice.tif" is: each number of the grid fills its cell; with “interpolates” it is linear between
/// their places. The first parameter runs along what runs fastest in the file: to the right in a picture.
MeasuredAnswer measuredFromTable(const Line& line, const DataTables& tables, const GridPlace& place);

/// What h(x, y) interpolates (X, Y, H) on (a, b, c) is: nodes with a value each, or with one for each element, and the
/// rows of an element's nodes, from 1; from 0 where a 0 occurs. Of what cannot be an element the numbers are noted, and
/// the rest is taken.
MeasuredAnswer measuredOnElements(const Page& page, const Line& line);

/// How far a measured function of the page reaches along the parameter of this name, as an interval is written: "[0,
/// 12]"; empty if there is none.
std::string measuredExtent(const Page& page, const std::string& parameter);

} // namespace coulter
