#pragma once
#include "figure/curves.h"
#include "sampling/curve_samples.h"
#include "sampling/field_samples.h"

#include <string>

namespace coulter {

/// Samples as a table: what is exported as CSV and what the window shows.
struct SampleTable {
    std::vector<std::string> columns;         ///< "stretch", "x", "y", …: the same words in every table
    std::vector<std::string> names;           ///< of the same columns, as the page has them
    std::vector<std::vector<double>> numbers; ///< by column, all of one length
    std::vector<std::string> states;          ///< of each row; empty for a field

    std::size_t rowCount() const { return numbers.empty() ? 0 : numbers[0].size(); }
};

/// The points of a curve: stretch,x,y,state; in the plane stretch,t,x,y,state; in space stretch,t,x,y,z,state.
/// `stretch` counts the unbroken pieces from 1.
SampleTable sampleTable(const Curve& curve, const CurveSamples& samples);

/// The points of a field: x,y,z, and of a vector x,y,u,v or x,y,u,v,w; row by row where it is a meshgrid. Undefined
/// values are NaN.
SampleTable sampleTable(const Field& field, const FieldSamples& samples);

/// A table as CSV (RFC 4180 with line feeds); numbers have the shortest digits that read back as the same double, and
/// what is undefined is empty.
std::string tableCsv(const SampleTable& table);

/// The word for a point's state in tables and in the window; “proven” where all chords at it are.
const char* stateName(PointState state);
const char* stateName(const Stretch& stretch, std::size_t point);

/// "undefined", "jump", "pole".
const char* gapName(GapKind kind);

} // namespace coulter
