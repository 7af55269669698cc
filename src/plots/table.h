#pragma once
#include "plots/drawn.h"

#include <functional>
#include <string>
#include <vector>

namespace coulter {

/// Samples as a table: what is exported as CSV and what the window shows. Nothing is copied: a cell is computed when it
/// is asked for.
struct SampleTable {
    std::vector<std::string> columns; ///< "stretch", "x", "y", …: the same words in every table
    std::vector<std::string> names;   ///< of the same columns, as the page has them
    std::size_t rows = 0;
    std::function<double(std::size_t row, std::size_t column)> number;
    std::function<const char*(std::size_t row)> state; ///< of each row; empty for a field
    std::vector<std::string> heading;                  ///< what it is of; then count, step and span of each direction
};

/// The samples of what is drawn; it must outlive the table.
///   columns: what the kind draws of them, by name, such as from,to,count of a histogram
///   a curve: stretch,x,y,state; in the plane stretch,t,x,y,state; in space stretch,t,x,y,z,state. `stretch` counts the
///            unbroken pieces from 1.
///   a field: x,y,z, and of a vector x,y,u,v or x,y,u,v,w; row by row where it is a meshgrid. Undefined values are NaN.
SampleTable tableOf(const Drawn& drawn);
/// The same, or what its kind makes of them in this frame.
SampleTable tableOf(const Drawn& drawn, const Frame& frame);

/// A table as CSV (RFC 4180 with line feeds); numbers have the shortest digits that read back as the same double, and
/// what is undefined is empty.
std::string tableCsv(const SampleTable& table);

/// The word for a point's state in tables and in the window; “proven” where all chords at it are.
const char* stateName(PointState state);
const char* stateName(const Stretch& stretch, std::size_t point);

/// "undefined", "jump", "pole".
const char* gapName(GapKind kind);

} // namespace coulter
