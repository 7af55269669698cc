#pragma once
#include "formula/program/program.h"
#include "sampling/isolines.h"
#include "sampling/panel_map.h"

#include <cstddef>
#include <functional>
#include <stop_token>
#include <vector>

namespace coulter {

/// What is proven of the lines on which a function of two variables has a level; zero, where nothing else is said.
struct ZeroProof {
    double length = 0;        ///< of all lines, mm
    double provenLength = 0;  ///< of these the chords within whose tolerance there is exactly one piece of the curve,
                              ///< from one end to the other
    double area = 0;          ///< that was looked at, mm²
    double unsettledArea = 0; ///< where neither is proven: that the curve is not there, nor that it is near a line
    std::size_t evaluations = 0; ///< over boxes
    bool finished = true;        ///< false if it was stopped, or the effort was spent

    /// Of the length; 0 if there is no line.
    double share() const { return length > 0 ? provenLength / length : 0; }
    /// Whether nowhere else in the panel, that is farther than three times the tolerance from lines and single points,
    /// the function is zero.
    bool isAll() const { return unsettledArea == 0; }
};

/// How much may be spent on it.
struct ZeroProofEffort {
    double millimetres = 0.02; ///< tolerance on the sheet
    std::size_t mostEvaluations = 60'000;
    std::stop_token stop = {};
    /// Told now and then which share of the panel is done.
    std::function<void(double)> watch = {};
};

/// Proves lines of a level, by rigorous bounds of the function and of its slopes over boxes; what cannot be shown with
/// bounded work is left unproven. Nothing is claimed at jumps and where the function is undefined or has no bounds.
///
/// A chord is proven where the function has opposite signs along the two lines beside it, at the tolerance's distance,
/// and is strictly monotone from one to the other: then exactly one curve runs between them. That there is no other is
/// shown of boxes that the panel is divided into: the function has no zero in it, or it is strictly monotone upwards or
/// to the right over the box, so that there is at most one zero above each place, and a proven chord or the signs at
/// the box's edges say whether there is. Coordinates of the sheet are taken as exact to 1e-12 mm.
///
/// @param f       of two variables; its first output counts
/// @param level   the difference to it is what the proof is about
/// @param lines   where it has the level, from `followLevels` through the same map
/// @param points  single places that are known, in the user's coordinates
/// @param domain  the part of the panel that is looked at: its lower left and upper right corner, in mm
/// Method: bounds from jets (see jet.h); interval Newton operators show uniqueness in the same way (R. E. Moore,
/// "Methods and Applications of Interval Analysis", 1979, chapter 5); subdivision of the plane as J. M. Snyder,
/// "Interval analysis for computer graphics" (1992).
ZeroProof proveLevel(const Program& f, double level, const std::vector<Isoline>& lines, const Path& points,
                     const PanelMap& map, const std::array<double, 4>& domain, const ZeroProofEffort& effort);

} // namespace coulter
