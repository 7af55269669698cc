// Where a condition of both coordinates holds.
#include "plots/common_settings.h"
#include "plots/field_source.h"
#include "plots/level_tables.h"
#include "plots/levels.h"
#include "plots/reading.h"
#include "plots/rectangles.h"

namespace coulter {
namespace {

const Setting fillOpacitySetting{.key = "inside",
                                 .label = "inside",
                                 .meaning = "opacity of the area",
                                 .type = SettingType::Number,
                                 .usual = 0.3,
                                 .least = 0,
                                 .greatest = 1,
                                 .step = 0.05};

const Setting* const settings[] = {&acrossSetting, &colourSetting, &fillOpacitySetting, &outlineSetting, &runSetting};

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const auto found = zeroLinesOf(drawn, frame);
    if (!found->above.empty())
        canvas.fill(ringsOnSheet(found->above[0], frame), {drawn.colour, number(drawn.settings, fillOpacitySetting)});
    const double width = number(drawn.settings, outlineSetting);
    if (width == 0) return;
    canvas.stroke(linesOnSheet(*found, frame), {drawn.colour, width, {}, true});
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double top = rect.y + 0.2 * rect.height, bottom = rect.y + 0.8 * rect.height;
    canvas.fill({{{rect.x, top}, {rect.right(), top}, {rect.right(), bottom}, {rect.x, bottom}}},
                {drawn.colour, number(drawn.settings, fillOpacitySetting)});
}

void trace(const Drawn& drawn, const Limits& x, const Limits& y, std::vector<double>& xs, std::vector<double>& ys) {
    traceZero(drawn, x, y, true, xs, ys);
}

} // namespace

extern const PlotKind regionKind;
const PlotKind regionKind{.name = "region",
                          .meaning = "where a condition of both coordinates holds, such as x^2 + y^2 < 1 and y > x",
                          .runs = Runs::Over,
                          .layer = Layer::Area,
                          .settings = settings,
                          .takesConditions = true,
                          .fits = [](const Signature& s) { return s.variables == 2 && s.components == 1; },
                          .read = readZeroOf,
                          .trace = trace,
                          .draw = draw,
                          .swatch = swatch,
                          .usesColours = [](const Drawn&) { return false; },
                          .table = zeroAreaTable,
                          .report = zeroAreaReport};

} // namespace coulter
