#pragma once
#include "formula/bounds_arithmetic.h"
#include "formula/program.h"

#include <array>
#include <optional>
#include <span>
#include <vector>

namespace coulter {

/// The highest Taylor coefficient that is bounded. Even, so that the remainder of an integral about a middle has no odd
/// part.
inline constexpr std::size_t taylorOrder = 12;

/// Bounds of f^(j)/j! for j = 0 … `taylorOrder`.
using TaylorSeries = std::array<Bounds, taylorOrder + 1>;

/// Bounds the Taylor coefficients of a program's first output by its first input, while the inputs run over intervals,
/// in arithmetic that is rounded outwards.
///
/// Method: recurrences of automatic differentiation (R. E. Moore, "Methods and Applications of Interval Analysis",
/// 1979, section 3.4) for arithmetic, powers and elementary functions. What has no recurrence here (special functions
/// of the first input, integrals, corners and jumps inside the interval) has no series.
class TaylorEvaluator {
public:
    /// The program must outlive this.
    explicit TaylorEvaluator(const Program& program);
    /// @param k       the first input
    /// @param others  the further inputs; what the first output is by them is left aside
    std::optional<TaylorSeries> operator()(const Bounds& k, std::span<const Bounds> others);

private:
    struct Register {
        bool known = false;
        bool isUnset = false; ///< of pieces: certainly none of those looked at so far
        bool varies = false;  ///< with the first input
        TaylorSeries c{};
    };
    Register apply(const Program::Instruction& instruction) const;

    const Program& program_;
    std::vector<Register> registers_;
};

} // namespace coulter
