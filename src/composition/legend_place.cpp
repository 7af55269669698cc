#include "composition/legend_place.h"

#include "composition/labels.h"
#include "figure/scale_settings.h"
#include "notes/note_settings.h"
#include "notes/read_notes.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double columnGap = 5; // mm

/// Height of a curve's last visible value, in mm from the panel's top; NaN if it does not reach the right end.
double endHeight(const CoarseLook& curve, const PanelLimits& limits, double height) {
    if (curve.x.empty()) return std::nan("");
    const PanelMap map = limits.map(1, height);
    const double reach = map.x.toSheet(curve.x.back()), v = map.y.toSheet(curve.y.back());
    if (reach < 0.97 || reach > 1.0001 || !(v >= 0 && v <= height)) return std::nan("");
    return height - v;
}

/// How many coarse points of all curves a rectangle covers.
std::size_t covered(const Rect& rect, const std::vector<CoarseLook>& coarse, const PanelLimits& limits, double width,
                    double height) {
    std::size_t count = 0;
    const Rect around = rect.grown(1.0);
    const PanelMap map = limits.map(width, height);
    for (const CoarseLook& curve : coarse) {
        for (std::size_t i = 0; i < curve.x.size(); ++i) {
            if (around.contains({map.x.toSheet(curve.x[i]), height - map.y.toSheet(curve.y[i])})) ++count;
        }
        for (std::size_t i = 0; i < curve.insideX.size(); ++i) {
            if (around.contains({map.x.toSheet(curve.insideX[i]), height - map.y.toSheet(curve.insideY[i])})) ++count;
        }
    }
    return count;
}

/// What notes cover of a panel whose upper left corner is 0, as far as they are anchored in it.
std::vector<Rect> coveredByNotes(const Page& page, const Panel& panel, const PanelReading& reading,
                                 const PanelLook& look, const PanelLimits& limits, double width, double height,
                                 Em letterSize) {
    std::vector<Rect> rects;
    if (!reading.format.legendAvoidsNotes || reading.shape != PanelShape::Plane || look.space) return rects;
    Frame frame;
    frame.rect = {0, 0, width, height};
    frame.map = limits.map(width, height);
    frame.leftwards = truth(panel.x.settings, reversedSetting);
    frame.downwards = truth(panel.y.settings, reversedSetting);
    for (const DrawnNote& note : readNotes(page, panel, 0, frame, letterSize).drawn) {
        if (static_cast<Anchor>(word(note.settings, anchorSetting)) == Anchor::Sheet) continue;
        if (const Rect words = note.kind->wordsRect(note); words.width > 0) rects.push_back(words);
        for (const Point at : note.at) rects.push_back({at.x, at.y, 0, 0});
    }
    return rects;
}

bool overlap(const Rect& a, const Rect& b) {
    return a.x <= b.right() && b.x <= a.right() && a.y <= b.bottom() && b.y <= a.bottom();
}

bool endsApart(const std::vector<CoarseLook>& coarse, const LegendLayout& legend, const PanelLimits& limits,
               double height) {
    std::vector<double> ends;
    for (const std::size_t index : legend.drawn) ends.push_back(endHeight(coarse[index], limits, height));
    std::ranges::sort(ends);
    for (std::size_t i = 0; i < ends.size(); ++i) {
        if (std::isnan(ends[i])) return false;
        if (i > 0 && ends[i] - ends[i - 1] < 0.85 * legend.rowHeight) return false;
    }
    return !ends.empty();
}

} // namespace

Rect legendRectInPanel(const LegendLayout& legend, const Legend& settings, double panelWidth, double panelHeight) {
    constexpr double inset = distance::legendInset;
    Rect rect{inset, inset, legend.width, legend.height};
    const double right = panelWidth - legend.width - inset, bottom = panelHeight - legend.height - inset;
    switch (legend.place) {
    case LegendPlace::TopLeft: break;
    case LegendPlace::TopRight: rect.x = right; break;
    case LegendPlace::BottomLeft: rect.y = bottom; break;
    case LegendPlace::BottomRight:
        rect.x = right;
        rect.y = bottom;
        break;
    case LegendPlace::Outside: rect = {panelWidth + distance::legendGap, 0, legend.width, legend.height}; break;
    default: return {};
    }
    if (settings.at) {
        rect.x = (*settings.at)[0];
        rect.y = (*settings.at)[1];
    }
    return rect;
}

namespace {

/// Whether a plot is left out of the legend because an earlier one in another kind shows the same formula.
bool isShownBefore(const PanelReading& reading, std::size_t index) {
    const Drawn& drawn = reading.drawn[index];
    if (drawn.name) return false;
    for (std::size_t i = 0; i < index; ++i) {
        const Drawn& before = reading.drawn[i];
        if (before.kind != drawn.kind && before.kind->swatch && before.of == drawn.of && !before.name &&
            before.path.part == drawn.path.part)
            return true;
    }
    return false;
}

} // namespace

Rect LegendLayout::entryRect(std::size_t entry) const {
    const std::size_t column = entry / rows;
    const double right = column + 1 < columns.size() ? columns[column + 1] - columnGap : width;
    return {columns[column], static_cast<double>(entry % rows) * rowHeight, right - columns[column], rowHeight};
}

void LegendLayout::arrange(std::size_t count) {
    count = std::clamp<std::size_t>(count, 1, std::max<std::size_t>(1, entries.size()));
    rows = (entries.size() + count - 1) / count;
    columns.clear();
    width = 0;
    for (std::size_t first = 0; first < entries.size(); first += rows) {
        columns.push_back(first == 0 ? 0 : width + columnGap);
        double widest = 0;
        for (std::size_t i = first; i < std::min(entries.size(), first + rows); ++i)
            widest = std::max(widest, entries[i].width);
        width = columns.back() + distance::legendSample + distance::sampleGap + widest;
    }
    height = rowHeight * static_cast<double>(rows);
}

bool isAtSide(LegendPlace place) {
    return place == LegendPlace::Left || place == LegendPlace::Above || place == LegendPlace::Below;
}

LegendLayout legendEntries(const Page& page, const Panel& panel, const PanelReading& reading, Em letterSize) {
    LegendLayout legend;
    if (panel.legend.place == LegendPlace::None) return legend;
    for (std::size_t i = 0; i < reading.drawn.size(); ++i) {
        const Drawn& drawn = reading.drawn[i];
        if (!drawn.kind->swatch || drawn.caseValue || isShownBefore(reading, i)) continue;
        if (reading.format.emptyNameLeavesOut && drawn.name && drawn.name->empty()) continue; // named to be left out
        legend.drawn.push_back(i);
    }
    const bool single = legend.drawn.size() <= 1 && panel.legend.place == LegendPlace::Automatic &&
                        (panel.plots.empty() || !panel.plots[0].name);
    if (legend.drawn.empty() || single) return {};
    std::erase_if(legend.drawn, [&](std::size_t i) { // named to be left out
        return reading.drawn[i].name && reading.drawn[i].name->empty();
    });
    std::ranges::stable_sort(legend.drawn, {}, [&](std::size_t i) {
        const std::size_t plot = reading.drawn[i].path.index;
        return plot < panel.plots.size() ? panel.plots[plot].order : 0;
    });
    legend.rowHeight = 1.35 * letterSize;
    for (const std::size_t i : legend.drawn) {
        const Drawn& drawn = reading.drawn[i];
        const bool byHand = drawn.name && (drawn.caseCount == 1 || drawn.isNamedAlone);
        Box entry = byHand ? labelBox(withValues(page, *drawn.name), FontId::Text, letterSize, page.names)
                           : layoutMath(*drawn.entry, letterSize, false);
        legend.rowHeight = std::max(legend.rowHeight, entry.height() + 0.35 * letterSize);
        legend.entries.push_back(std::move(entry));
    }
    if (legend.entries.empty()) return {};
    legend.arrange(static_cast<std::size_t>(std::max(1, panel.legend.columns)));
    legend.place = panel.legend.place;
    return legend;
}

LegendLayout decideLegend(const Page& page, const Panel& panel, const PanelReading& reading, const PanelLook& look,
                          const PanelLimits& limits, double panelWidth, double panelHeight, Em letterSize) {
    LegendLayout legend = legendEntries(page, panel, reading, letterSize);
    if (legend.entries.empty()) return {};
    double widest = 0;
    for (const Box& entry : legend.entries) widest = std::max(widest, entry.width);
    // Put by hand: from where it lay at its side.
    if (panel.legend.at && isAtSide(legend.place)) legend.place = LegendPlace::TopLeft;
    // At the ends stand the scales.
    if (legend.place == LegendPlace::AtEnds && reading.format.legendBesideScales && !panel.further.empty())
        legend.place = LegendPlace::Outside;
    if (legend.place != LegendPlace::Automatic) return legend;
    if (panel.legend.at) {
        legend.place = LegendPlace::TopLeft;
        return legend;
    }
    const bool functions = std::ranges::all_of(reading.drawn, [](const Drawn& drawn) {
        const Curve* curve = curveOf(drawn);
        return curve && curve->isFunction();
    });
    if (functions && panel.further.empty() && widest < 0.3 * panelWidth &&
        endsApart(look.coarse, legend, limits, panelHeight)) {
        legend.place = LegendPlace::AtEnds;
        return legend;
    }
    std::size_t least = SIZE_MAX;
    LegendPlace best = LegendPlace::Outside;
    if (legend.width < 0.6 * panelWidth && legend.height < 0.6 * panelHeight) {
        const std::vector<Rect> notes =
            coveredByNotes(page, panel, reading, look, limits, panelWidth, panelHeight, letterSize);
        for (const LegendPlace place :
             {LegendPlace::TopRight, LegendPlace::TopLeft, LegendPlace::BottomRight, LegendPlace::BottomLeft}) {
            legend.place = place;
            const Rect rect = legendRectInPanel(legend, {}, panelWidth, panelHeight);
            const std::size_t count = covered(rect, look.coarse, limits, panelWidth, panelHeight) +
                                      static_cast<std::size_t>(std::ranges::count_if(
                                          notes, [&](const Rect& note) { return overlap(rect.grown(1.0), note); }));
            if (count < least) {
                least = count;
                best = place;
            }
        }
    }
    legend.place = least == 0 ? best : LegendPlace::Outside;
    return legend;
}

std::vector<EndLabel> endLabels(const LegendLayout& legend, const std::vector<double>& ends, double panelHeight) {
    std::vector<EndLabel> labels;
    for (std::size_t i = 0; i < ends.size(); ++i) labels.push_back({i, ends[i], ends[i]});
    std::ranges::stable_sort(labels, {}, &EndLabel::end);
    // Push down those that touch, then back up from the panel's lower end.
    for (std::size_t i = 1; i < labels.size(); ++i)
        labels[i].y = std::max(labels[i].y, labels[i - 1].y + legend.rowHeight);
    for (std::size_t i = labels.size(); i-- > 0;) {
        const double lowest =
            i + 1 < labels.size() ? labels[i + 1].y - legend.rowHeight : panelHeight + legend.rowHeight / 2;
        labels[i].y = std::min(labels[i].y, lowest);
    }
    return labels;
}

} // namespace coulter
