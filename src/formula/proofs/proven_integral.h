#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/program/piece_borders.h"
#include "formula/proofs/interval_evaluator.h"
#include "formula/proofs/jet_evaluator.h"
#include "formula/proofs/taylor_evaluator.h"

#include <optional>
#include <vector>

namespace coulter {

/// How sharp proven bounds have to be, and what may be done for it.
struct BoundsEffort {
    double wanted = 1e-15; ///< the width at which work ends, as a part of the integral of the magnitude, or of the sum
    int mostParts = 400;   ///< however wide they are then

    /// Where bounds need not be sharp, their width is mostly that of the inputs, which nothing makes smaller.
    bool isCoarse() const { return wanted > 1e-12; }
};

/// Whether what is left beside a sum is no matter any more.
bool isSharpBeside(const Bounds& rest, const Bounds& sum, const BoundsEffort& effort);

/// Proven bounds of the integral of a program by its first input, as long as it is defined and piecewise smooth between
/// the limits, but for parts too small to count.
///
/// Method: Taylor's formula about the middle of each part, with the bounded coefficient of the highest order as its
/// remainder (G. Corliss, L. B. Rall, "Adaptive, self-validating numerical quadrature", 1987); where a part has no such
/// series, the same with the second derivative (special functions), or bounds of its values (corners, jumps). Parts end
/// where the integrand changes its piece, as far as that is found, and are halved where they are least sharp.
class ProvenIntegral {
public:
    /// The program must outlive this.
    explicit ProvenIntegral(const Program& integrand);

    /// @param others  bounds within which the integrand's further inputs are held
    /// @return none where no bounds are known
    std::optional<Bounds> operator()(const Bounds& low, const Bounds& high, std::span<const Bounds> others,
                                     const BoundsEffort& effort = {});

    /// Doubles between which the integrand changes its piece, in ascending order.
    std::vector<double> bordersWithin(double low, double high, std::span<const Bounds> others);

private:
    struct Part;
    Part over(double low, double high, std::span<const Bounds> others);

    TaylorEvaluator series_;
    IntervalEvaluator values_;
    JetEvaluator<1> slopes_;
    PieceFinder pieces_;
};

} // namespace coulter
