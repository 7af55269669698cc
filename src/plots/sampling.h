#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"
#include "formula/base/problem.h"
#include "plots/drawn.h"
#include "plots/effort.h"
#include "plots/extents.h"

#include <functional>
#include <stop_token>

namespace coulter {

/// Who wants to know how far the sampling of a source is; called from any thread.
struct SampleWatch {
    std::function<void(const CurveSamples&)> proving = {};                ///< what is proven so far of a curve
    std::function<void(std::size_t done, std::size_t all)> sampling = {}; ///< points of a grid
};

/// Samples a source for a panel: its grid, or adaptively to the effort's tolerance, within what the frame shows. Of a
/// field beside a variable with a count or a step, one without has 257 places, evenly on its scale. What would take
/// more operations than the effort allows is sampled as far as they go, and marked as too dear.
/// @param watch  told now and then how far it is
Samples sampleSource(const Source& source, const std::vector<FinerStretch>& finer, const Frame& frame,
                     const Effort& effort, const std::stop_token& stop, const SampleWatch& watch = {});

/// Whether a source is a curve whose chords can be proven, and whether that may take longer than a picture.
bool canBeProven(const Source& source);
bool hasDearProofs(const Source& source);

/// Problems of the grids of a source; empty if they can be made.
Problems gridProblems(const Source& source);

/// A first, coarse look at a curve: enough for limits and for the legend's place. Empty for a field.
struct CoarseLook {
    std::vector<double> x, y;
    std::array<std::vector<double>, 3> space; ///< of a space curve: its coordinates
    std::vector<double> insideX, insideY;     ///< some places within what is filled
};
/// @param across  what the horizontal scale will show; its kind decides where a function is looked at
/// @param operations  of arithmetic that it may take: what asks for more is looked at in fewer places
CoarseLook lookAt(const Source& source, ScaleKind xScale, const Limits& across, double operations,
                  const std::stop_token& stop);

/// A coarse look at the values of a field within limits.
std::vector<double> coarseValues(const Field& field, ScaleKind xScale, const Limits& x, ScaleKind yScale,
                                 const Limits& y, double operations, const std::stop_token& stop);

/// Adds what a source should show of itself: intervals of variables that are coordinates, and values.
void addExtents(const Source& source, const CoarseLook& look, Extents& extents);

/// An interval of a variable as far as a scale and its limits show it: nothing at or below zero on a logarithmic one.
/// None if nothing of it is shown.
std::optional<Interval> shownPart(const Interval& interval, ScaleKind scale, const Limits& limits);

/// The stretches of a curve as lines on the sheet, mm.
Polylines linesOf(const CurveSamples& samples, const Frame& frame);

} // namespace coulter
