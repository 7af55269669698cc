#pragma once
#include "sampling/curve_samples.h"

#include <cstddef>
#include <functional>
#include <string_view>

namespace coulter {

struct Figure;

/// Who wants to know how far the making of a figure is. Called from the threads that work on it, also at the same time;
/// nothing that is told changes the figure that is returned in the end.
struct FigureWatch {
    /// What is being done ("sampling"), and how many parts of it are.
    std::function<void(std::string_view doing, std::size_t done, std::size_t all)> stage = {};
    /// The whole figure before its curves are proven, where proofs may take a while.
    std::function<void(Figure)> picture = {};
    /// After that: what is proven so far of a part of what a panel draws.
    std::function<void(std::size_t panel, std::size_t drawn, std::size_t part, const CurveSamples& soFar)> proving = {};
};

} // namespace coulter
