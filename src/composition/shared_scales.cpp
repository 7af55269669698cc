#include "composition/shared_scales.h"

#include "composition/labels.h"
#include "figure/panel_grid.h"
#include "figure/sheet_settings.h"

#include <algorithm>

namespace coulter {
namespace {

using Group = std::vector<std::size_t>;

/// The panels that have one scale, by what the sheet says; without those that stand alone.
std::vector<Group> groupsOf(const std::vector<Cell>& cells, Shared shared, bool across) {
    std::vector<Group> groups;
    if (shared == Shared::None) return groups;
    const auto sameLine = [&](const Cell& a, const Cell& b) {
        return across ? a.column == b.column && a.columns == b.columns : a.row == b.row && a.rows == b.rows;
    };
    for (std::size_t p = 0; p < cells.size(); ++p) {
        const auto mine = std::ranges::find_if(
            groups, [&](const Group& group) { return shared == Shared::All || sameLine(cells[group[0]], cells[p]); });
        if (mine == groups.end())
            groups.push_back({p});
        else
            mine->push_back(p);
    }
    return groups;
}

/// Only those whose scale can be that of the first plane panel among them.
Group alike(const Group& group, const std::vector<ReadPanel>& panels, bool across) {
    Group some;
    const auto scaleOf = [&](std::size_t p) {
        const PanelReading& reading = panels[p].reading;
        return std::pair{across ? reading.xScale : reading.yScale, unitsOf(reading)[across ? 0 : 1]};
    };
    std::optional<std::size_t> first; // what draws nothing has any scale
    for (const std::size_t p : group) {
        if (panels[p].reading.shape != PanelShape::Plane) continue;
        const bool isEmpty = panels[p].reading.drawn.empty();
        if (!first && !isEmpty) first = p;
        if (isEmpty || scaleOf(p) == scaleOf(*first)) some.push_back(p);
    }
    return first && some.size() > 1 ? some : Group{};
}

/// Limits that show what all of them show, or the first that were given.
Limits commonLimits(const Group& group, const std::vector<ReadPanel>& panels, bool across) {
    Limits common;
    std::optional<double> low, high;
    bool first = true;
    for (const std::size_t p : group) {
        const ReadPanel& panel = panels[p];
        const AxisLimits& set = across ? panel.panel.x.limits : panel.panel.y.limits;
        if (!low) low = set.low;
        if (!high) high = set.high;
        if (panel.reading.drawn.empty()) continue;
        const OnScale* own = panel.scales.empty() ? nullptr : &panel.scales[0];
        const PanelLimits limits =
            panelLimits(own ? own->panel : panel.panel, own ? own->look.extents : panel.look.extents, 6);
        const Limits shown = across ? limits.x : limits.y;
        common = first ? shown : Limits{std::min(common.low, shown.low), std::max(common.high, shown.high)};
        first = false;
    }
    const Limits chosen{low.value_or(common.low), high.value_or(common.high)};
    return chosen.low < chosen.high ? chosen : common;
}

/// Whether the numbers of a panel's scale stand at another one of its group: below it, or at its left.
bool isShownElsewhere(const Group& group, const std::vector<Cell>& cells, std::size_t panel, bool across) {
    const Cell& own = cells[panel];
    return std::ranges::any_of(group, [&](std::size_t p) {
        const Cell& c = cells[p];
        if (p == panel) return false;
        return across ? c.column == own.column && c.columns == own.columns && c.row >= own.row + own.rows
                      : c.row == own.row && c.rows == own.rows && c.column + c.columns <= own.column;
    });
}

void shareColours(const Document& document, std::vector<ReadPanel>& panels) {
    const auto shared = static_cast<SharedColours>(word(document.sheet.settings, sharedColoursSetting));
    if (shared == SharedColours::None) return;
    std::optional<std::size_t> first;
    Limits common;
    Group group;
    const auto scaleOf = [&](std::size_t p) {
        return std::pair{colourScaleOf(panels[p].panel), unitsOf(panels[p].reading)[colourScale]};
    };
    for (std::size_t p = 0; p < panels.size(); ++p) {
        if (!panels[p].look.colours || (first && scaleOf(p) != scaleOf(*first))) continue;
        const Limits& own = *panels[p].look.colours;
        common = first ? Limits{std::min(common.low, own.low), std::max(common.high, own.high)} : own;
        if (!first) first = p;
        group.push_back(p);
    }
    if (!first) return;
    const AxisLimits& set = panels[*first].panel.colour.limits;
    if (set.low) common.low = *set.low;
    if (set.high) common.high = *set.high;
    const Axis colours = panels[*first].panel.colour;
    for (const std::size_t p : group) { // the first one's map and ways are everyone's
        panels[p].panel.colour = colours;
        panels[p].reading.colourMiddle = panels[*first].reading.colourMiddle;
        panels[p].look.colours = common;
        panels[p].sharesColours = group;
        for (OnScale& scale : panels[p].scales) scale.panel.colour = colours;
    }
}

} // namespace

void shareScales(const Document& document, std::vector<ReadPanel>& panels, double operations,
                 const std::stop_token& stop) {
    const std::vector<Cell> cells = cellsOf(document);
    for (const bool across : {true, false}) {
        const auto shared =
            static_cast<Shared>(word(document.sheet.settings, across ? sharedAcrossSetting : sharedUpSetting));
        for (const Group& all : groupsOf(cells, shared, across)) {
            const Group group = alike(all, panels, across);
            if (group.empty() || stop.stop_requested()) continue;
            const Limits common = commonLimits(group, panels, across);
            for (const std::size_t p : group) {
                ReadPanel& panel = panels[p];
                (across ? panel.sharesAcross : panel.sharesUp) = group;
                (across ? panel.numbersAcross : panel.numbersUp) = !isShownElsewhere(group, cells, p, across);
                const OnScale* own = panel.scales.empty() ? nullptr : &panel.scales[0];
                const PanelLimits before =
                    panelLimits(own ? own->panel : panel.panel, own ? own->look.extents : panel.look.extents, 6);
                (across ? panel.panel.x.limits : panel.panel.y.limits) = common;
                if (panel.reading.drawn.empty()) {
                    const auto drawing = *std::ranges::find_if(
                        group, [&](std::size_t each) { return !panels[each].reading.drawn.empty(); });
                    const PanelReading& like = panels[drawing].reading;
                    (across ? panel.reading.xScale : panel.reading.yScale) = across ? like.xScale : like.yScale;
                }
                if ((across ? before.x : before.y) != common || panel.reading.drawn.empty())
                    lookAgain(panel, operations, stop);
                else if (own && !across)
                    panel.scales[0].panel.y.limits = common;
            }
        }
    }
    shareColours(document, panels);
}

} // namespace coulter
