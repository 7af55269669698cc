// Marks along a curve: at the samples of a grid, or every so many mm.
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"
#include "plots/marks.h"

namespace coulter {
namespace {

const Setting* const settings[] = {&colourSetting, &shapeSetting,   &sizeSetting,  &fillingSetting,
                                   &widthSetting,  &opacitySetting, &everySetting, &stepSetting};

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    drawMarks(placesOf(marksAlong(drawn, frame, MarkSpacing::AlongCurve)), drawn, canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    drawMarks({{rect.x + rect.width / 2, rect.y + rect.height / 2}}, drawn, canvas);
}

} // namespace

extern const PlotKind markersKind;
const PlotKind markersKind{.name = "markers",
                           .meaning = "marks along a curve, at the samples of a grid or every so many mm",
                           .runs = Runs::Along,
                           .layer = Layer::Line,
                           .settings = settings,
                           .fits = isCurve,
                           .read = readCurves,
                           .draw = draw,
                           .swatch = swatch};

} // namespace coulter
