#pragma once
#include "formula/program/program.h"
#include "sampling/field_samples.h"
#include "sampling/panel_map.h"

#include <vector>

namespace coulter {

enum class SingularKind : std::uint8_t {
    Crossing, ///< two branches of the line cross
    Isolated, ///< the line is this one place
    Other,    ///< a cusp, or branches that touch
};

/// A place where a field has a level and does not rise in any direction.
struct SingularPoint {
    double x = 0, y = 0;
    SingularKind kind = SingularKind::Other;
};

/// Finds such places: from points of the samples that are nearer to the level than all their neighbours, by Newton's
/// method on both slopes. Kept are those at which the field is so near to the level that its lines on either side are
/// no farther than a hundredth of the tolerance. Estimated: what no sample is near to is not found.
/// @param field  a number, not a vector
std::vector<SingularPoint> singularPoints(const FieldSamples& samples, double level, const Program& field,
                                          const PanelMap& map, double millimetres);

} // namespace coulter
