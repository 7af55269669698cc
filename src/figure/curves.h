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
    std::shared_ptr<const Program> program;
    std::shared_ptr<const Program> second; ///< the second derivative by the variable; null if there is none
    std::string variable;
    Interval interval;
    Grid grid;
    MathPtr entry; ///< derived legend entry: "z = 0.5 m", or the formula drawn
};

/// What a panel draws, and what is wrong with what it should draw.
struct PanelCurves {
    std::vector<Curve> curves;
    std::vector<Problems> problems; ///< of each plot, counted within its `of`
};

/// Reads the plots of a panel against the page and compiles them.
PanelCurves readCurves(const Page& page, const Panel& panel);

} // namespace coulter
