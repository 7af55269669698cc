#pragma once
#include "formula/base/interval.h"
#include "formula/program/program.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <stop_token>
#include <vector>

namespace coulter {

/// Dots along one side of a picture, in the user's coordinates, from left to right or from the top down.
struct DotSide {
    std::vector<double> middles; ///< of each dot
    std::vector<double> edges;   ///< where the first begins and each ends: one more than dots
    std::vector<double> parts;   ///< middles of the `DotSamples::partsAcross` parts of each dot
};

/// A function of two variables at the dots of a picture: nothing of it is interpolated.
struct DotSamples {
    static constexpr std::size_t partsAcross = 4, partsOfDot = partsAcross * partsAcross;

    /// A dot in which the function is not one thing: through which a jump or the edge of the domain runs, or in which
    /// bounds show something finer than dots.
    struct Divided {
        std::uint32_t dot = 0;
        std::array<double, partsOfDot> values; ///< row by row from the top
    };

    std::size_t width = 0, height = 0;
    std::vector<double> values;   ///< at the middle of each dot, row by row from the top; of a vector its length
    std::vector<Divided> divided; ///< by dot
    std::size_t evaluations = 0;
    bool finished = true; ///< false if it was stopped, or more dots were to be divided than are allowed
};

/// Most dots that are divided.
inline constexpr std::size_t mostDividedDots = 250'000;

/// Evaluates a field at every dot, and in all parts of the dots through which a jump runs (where what the formula
/// switches by changes, see pieced_field.h), or the edge of the domain, or that have a peak or a pit which bounds over
/// tiles of dots show and no dot has (see passed_over.h). So the share of both colours at an edge is right to 1/8.
/// @param f          (x, y) ↦ z, or the components of a vector
/// @param intervals  of x and y; beyond them a dot has no value
/// @param range      values that are shown; what is smaller than 1/50 of it is not looked for
/// Cost: an evaluation for each dot, 16 for each one that is divided, and about one over a box for each ten.
DotSamples sampleDots(const Program& f, const std::array<Interval, 2>& intervals, const DotSide& across,
                      const DotSide& down, const Interval& range, std::stop_token stop = {});

} // namespace coulter
