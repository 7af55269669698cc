#pragma once
#include "formula/bounds/enclosure.h"
#include "special/bounds.h"

#include <array>
#include <cstddef>

namespace coulter {

/// What is known of a formula and of its derivatives by its N variables while these run over a box.
///
/// `first` is bounded only where the formula is defined and continuous on the whole box, and any two of its values
/// differ by no more than such slopes make; `second` only where its first derivatives are continuous there too and
/// differ by no more than that. So both serve in proofs: a corner inside the box leaves `second` unknown, a jump both;
/// one at the box's edge leaves neither. Unknown bounds are ±inf.
template <std::size_t N> struct Jet {
    static constexpr std::size_t pairs = N * (N + 1) / 2;
    /// Where the second derivative by variables j ≤ k stands: xx; xy, yy.
    static constexpr std::size_t pair(std::size_t j, std::size_t k) { return k * (k + 1) / 2 + j; }

    Enclosure value;
    std::array<Bounds, N> first;
    std::array<Bounds, pairs> second;
    Enclosure centre;                    ///< the value at the middle of the box
    std::array<Bounds, N> centreFirst{}; ///< and the first derivatives there
};

} // namespace coulter
