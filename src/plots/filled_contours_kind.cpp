// Areas between levels of a field.
#include "drawing/colours.h"
#include "plots/common_settings.h"
#include "plots/field_source.h"
#include "plots/level_proofs.h"
#include "plots/level_remarks.h"
#include "plots/level_tables.h"
#include "plots/levels.h"
#include "plots/rectangles.h"

#include <algorithm>

namespace coulter {
namespace {

const Setting* const settings[] = {&acrossSetting,     &levelsSetting,  &levelStepSetting,
                                   &levelCountSetting, &outlineSetting, &opacitySetting};

std::vector<double> colourSteps(const Drawn& drawn, const AxisMap& colours) { return levelsOf(drawn, colours); }

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const auto found = levelLinesOf(drawn, frame);
    const std::size_t levels = found->above.size();
    const double opacity = opacityOf(drawn);
    // Each area reaches on under the next one, so that nothing can show between the two; with opacity, where that
    // would be seen, it ends where the next begins.
    const auto from = [&](std::size_t area) { // rings round all that is at or above an area
        return ringsOnSheet(area == 0 ? found->domain : found->above[area - 1], frame);
    };
    const std::size_t beyond = opacity < 1 ? 1 : 2;
    ColourRun shades = frame.shades;
    shades.steps = levelsOf(drawn, frame.colour);
    for (std::size_t area = 0; area <= levels; ++area) {
        Polylines rings = from(area);
        if (area + beyond <= levels) {
            for (auto& ring : from(area + beyond)) rings.push_back(std::move(ring));
        }
        if (!rings.empty()) canvas.fill(rings, {shades.ofStep(area, frame.colour), opacity});
    }
    const double width = number(drawn.settings, outlineSetting);
    if (width == 0) return;
    canvas.stroke(linesOnSheet(*found, frame), {inkOverColours, width, {}, true, opacity});
}

} // namespace

extern const PlotKind filledContoursKind;
const PlotKind filledContoursKind{.name = "filled contours",
                                  .meaning = "areas between levels of a field, each in one colour",
                                  .runs = Runs::Over,
                                  .layer = Layer::Ground,
                                  .settings = settings,
                                  .fits = [](const Signature& s) { return s.variables == 2; },
                                  .read = readLevels,
                                  .draw = draw,
                                  .colourSteps = colourSteps,
                                  .table = levelAreasTable,
                                  .report = levelAreasReport,
                                  .prove = provenLevels,
                                  .remark = remarkOnLevels};

} // namespace coulter
