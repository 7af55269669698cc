// A radius over an angle.
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"
#include "plots/dashes.h"
#include "plots/marks.h"
#include "plots/sampling.h"

namespace coulter {
namespace {

const Setting* const settings[] = {&colourSetting, &widthSetting,       &patternSetting, &dashesSetting,
                                   &insideSetting, &shapeOrNoneSetting, &sizeSetting,    &fillingSetting,
                                   &everySetting,  &stepSetting,        &runSetting,     &opacitySetting};

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const Polylines lines = linesOf(*curveSamplesOf(drawn), frame);
    if (const double inside = number(drawn.settings, insideSetting); inside > 0) {
        Polylines sectors = lines;
        if (frame.polar && !frame.polar->isWhole()) { // what is enclosed together with the middle
            for (auto& sector : sectors) sector.push_back(frame.polar->middle);
        }
        canvas.fill(sectors, {drawn.colour, inside});
    }
    canvas.stroke(lines, penOf(drawn));
    if (hasMarks(drawn)) drawMarks(placesOf(marksAlong(drawn, frame, MarkSpacing::AlongCurve)), drawn, canvas);
}

} // namespace

extern const PlotKind polarKind;
const PlotKind polarKind{.name = "polar",
                         .meaning = "a radius over an angle, in a frame with circles and rays",
                         .runs = Runs::InPlane,
                         .layer = Layer::Line,
                         .settings = settings,
                         .fits = isNumberAlongOne,
                         .read = readPolarCurves,
                         .draw = draw,
                         .swatch = lineSwatch};

} // namespace coulter
