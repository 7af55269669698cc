#pragma once
#include "plots/plot_kind.h"
#include "sampling/singular_points.h"

namespace coulter {

/// level,line,closed,x,y,state: points in order along each line.
SampleTable levelLinesTable(const Drawn& drawn, const Frame& frame);
/// Of each level: how many lines, how many of them closed, their length on the sheet in mm, and what is proven of them.
std::vector<ReportRow> levelLinesReport(const Drawn& drawn, const Frame& frame);

/// low,high,area,ring,x,y: the corners of the rings round each area; one without a bound has an empty one.
SampleTable levelAreasTable(const Drawn& drawn, const Frame& frame);
/// Of each area: its bounds, how many rings, its content in the units of both scales.
std::vector<ReportRow> levelAreasReport(const Drawn& drawn, const Frame& frame);

/// line,closed,x,y,state of where something is zero; then its singular points, each a line of its own.
SampleTable zeroTable(const Drawn& drawn, const Frame& frame, const std::vector<SingularPoint>& singular);
/// How many lines, how many closed, their length.
std::vector<ReportRow> zeroReport(const Drawn& drawn, const Frame& frame);
/// ring,x,y of the rings round where something is positive, and its content.
SampleTable zeroAreaTable(const Drawn& drawn, const Frame& frame);
std::vector<ReportRow> zeroAreaReport(const Drawn& drawn, const Frame& frame);

} // namespace coulter
