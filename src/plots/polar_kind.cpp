// A radius over an angle, as a line in the plane.
#include "plots/common_settings.h"
#include "plots/curve_source.h"
#include "plots/sampling.h"

namespace coulter {
namespace {

constexpr const Setting* settings[] = {&colourSetting, &widthSetting, &patternSetting};

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    canvas.stroke(linesOf(*curveSamplesOf(drawn), frame), penOf(drawn));
}

} // namespace

extern const PlotKind polarKind;
constexpr PlotKind polarKind{.name = "polar",
                             .meaning = "a radius over an angle, as a curve in the plane",
                             .runs = Runs::InPlane,
                             .layer = Layer::Line,
                             .settings = settings,
                             .fits = isNumberAlongOne,
                             .read = readPolarCurves,
                             .draw = draw,
                             .swatch = lineSwatch};

} // namespace coulter
