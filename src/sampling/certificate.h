#pragma once
#include "sampling/curve.h"

#include <map>

namespace coulter {

/// Chords that were proven before, by the parameter at both ends, and the bound of each in mm.
using ProvenChords = std::map<std::pair<double, double>, double>;

/// Marks the chords of sampled stretches that are proven to stay within the tolerance: rigorous bounds, by interval
/// arithmetic, of the curve and of its second derivative show that it is continuous between both ends and nowhere
/// farther from the chord than the tolerance on the sheet, as far as it is inside the panel. Adds no points; what
/// cannot be shown with bounded work stays estimated. Beside a special place (corner, jump, edge) the proof leaves out
/// 64 units in the last place of the parameter, or 1e-14 of the chord: the place itself is not known better.
///
/// Where the bounds show instead that the curve leaves a chord by more than the tolerance, such as at a narrow peak
/// between two points, a place (of the parameter) of that is returned.
///
/// @param proof  the curve and its second derivatives in the coordinates of the scales, see `ProofPrograms`
/// @param known  if given, its chords are not proven again, and those that are proven now are added
/// Method: over a part of width h the curve is within the box of its bounds, and within max|c″| h²/8 of the line
/// between both its ends (the error of linear interpolation); parts are halved where that is not enough.
std::vector<double> certify(CurveSamples& samples, const ProofPrograms& proof, const PanelMap& map,
                            const Tolerance& tolerance, std::stop_token stop = {}, ProvenChords* known = nullptr);

} // namespace coulter
