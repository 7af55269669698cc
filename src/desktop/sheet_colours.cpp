// The colour bar by hand: its range, the levels on it, how the values are spread. See sheet_view.h.
#include "composition/colour_bar.h"
#include "composition/pointing.h"
#include "desktop/sheet_view.h"
#include "figure/sheet_settings.h"
#include "plots/handles.h"
#include "plots/level_edits.h"
#include "plots/telling.h"
#include "plots/value_shares.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double endReach = 1.5, levelReach = 1.2, besideBar = 1; // mm
constexpr std::size_t stretches = 48;
constexpr double longest = 4; // mm, of the stretch with the most values

double alongOf(const ColourBar& bar, Point mm) { return bar.isUpright() ? mm.y : mm.x; }

bool isUsable(const Limits& limits, ScaleKind scale) {
    const double size = std::max(std::abs(limits.low), std::abs(limits.high));
    return std::isfinite(size) && limits.high - limits.low > 1e-9 * size &&
           (scale != ScaleKind::Logarithmic || limits.low > 0);
}

} // namespace

const Drawn* SheetView::levelledPlot(const PanelFigure& panel) const {
    const Drawn* first = nullptr;
    if (panel.frame().space) return nullptr; // there levels are heights
    for (const Drawn& drawn : panel.drawn) {
        if (!hasLevels(*drawn.kind) || !fieldOf(drawn)) continue;
        if (drawn.path == selection_) return &drawn;
        if (!first) first = &drawn;
    }
    return first;
}

std::optional<SheetView::OnBar> SheetView::barAt(Point mm) const {
    if (!figure_) return std::nullopt;
    for (std::size_t p = 0; p < figure_->figure.panels.size(); ++p) {
        const PanelFigure& panel = figure_->figure.panels[p];
        const ColourBar& bar = panel.layout.colours;
        const Rect reach = bar.isUpright()
                               ? Rect{bar.rect.x - besideBar, bar.rect.y - bar.ends - endReach,
                                      bar.rect.width + besideBar, bar.rect.height + 2 * (bar.ends + endReach)}
                               : Rect{bar.rect.x - bar.ends - endReach, bar.rect.y - besideBar,
                                      bar.rect.width + 2 * (bar.ends + endReach), bar.rect.height + besideBar};
        if (!bar.shown || !reach.contains(mm)) continue;
        OnBar on;
        on.panel = p;
        on.figure = figure_;
        const double at = alongOf(bar, mm);
        const AxisMap& map = panel.frame().colour;
        // An end is taken from outside it and a little inwards.
        const auto beyond = [&](double end, double other) { return end < other ? end - at : at - end; };
        const double low = placeOnBar(panel.layout, map.low), high = placeOnBar(panel.layout, map.high);
        double nearest = levelReach;
        if (const Drawn* levelled = levelledPlot(panel)) {
            const std::vector<double> levels = levelsOf(*levelled, map);
            for (std::size_t i = 0; i < levels.size(); ++i) {
                const double away = std::abs(placeOnBar(panel.layout, levels[i]) - at);
                if (!(levels[i] >= map.low && levels[i] <= map.high && away < nearest)) continue;
                nearest = away;
                on.part = OnBar::Part::Level;
                on.plot = levelled->path;
                on.level = i;
            }
        }
        if (on.part == OnBar::Part::Level) return on;
        if (beyond(low, high) > -endReach) on.part = OnBar::Part::Low;
        if (beyond(high, low) > -endReach) on.part = OnBar::Part::High;
        return on;
    }
    return std::nullopt;
}

QString SheetView::wordsAt(const OnBar& on, Point mm) const {
    const PanelLayout& layout = on.figure->figure.panels[on.panel].layout;
    const AxisMap& map = layout.frame.colour;
    const auto written = [](double value, int digits) { return QString::fromStdString(printedNumber(value, digits)); };
    switch (on.part) {
    case OnBar::Part::Low: return tr("from %1").arg(written(map.low, 6));
    case OnBar::Part::High: return tr("to %1").arg(written(map.high, 6));
    case OnBar::Part::Level: {
        const Drawn* drawn = drawnAt(on.figure->figure, on.plot);
        return drawn ? tr("level %1").arg(written(levelsOf(*drawn, map)[on.level], 6)) : QString();
    }
    case OnBar::Part::Between: break;
    }
    double value = valueOnBar(layout, alongOf(layout.colours, mm));
    isPlainNumber(roundedPlace(value, map), value);
    return written(value, 15);
}

void SheetView::setColourLimits(std::size_t panel, const AxisLimits& limits, const QString& what,
                                const QString& mergeKey) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document || !figure_) return;
    const bool isShared = word(document->sheet.settings, sharedColoursSetting) != 0;
    const AxisMap& own = figure_->figure.panels[panel].frame().colour;
    for (std::size_t p = 0; p < document->panels.size() && p < figure_->figure.panels.size(); ++p) {
        const AxisMap& its = figure_->figure.panels[p].frame().colour;
        if (p == panel || (isShared && its.low == own.low && its.high == own.high))
            document->panels[p].colour.limits = limits;
    }
    session_.edit(std::move(*document), what, mergeKey);
}

void SheetView::dragOnBar(const OnBar& on, Point from, Point to) {
    if (on.panel >= on.figure->figure.panels.size()) return;
    const PanelLayout& layout = on.figure->figure.panels[on.panel].layout;
    const AxisMap& map = layout.frame.colour;
    const double start = alongOf(layout.colours, from), end = alongOf(layout.colours, to);
    const auto rounded = [&](double value) {
        isPlainNumber(roundedPlace(value, map), value);
        return value;
    };
    if (on.part == OnBar::Part::Level) {
        const Drawn* drawn = drawnAt(on.figure->figure, on.plot);
        auto document = std::optional(session_.document()); // while it is dragged the plot's own levels change
        Plot* plot = plotAt(*document, on.plot);
        if (!drawn || !plot || plot->kind != drawn->kind->name) return;
        moveLevel(*plot, *drawn, map, on.level, valueOnBar(layout, end));
        return session_.edit(std::move(*document), tr("move of a level"), "level");
    }
    Limits limits{map.low, map.high};
    // What was taken stays under the pointer: an end is where it is let go; from between, all colours move along.
    const auto moved = [&](double value) {
        const double place = placeOnBar(layout, value) + (end - start);
        return rounded(valueOnBar(layout, place));
    };
    const auto against = [&](double value) {
        return rounded(valueOnBar(layout, placeOnBar(layout, value) - (end - start)));
    };
    switch (on.part) {
    case OnBar::Part::Low: limits.low = moved(map.low); break;
    case OnBar::Part::High: limits.high = moved(map.high); break;
    default: limits = {against(map.low), against(map.high)}; break;
    }
    if (isUsable(limits, map.kind)) setColourLimits(on.panel, limits, tr("change of the colours' range"), "colours");
}

void SheetView::doubleClickOnBar(const OnBar& on, Point mm) {
    const PanelFigure& panel = on.figure->figure.panels[on.panel];
    const Drawn* levelled = levelledPlot(panel);
    const bool isEnd = on.part == OnBar::Part::Low || on.part == OnBar::Part::High;
    if (isEnd || !levelled) return setColourLimits(on.panel, {}, tr("automatic range of colours"), "");
    auto document = editable(levelled->path);
    Plot* plot = document ? plotAt(*document, levelled->path) : nullptr;
    if (!plot) return;
    const AxisMap& map = panel.frame().colour;
    if (on.part == OnBar::Part::Level)
        removeLevel(*plot, *levelled, map, on.level);
    else
        addLevel(*plot, *levelled, map, valueOnBar(panel.layout, alongOf(panel.layout.colours, mm)));
    session_.edit(std::move(*document), on.part == OnBar::Part::Level ? tr("removal of a level") : tr("new level"));
}

void SheetView::paintBarMarks(QPainter& painter) const {
    const auto on = drag_ && drag_->bar ? drag_->bar : underMouse() && !drag_ ? barAt(toSheet(pointer_)) : std::nullopt;
    const bool isSelected = selection_.kind == ItemKind::Scale && selection_.index == colourScale;
    if (!figure_ || (!on && !isSelected)) return;
    const std::size_t p = on ? on->panel : selection_.panel;
    if (p >= figure_->figure.panels.size()) return;
    const PanelFigure& panel = figure_->figure.panels[p];
    const ColourBar& bar = panel.layout.colours;
    const AxisMap& map = panel.frame().colour;
    if (!bar.shown) return;
    if (spread_.figure != figure_ || spread_.panel != p) {
        spread_ = {figure_, p, {}};
        for (const Drawn& drawn : panel.drawn) {
            if (spread_.shares.empty() && showsValuesByColours(drawn))
                spread_.shares = valueShares(drawn, map, stretches);
        }
    }
    const Look& look = look_.look();
    const auto box = [&](double from, double to, double beside, double length) {
        return bar.isUpright()
                   ? QRectF(toWidget({bar.rect.x - beside - length, from}), toWidget({bar.rect.x - beside, to}))
                   : QRectF(toWidget({from, bar.rect.y - beside - length}), toWidget({to, bar.rect.y - beside}));
    };
    const double most = spread_.shares.empty() ? 0 : *std::ranges::max_element(spread_.shares);
    painter.setPen(Qt::NoPen);
    QColor shade = look.accent();
    shade.setAlpha(140);
    painter.setBrush(shade);
    for (std::size_t i = 0; i < spread_.shares.size() && most > 0; ++i) {
        const auto edge = [&](std::size_t k) {
            return placeOnBar(panel.layout, map.fromSheet(map.length * static_cast<double>(k) / stretches));
        };
        painter.drawRect(box(edge(i), edge(i + 1), 0.4, longest * spread_.shares[i] / most).normalized());
    }
    const Drawn* levelled = levelledPlot(panel);
    if (!levelled) return;
    for (const double level : levelsOf(*levelled, map)) {
        if (level < map.low || level > map.high) continue;
        const double at = placeOnBar(panel.layout, level);
        const QPointF begin = toWidget(bar.isUpright() ? Point{bar.rect.x, at} : Point{at, bar.rect.y}),
                      end = toWidget(bar.isUpright() ? Point{bar.rect.right(), at} : Point{at, bar.rect.bottom()});
        painter.setPen(QPen(Qt::white, 3));
        painter.drawLine(begin, end);
        painter.setPen(QPen(QColor(0x1f, 0x1d, 0x1a), 1));
        painter.drawLine(begin, end);
        painter.setBrush(Qt::white);
        painter.drawEllipse(begin, 3, 3);
    }
}

} // namespace coulter
