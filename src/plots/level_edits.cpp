#include "plots/level_edits.h"

#include "formula/base/text.h"
#include "plots/handles.h"

#include <algorithm>

namespace coulter {
namespace {

void write(Plot& plot, const std::vector<double>& levels) {
    std::string list;
    for (const double level : levels) list += (list.empty() ? "{" : ", ") + shortestNumber(level);
    set(plot.settings, levelsSetting, list + "}");
    plot.settings.erase(levelStepSetting.key);
    plot.settings.erase(levelCountSetting.key);
}

double rounded(double level, const AxisMap& colours) {
    double value = level;
    isPlainNumber(roundedPlace(level, colours), value);
    return value;
}

} // namespace

bool hasLevels(const PlotKind& kind) { return std::ranges::find(kind.settings, &levelsSetting) != kind.settings.end(); }

void moveLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, std::size_t index, double to) {
    std::vector<double> levels = levelsOf(drawn, colours);
    if (index >= levels.size()) return;
    const double level = rounded(std::clamp(to, colours.low, colours.high), colours);
    const bool fits =
        (index == 0 || level > levels[index - 1]) && (index + 1 == levels.size() || level < levels[index + 1]);
    if (!fits) return; // it stays where it was last
    levels[index] = level;
    write(plot, levels);
}

void addLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, double at) {
    std::vector<double> levels = levelsOf(drawn, colours);
    const double level = rounded(std::clamp(at, colours.low, colours.high), colours);
    const auto place = std::ranges::lower_bound(levels, level);
    if ((place != levels.end() && *place == level) || levels.size() >= mostLevels) return;
    levels.insert(place, level);
    write(plot, levels);
}

void removeLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, std::size_t index) {
    std::vector<double> levels = levelsOf(drawn, colours);
    if (index >= levels.size() || levels.size() < 2) return;
    levels.erase(levels.begin() + static_cast<std::ptrdiff_t>(index));
    write(plot, levels);
}

} // namespace coulter
