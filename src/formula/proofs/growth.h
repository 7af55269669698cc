#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/program/program.h"

#include <optional>
#include <span>

namespace coulter {

/// Bounds of a function for all x ≥ X, however large: f(x) lies in e^(factorial x ln x + r x) x^power times `factor`,
/// for a rate r(x) within `exponential`. So 1/(1 + x²) has the power −2 and a narrow factor, e^(−x²) ≤ e^(−X x) the
/// rate −X, and tⁿ/n! by n the factorial −1. A power may have a whole power of ln x beside it.
struct Growth {
    double factorial = 0;
    Bounds exponential{0, 0};
    double power = 0;
    Bounds factor{0, 0};
    int logarithms = 0; ///< the power of ln x; 0 unless `isPower`
    double spread = 0;  ///< by how much the power may be less at any x, as where it is rounded; 0 unless `isPower`

    bool isPower() const { return factorial == 0 && isZero(exponential); }
};

/// The growth of a program's first output by its first input from X ≥ 1 on; none where it is not defined all along, or
/// not bounded so. Forward, step by step, in arithmetic that is rounded outwards.
///
/// Sums are measured by their largest part; factorials by Γ(x) ≥ √(2π/x) (x/e)^x (DLMF 5.6.1); functions of logarithms
/// by small powers in their place; exponentials of powers between 0 and 1 by the power that falls as they do at X.
/// @param others  bounds within which the further inputs are held
std::optional<Growth> growthOf(const Program& program, double from, std::span<const Bounds> others);

/// The growth of f(end + side/t) by t from X on: how f behaves within 1/X of an end on one of its sides (1 or −1),
/// where it may be infinite. Differences from the end are exact: 1 − x at 1 is 1/t.
std::optional<Growth> growthBeside(const Program& program, double end, int side, double from,
                                   std::span<const Bounds> others);

/// The integral from X on of what grows so, times x^more; none if it does not converge absolutely.
std::optional<Bounds> integralBeyond(const Growth& growth, double from, double more = 0);

/// The sum over the whole numbers n ≥ X, a whole number; none if it does not converge absolutely.
std::optional<Bounds> sumBeyond(const Growth& growth, double from);

} // namespace coulter
