#pragma once
#include "sampling/curve_samples.h"

#include <string>

namespace coulter {

/// The points of a curve as CSV (RFC 4180 with line feeds): stretch,x,y,state. `stretch` counts the unbroken pieces
/// from 1; numbers have the shortest digits that read back as the same double.
std::string samplesCsv(const CurveSamples& samples);

/// The word for a point's state in tables and in the window.
const char* stateName(PointState state);

} // namespace coulter
