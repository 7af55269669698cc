#pragma once
#include "composition/figure.h"
#include "drawing/cairo_painter.h"

#include <string>
#include <vector>

namespace coulter {

/// Something that two recipes say differently: a setting, a row of a table, a line of the page.
struct RecipeDifference {
    std::string where;         ///< "panels[0].plots[1].style.width", "page, line 3"
    std::string first, second; ///< as each recipe spells it; empty where one has nothing there
};

/// A plot that is drawn in both figures: how far apart its lines, outlines and marks are on the sheet.
struct PlotShift {
    ItemPath path;
    std::string name;       ///< of the first figure's
    double millimetres = 0; ///< the largest distance from a point of either to the other
    Point at;               ///< that point, mm on the sheet
    bool onlyInFirst = false, onlyInSecond = false;
    bool isPicture = false; ///< of dots, which cannot move but differ
    bool differs() const { return millimetres > 0 || onlyInFirst || onlyInSecond || isPicture; }
};

struct Comparison {
    std::vector<RecipeDifference> recipe;
    std::vector<PlotShift> plots; ///< all of either figure
    bool same() const { return recipe.empty() && shifted() == 0; }
    std::size_t shifted() const;
};

/// What two recipes say differently: lines of the page are matched by what they say, everything else by its place.
std::vector<RecipeDifference> compareRecipes(const Document& first, const Document& second);

/// The recipes of two figures, and where on the sheet each plot is in either.
Comparison compareFigures(const Figure& first, const Figure& second);

/// Both figures over one another: what is only in the first is blue, only in the second orange, and dark in both.
Raster overlaid(const Figure& first, const Figure& second, double dotsPerMm);

/// The comparison in sentences, one for each difference; of none that there is none.
std::vector<std::string> describe(const Comparison& comparison);

} // namespace coulter
