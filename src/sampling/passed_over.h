#pragma once
#include "sampling/field_range.h"

#include <vector>

namespace coulter {

/// A part of a field's rectangle, with the least and the greatest value that is known of it; low > high: none is.
struct SampledTile {
    std::array<Bounds, 2> box;
    Bounds known{HUGE_VAL, -HUGE_VAL};
};

/// Places at which a field goes beyond the known values of their tile by more than `noticed`, at most one upwards and
/// one downwards of each tile: where a needle stands between the points that were looked at. What lies beyond `worth`
/// is not told apart. Nothing is found of a field that has no bounds, or whose bounds cost too much.
/// @param f  of two variables, with one output
/// The same places for every number of threads. Method: see `rangeOver`.
std::vector<FieldRange::Place> passedOver(const Program& f, const std::vector<SampledTile>& tiles, double noticed,
                                          const Bounds& worth, const std::stop_token& stop);

/// Peaks that were found between the corners of triangles.
class HiddenPeaks {
public:
    /// @param shown   values that are shown
    /// @param levels  values beyond that matter, too
    HiddenPeaks(const Bounds& shown, const std::vector<double>& levels);

    double noticed() const { return noticed_; }    ///< by so much a peak is seen: 1/50 of what is shown
    const Bounds& worth() const { return worth_; } ///< what can be told apart
    void add(const FieldRange::Place& peak) { peaks_.push_back(peak); }
    bool empty() const { return peaks_.empty(); }
    /// Whether one lies in a triangle with these corners, counterclockwise, and the plane through them is not near it.
    bool hiddenIn(const std::array<FieldRange::Place, 3>& corner) const;

private:
    double noticed_;
    Bounds worth_;
    std::vector<FieldRange::Place> peaks_;
};

} // namespace coulter
