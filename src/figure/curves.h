#pragma once
#include "figure/document.h"
#include "formula/plotted.h"
#include "typeset/math.h"

#include <memory>
#include <string>
#include <vector>

namespace coulter {

/// One curve to draw: a plot, or one case of a plot that is a family.
struct Curve {
    std::size_t plot = 0; ///< index among the panel's plots
    std::size_t caseIndex = 0;
    std::size_t caseCount = 1;
    std::shared_ptr<const Program> program; ///< the variable ↦ y, or the variable ↦ (x, y) in the panel's plane
    std::shared_ptr<const Program> inSpace; ///< of a space curve: the variable ↦ (x, y, z); else null
    std::shared_ptr<const Program> position, bend; ///< what proofs are made from (see ProofPrograms); may be null
    std::string variable;
    Interval interval;
    Grid grid;
    MathPtr entry; ///< derived legend entry: "z = 0.5 m", or the formula drawn

    /// Whether it is y = f(x), with the variable on the horizontal scale.
    bool isFunction() const { return program->outputs.size() == 1; }
};

/// One field to draw: z = f(x, y), or a vector over two variables.
struct Field {
    std::size_t plot = 0;
    std::shared_ptr<const Program> program; ///< (x, y) ↦ z, or the components of a vector
    std::array<std::string, 2> variables;   ///< to the right, upwards
    std::array<Interval, 2> intervals;
    std::array<Grid, 2> grids;
};

/// What a panel draws, and what is wrong with what it should draw.
struct PanelCurves {
    std::vector<Curve> curves;
    std::vector<Field> fields;
    std::vector<Problems> problems; ///< of each plot, counted within its `of`
    ScaleKind xScale = ScaleKind::Linear, yScale = ScaleKind::Linear;

    /// The variable of the horizontal scale, and of the vertical one if it has one; empty if there is none.
    std::string acrossVariable() const;
    std::string upVariable() const;
    bool hasSpaceCurve() const;
};

/// What one plot draws, read over as many variables as its kind has.
Plotted readPlot(const Page& page, const Plot& plot);

/// Reads the plots of a panel against the page and compiles them.
PanelCurves readCurves(const Page& page, const Panel& panel);

} // namespace coulter
