#pragma once
#include "formula/program.h"
#include "sampling/curve_samples.h"
#include "sampling/panel_map.h"

#include <stop_token>

namespace coulter {

/// Marks the chords of sampled stretches that are proven to stay within the tolerance: rigorous bounds, by interval
/// arithmetic, of the function and of its second derivative show that the curve is continuous between both ends and
/// nowhere farther from the chord than `tolerance` mm on the sheet, as far as it is inside the panel. Adds no points;
/// what cannot be shown with bounded work stays estimated. Both scales must be linear, else nothing is proven.
///
/// Where the bounds show instead that the curve leaves a chord by more than the tolerance, such as at a narrow peak
/// between two points, a place of that is returned.
///
/// @param f       the function, as it was sampled
/// @param second  its second derivative, or null if there is none
/// Method: |f − chord| ≤ max(|f − chord| at both ends) + max|f″| h²/8 over a part of width h (the error of linear
/// interpolation), halving the parts where that is not enough.
std::vector<double> certify(CurveSamples& samples, const Program& f, const Program* second, const PanelMap& map,
                            double tolerance, std::stop_token stop = {});

} // namespace coulter
