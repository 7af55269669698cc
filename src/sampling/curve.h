#pragma once
#include "formula/interval.h"
#include "formula/program.h"
#include "sampling/curve_samples.h"
#include "sampling/panel_map.h"

#include <span>
#include <stop_token>

namespace coulter {

/// The polyline that stays within `tolerance` of y = f(x) on the sheet, with hardly more points than that needs.
///
/// @param f          compiled function of one variable
/// @param interval   where, in the variable's own unit; open ends are not evaluated
/// @param map        the panel on the sheet, in mm, through both of its scales; what lies outside it is not refined
/// @param tolerance  largest distance between polyline and curve, in mm; > 0
/// @param second     its second derivative, if there is one: chords are proven with it (see certificate.h), and what
///                   the proof finds between them, such as a narrow peak, is sampled
/// @return           stretches of (x, y), left to right; between two of them a gap of a stated kind
///
/// Never fails: what cannot be evaluated becomes a gap. When `stop` is requested it returns what it has, marked
/// unfinished.
/// Method: points are added where neighbouring chords show curvature (dense reference polyline, a tenth of the
/// tolerance), special places are found by bisection, and the fewest of the points whose chords keep the tolerance
/// are kept, each chord reaching as far as it can. The resulting knots equidistribute the square root of curvature
/// (C. de Boor, "Good approximation by splines with variable knots", 1973).
CurveSamples sampleCurve(const Program& f, const Interval& interval, const PanelMap& map, double tolerance,
                         std::stop_token stop = {}, const Program* second = nullptr);

/// The function at given points, in order; undefined values break the curve into stretches.
CurveSamples sampleAtPoints(const Program& f, std::span<const double> points);

} // namespace coulter
