#include "composition/layout_parts.h"

#include "drawing/colours.h"

#include "composition/colour_bar.h"
#include "composition/legend_place.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {

Box Given::box(const std::string& text, Em size) const {
    return text.empty() ? Box{} : labelBox(withValues(page, text), FontId::Text, size, page.names);
}

namespace {

/// Digits, a power of ten, a multiple of π, degrees, or digits with a prefix.
Box numberBox(const std::string& label, Em size) {
    const auto power = label.find('^');
    if (power == std::string::npos) {
        const auto end = label.find_first_not_of("-0123456789.");
        if (end == std::string::npos || label.find('e') != std::string::npos)
            return layoutMath(*mathDigits(label), size, false);
        std::vector<MathPtr> row;
        if (end > 0) row.push_back(label.substr(0, end) == "-" ? mathSymbol("−") : mathDigits(label.substr(0, end)));
        std::string rest = label.substr(end);
        if (rest.starts_with("π")) {
            row.push_back(mathSymbol("π"));
            rest.erase(0, std::string("π").size());
            if (rest.starts_with("/")) {
                row.push_back(mathSymbol("/"));
                row.push_back(mathDigits(rest.substr(1)));
            }
        } else if (rest.starts_with(" ")) {
            row.push_back(mathSpace(0.17));
            row.push_back(mathWord(rest.substr(1)));
        } else {
            row.push_back(mathWord(rest));
        }
        return layoutMath(*mathRow(std::move(row)), size, false);
    }
    const auto times = label.find("×");
    std::vector<MathPtr> parts;
    if (times != std::string::npos) {
        parts.push_back(mathDigits(label.substr(0, times)));
        parts.push_back(mathSymbol("×"));
    }
    parts.push_back(mathScript(mathDigits("10"), nullptr, mathDigits(label.substr(power + 1))));
    return layoutMath(*mathRow(std::move(parts)), size, false);
}

} // namespace

Box tickBox(const Ticks& ticks, std::size_t index, Em size) {
    return ticks.areWords ? labelBox(ticks.labels[index], FontId::Text, size, {})
                          : numberBox(ticks.labels[index], size);
}

void addPowerOfTen(Scene& scene, const Ticks& ticks, Em size, double x, double baseline, bool alignRight) {
    if (ticks.powerOfTen == 0) return;
    const MathPtr power =
        mathRow({mathSymbol("×"), mathSpace(0.17),
                 mathScript(mathDigits("10"), nullptr, mathDigits(std::to_string(ticks.powerOfTen)))});
    const Box box = layoutMath(*power, size, false);
    addBox(scene, box, alignRight ? x - box.width : x, baseline, inkColour);
}

double widestLabel(const Ticks& ticks, Em size) {
    double widest = 0;
    for (std::size_t i = 0; i < ticks.labels.size(); ++i) widest = std::max(widest, tickBox(ticks, i, size).width);
    return widest;
}

namespace {

/// Takes the numbers away that would touch one before them; their marks stay.
/// @param extent  of a number along the scale, mm
template <typename Extent> void clearNumbers(Ticks& ticks, const AxisMap& map, double gap, const Extent& extent) {
    double end = -HUGE_VAL;
    for (std::size_t i = 0; i < ticks.places.size(); ++i) {
        if (ticks.labels[i].empty()) continue;
        const double at = map.toSheet(ticks.places[i]), half = extent(i) / 2;
        if (at - half < end + gap)
            ticks.labels[i].clear();
        else
            end = at + half;
    }
}

} // namespace

Ticks clearTicks(const TickRules& rules, const AxisMap& map, Em size) {
    Ticks ticks;
    for (double count = std::clamp(map.length / 16, 2.0, 12.0); count >= 1; count -= 1) {
        ticks = ticksBy(rules, map.low, map.high, count);
        double least = map.length;
        for (std::size_t i = 1; i < ticks.places.size(); ++i)
            least = std::min(least, map.toSheet(ticks.places[i]) - map.toSheet(ticks.places[i - 1]));
        if (widestLabel(ticks, size) + 2 <= least || rules.count > 0 || !rules.given.empty()) break;
    }
    clearNumbers(ticks, map, 0.3 * size, [&](std::size_t i) { return tickBox(ticks, i, size).width; });
    return ticks;
}

Ticks clearTicksUp(const TickRules& rules, const AxisMap& map, Em size, double wanted) {
    Ticks ticks = ticksBy(rules, map.low, map.high, wanted);
    clearNumbers(ticks, map, 0.1 * size, [&](std::size_t i) { return tickBox(ticks, i, size).height(); });
    return ticks;
}

void placeLegend(PanelLayout& layout, const Given& given) {
    const Rect& frame = layout.frame.rect;
    layout.legend.rect = legendRectInPanel(layout.legend, given.panel.legend, frame.width, frame.height);
    layout.legend.rect.x += frame.x;
    layout.legend.rect.y += frame.y;
    // Beyond the colour bar at that side; the first formats let them cover each other.
    if (layout.format.legendBeyondBar && layout.legend.place == LegendPlace::Outside && !given.panel.legend.at)
        layout.legend.rect.x += barRoom(layout, BarSide::Right);
}

} // namespace coulter
