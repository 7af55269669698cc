#pragma once
#include "drawing/figure_layout.h"
#include "sampling/curve.h"
#include "sampling/field_samples.h"

#include <stop_token>

namespace coulter {

/// Parts of a figure that a person can point at.
enum class Part { Title, XLabel, YLabel, XScale, YScale, Curve, Legend, Panel, Field, ColourScale, ColourLabel };

/// Where a part stands on the sheet.
struct Target {
    Part part = Part::Panel;
    std::size_t index = 0; ///< of the curve or field
    Rect rect;
};

/// A figure with every stage that led to it: what the window shows, and what it knows about what it shows.
struct Figure {
    Page page;
    std::vector<PanelCurves> curves; ///< of each panel
    std::vector<PanelLayout> layouts;
    std::vector<std::vector<CurveSamples>> samples; ///< of each panel's curves
    std::vector<std::vector<FieldSamples>> fields;  ///< of each panel's fields
    Scene scene;
    std::vector<Target> targets;
    bool finished = true; ///< false if it was stopped before its end
};

/// The whole way from the recipe to the drawing. A function of the document alone; what `atLeast` does to a view that
/// is being changed, see `layoutPanel`.
Figure drawFigure(const Document& document, std::stop_token stop = {}, const std::optional<Limits>& atLeast = {});

/// Colour of a curve: the plot's own, or the figure's.
Colour curveColour(const Panel& panel, const Curve& curve);

/// Samples one curve for a layout: its grid, or adaptively to the tolerance, within what the panel shows.
CurveSamples sampleForPanel(const Curve& curve, const PanelMap& map, const Tolerance& tolerance, std::stop_token stop);

/// Samples one field for a layout: its meshgrid exactly as asked for, or a mesh to the tolerance. Beside a variable
/// with a count or a step, one without has 257 places, evenly on its scale.
FieldSamples sampleFieldForPanel(const Field& field, const PanelLayout& layout, double tolerance, std::stop_token stop);

/// Problems of the grids of a field or a curve; empty if they can be made.
Problems gridProblems(const Curve& curve);
Problems gridProblems(const Field& field);

} // namespace coulter
