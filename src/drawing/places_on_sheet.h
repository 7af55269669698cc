#pragma once
#include "drawing/frame.h"

#include <span>

namespace coulter {

/// Places of a plane panel, one after the other; what has no place is not finite. For millions of them: one coordinate
/// after the other, by what nothing in the loop can change, several at a time.
void placesOnSheet(const Frame& frame, std::span<const double> x, std::span<const double> y, std::span<Point> into);

} // namespace coulter
