#pragma once
#include "formula/base/problem.h"

#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// Several values for one quantity or setting, as --set has them: q=0..5 with a count, or q={1, 2, 5}.
struct Sweep {
    std::string name;
    std::vector<std::string> values; ///< as spelled
};

/// What a NAME=VALUE says if it has several values; none if it has one.
/// @param count    of the values from the first to the last, if it is such a range; 0: not given
/// @param problem  set if it is a sweep that cannot be followed
std::optional<Sweep> sweepOf(const std::string& set, std::size_t count, bool logarithmic, Problem& problem);

/// Most figures of one sweep.
inline constexpr std::size_t mostSwept = 1'000'000;

} // namespace coulter
