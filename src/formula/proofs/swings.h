#pragma once
#include "formula/proofs/swing.h"

#include <optional>
#include <span>
#include <vector>

namespace coulter {

/// A program as a sum of swings, and of what does not swing.
struct Swings {
    std::vector<Swing> parts;     ///< one or more
    std::optional<Program> plain; ///< none: 0
};

/// Products and whole powers of sines and cosines are multiplied out, as sin²k = ½ − ½ cos 2k is; (−1)^k swings with
/// them. None where nothing swings, or otherwise than as a sum of a few products.
/// @param others  bounds within which the further inputs are held
std::optional<Swings> swingsOf(const Program& f, std::span<const Bounds> others);

} // namespace coulter
