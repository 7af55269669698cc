#pragma once
#include "special/bounds.h"

#include <array>
#include <cstddef>

namespace coulter {

/// The highest Taylor coefficient that is bounded. Even, so that the remainder of an integral about a middle has no odd
/// part.
inline constexpr std::size_t taylorOrder = 12;

/// Bounds of f^(j)/j! for j = 0 … `taylorOrder`.
using TaylorSeries = std::array<Bounds, taylorOrder + 1>;

} // namespace coulter
