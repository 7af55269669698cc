#pragma once
#include "data/file_state.h"

#include <optional>
#include <string>

namespace coulter {

/// Digests of large files by their state, so that a file of gigabytes is read through once and not with every figure:
/// those of this process, and those in `coulter/digests` of the XDG cache folder, a line each. A file that was changed
/// within the last seconds is not kept: it could change once more without a trace.
std::optional<std::string> knownDigest(const FileState& state);
void keepDigest(const FileState& state, const std::string& digest);

/// Smaller ones are read through each time: as fast as asking.
inline constexpr std::uint64_t leastKnownSize = 64'000'000;

} // namespace coulter
