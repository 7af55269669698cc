#include "composition/scale_rules.h"

#include "composition/look.h"
#include "figure/item_path.h"
#include "figure/scale_settings.h"
#include "formula/compile/columns.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

Problem problemOf(const Setting& setting, Problem because) {
    because.sentence = "“" + std::string(setting.label) + "”: " + because.sentence;
    because.line = -1;
    return because;
}

/// The unit that a scale is shown in, and how numbers of the page's unit become numbers of it.
void readUnit(ScaleRules::Scale& scale, const Axis& axis, const std::string& unit) {
    scale.unit = scale.pageUnit = unit;
    const std::string wanted = text(axis.settings, shownInSetting);
    if (wanted.empty()) return;
    if (const auto found = unitConversion(unit, wanted)) {
        scale.ticks.shown = *found;
        scale.unit = wanted;
        return;
    }
    const std::string sentence = !isUnit(wanted) ? "“" + wanted + "” is not a unit that is known."
                                 : unit.empty()  ? "What is drawn has no unit, so it cannot be shown in " + wanted + "."
                                                 : unit + " cannot be shown in " + wanted + ".";
    scale.problem = problemOf(
        shownInSetting, {-1, 1, 1, sentence,
                         unit.empty() ? "add “, unit m” to its line on the page" : "choose a unit of the same kind"});
}

void readTicks(ScaleRules::Scale& scale, const Page& page, const Axis& axis) {
    TickRules& ticks = scale.ticks;
    ticks.numbers = static_cast<NumberStyle>(word(axis.settings, numbersSetting));
    ticks.minor = static_cast<MinorTicks>(word(axis.settings, minorSetting));
    ticks.count = number(axis.settings, tickCountSetting);
    const std::string at = text(axis.settings, ticksAtSetting);
    if (at.empty()) return;
    const ColumnAnswer found = columnsOf(page, at);
    if (found.columns.empty()) {
        scale.problem = problemOf(ticksAtSetting, found.problems.front());
        return;
    }
    constexpr std::size_t most = 200;
    for (const double place : *found.columns[0]) {
        if (std::isfinite(place) && ticks.given.size() < most) ticks.given.push_back(place);
    }
}

} // namespace

const Axis& axisOf(const Panel& panel, std::size_t which) {
    return which == acrossScale ? panel.x : which == upScale ? panel.y : which == uprightScale ? panel.z : panel.colour;
}

ScaleRules scaleRules(const Page& page, const Panel& panel, const PanelReading& reading) {
    ScaleRules rules;
    const PanelUnits units = unitsOf(reading);
    const std::array<ScaleKind, 4> kinds{reading.xScale, reading.yScale, colourScaleOf(panel),
                                         panel.z.scale.value_or(ScaleKind::Linear)};
    for (std::size_t k = 0; k < 4; ++k) {
        ScaleRules::Scale& scale = rules.scales[k];
        scale.ticks.kind = kinds[k];
        readUnit(scale, axisOf(panel, k), units[k]);
        readTicks(scale, page, axisOf(panel, k));
        if (k > upScale || !scale.ticks.given.empty()) continue;
        for (const PlotWords& words : reading.words) { // words under bars
            const NamedPlaces& names = k == acrossScale ? words.acrossNames : words.upNames;
            if (names.words.empty()) continue;
            scale.ticks.given = names.places;
            scale.ticks.words = names.words;
        }
    }
    return rules;
}

} // namespace coulter
