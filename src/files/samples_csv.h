#pragma once
#include "sampling/curve_samples.h"

#include <string>

namespace coulter {

/// The points of a curve as CSV (RFC 4180 with line feeds): stretch,x,y,state. `stretch` counts the unbroken pieces
/// from 1; numbers have the shortest digits that read back as the same double.
std::string samplesCsv(const CurveSamples& samples);

/// What a report says about how a curve was sampled, as JSON: counts, shares, bounds in mm, stretches with how far each
/// is proven, gaps with their kinds.
std::string samplesReport(const CurveSamples& samples, double tolerance);

/// The word for a point's state in tables and in the window; “proven” where all chords at it are.
const char* stateName(PointState state);
const char* stateName(const Stretch& stretch, std::size_t point);

/// "undefined", "jump", "pole".
const char* gapName(GapKind kind);

} // namespace coulter
