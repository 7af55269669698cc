#include "files/held_still.h"

#include "plots/plot_kind.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

void hold(std::optional<Limits>& held, double low, double high) {
    if (!held)
        held = Limits{low, high};
    else
        held = Limits{std::min(held->low, low), std::max(held->high, high)};
}

void set(AxisLimits& limits, const std::optional<Limits>& held) {
    if (!held) return;
    if (!limits.low) limits.low = held->low;
    if (!limits.high) limits.high = held->high;
}

double perMm(const Limits& limits, double mm) { return (limits.high - limits.low) / mm; }

} // namespace

void HeldStill::add(const Figure& figure) {
    panels_.resize(figure.panels.size());
    for (std::size_t p = 0; p < panels_.size(); ++p) {
        OfPanel& seen = panels_[p];
        const PanelFigure& panel = figure.panels[p];
        const Frame& frame = panel.frame();
        if (frame.space) {
            for (std::size_t k = 0; k < 3; ++k)
                hold(seen.scales[k], frame.space->maps[k].low, frame.space->maps[k].high);
        } else if (frame.polar) {
            hold(seen.scales[1], frame.polar->radius.low, frame.polar->radius.high);
        } else {
            hold(seen.scales[0], frame.map.x.low, frame.map.x.high);
            hold(seen.scales[1], frame.map.y.low, frame.map.y.high);
        }
        seen.further.resize(frame.further.size(), {HUGE_VAL, -HUGE_VAL});
        for (std::size_t k = 0; k < frame.further.size(); ++k) {
            const AxisMap& map = frame.further[k].map;
            seen.further[k] = {std::min(seen.further[k].low, map.low), std::max(seen.further[k].high, map.high)};
        }
        if (std::ranges::any_of(panel.drawn, showsByColours)) hold(seen.colours, frame.colour.low, frame.colour.high);
        if (!seen.legend && !panel.layout.legend.entries.empty()) seen.legend = panel.layout.legend.place;
        seen.width = frame.rect.width;
        seen.height = frame.rect.height;
        const double across = perMm({frame.map.x.low, frame.map.x.high}, frame.map.x.length),
                     up = perMm({frame.map.y.low, frame.map.y.high}, frame.map.y.length);
        seen.isEqual = seen.isEqual && !frame.space && !frame.polar && frame.map.x.kind == ScaleKind::Linear &&
                       frame.map.y.kind == ScaleKind::Linear && std::abs(across - up) < 1e-9 * across;
    }
}

Document HeldStill::held(Document document) const {
    for (std::size_t p = 0; p < std::min(panels_.size(), document.panels.size()); ++p) {
        OfPanel seen = panels_[p];
        Panel& panel = document.panels[p];
        auto &x = seen.scales[0], &y = seen.scales[1];
        if (seen.isEqual && x && y) { // it goes on to mean the same
            Limits& shorter = perMm(*x, seen.width) < perMm(*y, seen.height) ? *x : *y;
            const double wanted = &shorter == &*x ? perMm(*y, seen.height) * seen.width
                                                  : perMm(*x, seen.width) * seen.height,
                         middle = (shorter.low + shorter.high) / 2;
            shorter = {middle - wanted / 2, middle + wanted / 2};
        }
        set(panel.x.limits, x);
        set(panel.y.limits, y);
        set(panel.z.limits, seen.scales[2]);
        for (std::size_t k = 0; k < std::min(seen.further.size(), panel.further.size()); ++k)
            set(panel.further[k].limits, seen.further[k]);
        set(panel.colour.limits, seen.colours);
        if (panel.legend.place == LegendPlace::Automatic && seen.legend) panel.legend.place = *seen.legend;
    }
    return document;
}

} // namespace coulter
