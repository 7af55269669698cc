#pragma once
#include <cstddef>
#include <vector>

namespace coulter {

/// What is known about one point of a sampled curve.
enum class PointState {
    Grid,      ///< a point of the grid that was asked for
    Estimated, ///< chosen by curvature; the chords beside it were checked at further points
    Edge,      ///< last point before the function becomes undefined
    Jump,      ///< one-sided value at a jump
    Pole,      ///< last point beside a pole
    Filled,    ///< the function is undefined here, but has this limit
    Corner,    ///< the formula changes its piece here, and the curve its direction
    Border,    ///< the formula changes its piece here; the curve goes on smoothly
};

/// Why there is no line between two stretches.
enum class GapKind { Undefined, Jump, Pole };

/// An unbroken piece of the curve, in the order of its parameter, in the user's coordinates.
struct Stretch {
    std::vector<double> t; ///< parameter; of y = f(x) the same as x
    std::vector<double> x; ///< of a space curve: its view, from left to right
    std::vector<double> y;
    std::vector<PointState> state;
    std::vector<bool> proven; ///< of each chord from a point to the next; empty: nothing was proven

    /// Whether the chord from point i to the next is proven.
    bool provenAlong(std::size_t i) const { return !proven.empty() && proven[i]; }
    /// Whether all chords at a point are proven to keep the tolerance.
    bool provenAt(std::size_t i) const {
        return !proven.empty() && (i == 0 || proven[i - 1]) && (i == proven.size() || proven[i]);
    }
};

/// A place, or an interval, of the parameter that no line crosses.
struct Gap {
    double low = 0;
    double high = 0; ///< equal to `low` (to rounding) for a pole or a jump
    GapKind kind = GapKind::Undefined;
};

/// A part of the parameter where the curve turns to and fro more often than can be drawn, such as sin(1/x) around 0:
/// its line there fills the band that the curve fills.
struct Band {
    double low = 0;
    double high = 0;
};

/// How far a sampled curve is proven to keep the tolerance; lengths in mm of what is inside the panel.
struct Certificate {
    double length = 0;           ///< of all chords
    double provenLength = 0;     ///< of those that are proven
    double largestBound = 0;     ///< mm: no proven chord is farther from the curve
    std::size_t evaluations = 0; ///< over intervals
    double share() const { return length > 0 ? provenLength / length : 0; }
};

struct CurveSamples {
    std::vector<Stretch> stretches;
    std::vector<Gap> gaps;
    std::vector<Band> bands;
    std::size_t evaluations = 0; ///< of the function, in all
    Certificate certificate;
    bool finished = true; ///< false if it was stopped, or the function asked for more points than are allowed
    bool tooDear = false; ///< not finished because its values take too long to compute
    std::size_t pointCount() const {
        std::size_t n = 0;
        for (const Stretch& stretch : stretches) n += stretch.x.size();
        return n;
    }
};

} // namespace coulter
