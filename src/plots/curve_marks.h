#pragma once
#include "drawing/frame.h"
#include "plots/drawn.h"

#include <vector>

namespace coulter {

// Marks along a curve, for all kinds that draw some.

extern const Setting everySetting; ///< how far apart they are where the variable has no grid, mm
extern const Setting stepSetting;  ///< of the variable from mark to mark; 0: by distance

/// Where a mark stands.
struct CurveMark {
    double t = 0; ///< of the curve's variable
    Point at;     ///< mm on the sheet
};

/// Just where they are.
std::vector<Point> placesOf(const std::vector<CurveMark>& marks);

enum class MarkSpacing : std::uint8_t { AlongCurve, AlongScale };

/// At the samples of a grid; of an adaptive curve every so many mm, along the curve or along the horizontal scale, at
/// the curve itself (not at its chords). None where it is undefined.
std::vector<CurveMark> marksAlong(const Drawn& drawn, const Frame& frame, MarkSpacing spacing);

} // namespace coulter
