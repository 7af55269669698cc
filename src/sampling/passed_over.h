#pragma once
#include "sampling/field_range.h"

#include <vector>

namespace coulter {

/// A part of a field's rectangle, with the least and the greatest value that is known of it; low > high: none is.
struct SampledTile {
    std::array<Bounds, 2> box;
    Bounds known{HUGE_VAL, -HUGE_VAL};
};

/// Which values of a field can be told apart.
struct ToldApart {
    double noticed = 0;              ///< those that differ by more than this
    Bounds worth;                    ///< and lie within these
    std::vector<double> levels = {}; ///< and those on different sides of one of these, rising

    /// The levels next to known values, downwards and upwards; ±inf where there is none.
    Bounds levelsBeside(const Bounds& known) const;
};

/// Places at which a field goes beyond the known values of their tile so far that it can be told apart: where a needle
/// stands between the points that were looked at. At most one upwards and one downwards of each tile, and as many
/// beyond levels. Nothing is found of a field that has no bounds, or whose bounds cost too much.
/// @param f  of two variables, with one output
/// The same places for every number of threads. Method: see `rangeOver`.
std::vector<FieldRange::Place> passedOver(const Program& f, const std::vector<SampledTile>& tiles,
                                          const ToldApart& told, const std::stop_token& stop);

/// Peaks that were found between the corners of triangles.
class HiddenPeaks {
public:
    /// @param shown          values that are shown
    /// @param levels         values beyond that matter, too, rising
    /// @param followsLevels  whether they matter among what is shown, too, however little a peak is beyond them
    HiddenPeaks(const Bounds& shown, const std::vector<double>& levels, bool followsLevels);

    const ToldApart& told() const { return told_; } ///< by 1/50 of what is shown
    void add(const FieldRange::Place& peak) { peaks_.push_back(peak); }
    bool empty() const { return peaks_.empty(); }
    /// Whether one lies in a triangle with these corners, counterclockwise, and the plane through them is not near it.
    bool hiddenIn(const std::array<FieldRange::Place, 3>& corner) const;

private:
    ToldApart told_;
    std::vector<FieldRange::Place> peaks_;
};

} // namespace coulter
