#pragma once
#include "plots/drawn.h"

#include <string>

namespace coulter {

/// What a report says about how something drawn was sampled, as JSON.
///   a curve: counts, shares, bounds in mm, stretches with how far each is proven, gaps with their kinds, bands that an
///            oscillation fills;
///   a field: points, triangles, evaluations, and the grid in both directions where there is one; then what its kind
///            tells of what it draws, such as the lines of each level.
std::string samplesReport(const Drawn& drawn, const Frame& frame);
std::string samplesReport(const CurveSamples& samples, double tolerance);
std::string samplesReport(const FieldSamples& samples, double tolerance);

} // namespace coulter
