#pragma once
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/program/program.h"

#include <optional>
#include <span>

namespace coulter {

/// What a program swings with while its first input k grows: f = g sin(ω k + φ), where g is smooth and does not swing.
struct Swing {
    Program rest;                    ///< g, with the inputs of f
    bool isForWholes = false;        ///< a factor (−1)^k is part of it, which is so for whole k alone
    Bounds rate{0, 0};               ///< ω, which is not 0
    Bounds sine{0, 0}, cosine{0, 0}; ///< bounds of sin φ, cos φ
};

/// Bounds of π.
inline constexpr Bounds halfTurn{3.1415926535897931, 3.1415926535897936};

/// Bounds of the sine or the cosine of an angle.
std::optional<Bounds> boundsOf(Kernel wave, const Bounds& angle);

/// ∫ f from X ≥ 1 on.
///
/// Method: integration by parts, twelve times up to some place and twice beyond; remainders are bounded by Taylor
/// coefficients of g and by the growth of its second derivative (see growth.h). None where g does not vanish.
/// @param little  what may be left open by what lies beyond that place
std::optional<Bounds> swingingIntegralFrom(const Swing& swing, double from, std::span<const Bounds> others,
                                           double little);

/// Σ f over all whole k from N ≥ 2 on.
///
/// Method: Σ g(k) z^k = z^N Σ A_j g^(j)(N) with 1/(1 − z e^t) = Σ A_j t^j (of z = −1 Boole's formula, DLMF 24.17.1). By
/// Poisson's summation formula the remainder after m terms is at most ∫ |g^(m)| Σ 1/|ω + 2π l|^m over all whole l;
/// twelve terms and two as above. None where ω is too near to a multiple of 2π.
std::optional<Bounds> swingingSumFrom(const Swing& swing, double from, std::span<const Bounds> others, double little);

/// How far ω is from all multiples of 2π, at least; 0 if that is not certain. At most π.
double awayFromTurns(const Bounds& rate);

/// ∫ |f^(m)/m!| between two places with 1 ≤ first < last, at most, for m = `taylorOrder`: over parts short enough that
/// their bounds are of its size.
std::optional<double> highestCoefficientOver(const Program& f, double first, double last,
                                             std::span<const Bounds> others);

} // namespace coulter
