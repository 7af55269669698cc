#pragma once
#include "formula/base/interval.h"
#include "formula/program/program.h"
#include "sampling/curve_samples.h"
#include "sampling/finer_stretch.h"
#include "sampling/panel_map.h"

#include <functional>
#include <span>
#include <stop_token>

namespace coulter {

/// Largest distance in mm between a curve and the polyline drawn for it, along the parameter.
struct Tolerance {
    double usual = 0.02; ///< mm, > 0
    std::vector<FinerStretch> finer;

    Tolerance(double millimetres) : usual(millimetres) {} // NOLINT: a plain number is a tolerance
    /// What was asked for at t beyond the usual; null if nothing was.
    const FinerStretch* finerAt(double t) const;
    /// mm; points go with the inverse square root of it.
    double at(double t) const;
};

/// Whether the chords of a curve are to be proven (see certificate.h).
enum class Proofs { None, All };

/// What sampling a curve may cost.
struct CurveEffort {
    Proofs proofs = Proofs::None;
    std::size_t mostEvaluations = 1'000'000; ///< of the function
    double mostProofOperations = 2e7;        ///< of arithmetic on bounds (see costOf)
    bool integrals = true;                   ///< whether curves with integrals are proven, too
    /// Told now and then while chords are being proven, with what is known so far.
    std::function<void(const CurveSamples&)> watch = {};
};

/// The polyline that stays within `tolerance` of a curve on the sheet, with hardly more points than that needs.
///
/// @param f          compiled function: x ↦ y, or t ↦ (x, y)
/// @param interval   of the parameter (x or t), in its own unit; open ends are not evaluated
/// @param map        the panel on the sheet, in mm, through both of its scales; what lies outside it is not refined
/// @param effort     with proofs, what they find between the points, such as a narrow peak, is sampled too
/// @return           stretches of points, in the order of the parameter; between two of them a gap of a stated kind
///
/// Never fails: what cannot be evaluated becomes a gap. When `stop` is requested it returns what it has, marked
/// unfinished.
/// Method: points are added where neighbouring chords show curvature (dense reference polyline, a tenth of the
/// tolerance), special places are found by bisection, places where the formula changes its piece are knots, and the
/// fewest of the points whose chords keep the tolerance are kept, each chord reaching as far as it can. The resulting
/// knots equidistribute the square root of curvature (C. de Boor, "Good approximation by splines with variable knots",
/// 1973).
CurveSamples sampleCurve(const Program& f, const Interval& interval, const PanelMap& map, const Tolerance& tolerance,
                         std::stop_token stop = {}, const CurveEffort& effort = {});

/// The curve at given values of its parameter, in order; undefined values break it into stretches. Stopped: nothing.
/// @param evaluated  see evaluateInParallel
CurveSamples sampleAtPoints(const Program& f, std::span<const double> points, std::stop_token stop = {},
                            const std::function<void(std::size_t)>& evaluated = {});

} // namespace coulter
