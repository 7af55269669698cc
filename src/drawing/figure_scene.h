#pragma once
#include "drawing/figure_layout.h"
#include "sampling/curve_samples.h"

#include <stop_token>

namespace coulter {

/// Parts of a figure that a person can point at.
enum class Part { Title, XLabel, YLabel, XScale, YScale, Curve, Legend, Panel };

/// Where a part stands on the sheet.
struct Target {
    Part part = Part::Panel;
    std::size_t index = 0; ///< of the curve
    Rect rect;
};

/// A figure with every stage that led to it: what the window shows, and what it knows about what it shows.
struct Figure {
    Page page;
    std::vector<PanelCurves> curves; ///< of each panel
    std::vector<PanelLayout> layouts;
    std::vector<std::vector<CurveSamples>> samples; ///< of each panel's curves
    Scene scene;
    std::vector<Target> targets;
    bool finished = true; ///< false if it was stopped before its end
};

/// The whole way from the recipe to the drawing. A function of the document alone.
Figure drawFigure(const Document& document, std::stop_token stop = {});

/// Colour of a curve: the plot's own, or the figure's.
Colour curveColour(const Panel& panel, const Curve& curve);

/// Samples one curve for a layout: its grid, or adaptively to the sheet's tolerance, within what the panel shows.
CurveSamples sampleForPanel(const Curve& curve, const PanelMap& map, double tolerance, std::stop_token stop);

} // namespace coulter
