#pragma once
#include "drawing/frame.h"
#include "formula/measured/measured_field.h"
#include "sampling/dot_samples.h"
#include "sampling/field_samples.h"

#include <array>

namespace coulter {

/// How a field's samples are filled in.
enum class FieldFill : std::uint8_t { Smooth, Cells };

/// The dots of a field in the panel, at so many dots per mm, on the raster of the whole sheet: on an export at that
/// resolution every dot is one dot of the file.
///   smooth: values are interpolated linearly over triangles, bilinearly between the points of a meshgrid;
///   cells: each point of a meshgrid, or each triangle, has one colour throughout.
ImageItem fieldImage(const FieldSamples& samples, FieldFill fill, const Frame& frame, double dotsPerMm);

/// The same of values at the dots themselves: those of `dotSides` at this resolution.
ImageItem dotImage(const DotSamples& samples, const Frame& frame, double dotsPerMm);

/// The dots of a panel at so many dots per mm, across and down, in the user's coordinates. What of the outermost ones
/// lies beyond the panel is taken to lie at its edge.
std::array<DotSide, 2> dotSides(const Frame& frame, double dotsPerMm);

/// The cells of a field's samples as lines on the sheet: edges of triangles, or the borders of a meshgrid's cells.
std::vector<std::vector<Point>> meshLines(const FieldSamples& samples, const Frame& frame);

/// The edges of elements, each once.
std::vector<std::vector<Point>> elementLines(const ElementMesh& mesh, const Frame& frame);

/// Places in mm along a scale at which the cells round the points of a grid meet, and begin and end.
std::vector<double> cellBorders(const std::vector<double>& points, const AxisMap& map);

} // namespace coulter
