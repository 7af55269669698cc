#pragma once
#include "formula/measured/measured_field.h"
#include "sampling/field.h"

namespace coulter {

/// A field on the elements that it was measured on: its triangles, and quadrilaterals as four triangles round their
/// middle. What is linear in each triangle is drawn exactly. Else all triangles are quartered until linear
/// interpolation is off at no middle of an edge by more than moves an isoline by the tolerance (as in `sampleMesh`), or
/// the points would become more than `mostMeshPoints`; then the samples are not finished.
/// @param within    intervals of x and y: triangles that reach beyond are cut there
/// @param hasCells  the field jumps between elements: each has points of its own, with the values inside of it
FieldSamples sampleElements(const Program& f, const ElementMesh& mesh, const std::array<Interval, 2>& within,
                            bool hasCells, const PanelMap& map, const FieldTolerance& tolerance,
                            std::stop_token stop = {}, const std::function<void(std::size_t)>& evaluated = {});

} // namespace coulter
