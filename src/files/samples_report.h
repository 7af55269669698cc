#pragma once
#include "sampling/curve.h"
#include "sampling/field_samples.h"

#include <string>

namespace coulter {

/// What a report says about how a curve was sampled, as JSON: counts, shares, bounds in mm, stretches with how far each
/// is proven, gaps with their kinds, bands that an oscillation fills.
std::string samplesReport(const CurveSamples& samples, double tolerance);

/// The same for a field: points, triangles, evaluations, and the grid in both directions where there is one.
std::string samplesReport(const FieldSamples& samples, double tolerance);

} // namespace coulter
