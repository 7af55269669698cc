// How the view of a panel is changed by hand: zoomed, moved, turned, and back. See sheet_view.h.
#include "desktop/sheet_view.h"

#include <QKeyEvent>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Limits moved or stretched never become a place where doubles cannot tell neighbours apart.
bool usable(const Limits& limits) {
    const double size = std::max(std::abs(limits.low), std::abs(limits.high));
    return limits.high - limits.low > 1e-11 * size && size < 1e300 && limits.high - limits.low > 1e-300;
}

/// Of a scale by its number in item paths.
AxisMap mapOf(const Frame& frame, std::size_t scale) {
    return scale == acrossScale ? frame.map.x
           : scale == upScale   ? frame.map.y
                                : frame.further[scale - furtherScale].map;
}
bool isReversed(const Frame& frame, std::size_t scale) {
    return scale == acrossScale ? frame.leftwards
           : scale == upScale   ? frame.downwards
                                : frame.further[scale - furtherScale].downwards;
}

} // namespace

std::vector<std::size_t> SheetView::scalesOf(const ItemPath& part) const {
    if (!figure_ || part.panel >= figure_->figure.panels.size()) return {};
    const PanelLayout& layout = figure_->figure.panels[part.panel].layout;
    const bool one = part.kind == ItemKind::Scale || part.kind == ItemKind::ScaleLabel;
    if (one && part.index >= furtherScale) {
        const std::size_t further = part.index - furtherScale;
        if (further >= layout.further.size()) return {};
        return {layout.further[further].mirrors ? upScale : part.index}; // two units of one scale
    }
    if (one && (part.index == acrossScale || part.index == upScale)) return {part.index};
    if (one && part.index == uprightScale && !layout.frame.space) return {};
    std::vector<std::size_t> all{acrossScale, upScale};
    for (std::size_t k = 0; k < layout.further.size(); ++k) {
        if (!layout.further[k].mirrors) all.push_back(furtherScale + k);
    }
    return all;
}

std::vector<std::size_t> SheetView::sharing(std::size_t panel, std::size_t scale) const {
    if (!figure_ || panel >= figure_->figure.panels.size()) return {panel};
    const PanelLayout& layout = figure_->figure.panels[panel].layout;
    const std::vector<std::size_t>& shared = scale == acrossScale ? layout.sharesAcross : layout.sharesUp;
    return scale > upScale || shared.empty() ? std::vector{panel} : shared;
}

void SheetView::setLimits(std::size_t panel, const WantedLimits& limits, const QString& what, const QString& mergeKey) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document || !figure_) return;
    for (const auto& [scale, wanted] : limits) {
        if (!usable(wanted)) continue;
        for (const std::size_t each : sharing(panel, scale)) {
            if (Axis* axis = axisAt(*document, {ItemKind::Scale, each, scale, 0})) axis->limits = wanted;
        }
    }
    session_.edit(std::move(*document), what, mergeKey);
    update(); // what is shown moves before it is drawn anew
}

void SheetView::zoom(const ItemPath& part, double factor, Point about, const QString& mergeKey) {
    const std::size_t panel = part.panel;
    if (!figure_ || panel >= figure_->figure.panels.size() || showsSpace(panel)) return;
    const Frame& frame = figure_->figure.panels[panel].frame();
    if (frame.polar) { // the middle stays where it is
        const AxisMap& radius = frame.polar->radius;
        return setLimits(panel, {{upScale, {radius.low, radius.fromSheet(radius.length / factor)}}}, tr("zoom"),
                         mergeKey);
    }
    WantedLimits limits;
    for (const std::size_t scale : scalesOf(part)) {
        const AxisMap map = mapOf(frame, scale);
        const double mm = scale == acrossScale ? about.x - frame.rect.x : frame.rect.bottom() - about.y;
        const double centre = std::clamp(isReversed(frame, scale) ? map.length - mm : mm, 0.0, map.length);
        limits.push_back(
            {scale, {map.fromSheet(centre - centre / factor), map.fromSheet(centre + (map.length - centre) / factor)}});
    }
    setLimits(panel, withOthers(part, frame, std::move(limits)), tr("zoom"), mergeKey);
}

SheetView::WantedLimits SheetView::withOthers(const ItemPath& part, const Frame& from, WantedLimits limits) const {
    for (const std::size_t scale : scalesOf({ItemKind::Panel, part.panel, 0, 0})) {
        const bool isWanted = std::ranges::any_of(limits, [&](const auto& each) { return each.first == scale; });
        if (isWanted || (scale >= furtherScale && scale - furtherScale >= from.further.size())) continue;
        const AxisMap map = mapOf(from, scale);
        limits.push_back({scale, {map.low, map.high}});
    }
    return limits;
}

void SheetView::pan(const ItemPath& part, const Frame& from, double right, double down, const QString& mergeKey) {
    if (from.polar) return; // there is nothing beside a circle
    WantedLimits limits;
    for (const std::size_t scale : scalesOf(part)) {
        if (scale >= furtherScale && scale - furtherScale >= from.further.size()) continue;
        const AxisMap map = mapOf(from, scale);
        double by = scale == acrossScale ? -right : down;
        if (isReversed(from, scale)) by = -by;
        limits.push_back({scale, {map.fromSheet(by), map.fromSheet(by + map.length)}});
    }
    setLimits(part.panel, withOthers(part, from, std::move(limits)), tr("move of the view"), mergeKey);
}

/// What lies within the rectangle is what the panel shows from now on.
void SheetView::showRectangle(const Drag& drag, Point mm) {
    constexpr double leastRectangle = 2; // mm of a side, below which a drag meant nothing
    const Rect wanted = drawnRectangle(drag, mm), &frame = drag.frame.rect;
    if (wanted.width < leastRectangle || wanted.height < leastRectangle) return;
    WantedLimits limits;
    for (const std::size_t scale : scalesOf(drag.path)) {
        if (scale >= furtherScale && scale - furtherScale >= drag.frame.further.size()) continue;
        const AxisMap map = mapOf(drag.frame, scale);
        double from = scale == acrossScale ? wanted.x - frame.x : frame.bottom() - wanted.bottom();
        double to = from + (scale == acrossScale ? wanted.width : wanted.height);
        if (isReversed(drag.frame, scale)) {
            std::swap(from, to);
            from = map.length - from;
            to = map.length - to;
        }
        limits.push_back({scale, {map.fromSheet(from), map.fromSheet(to)}});
    }
    setLimits(drag.path.panel, limits, tr("zoom"), "");
}

void SheetView::arrowKey(const QKeyEvent& event) {
    const std::size_t panel = selection_.panel;
    const auto document = editable({ItemKind::Panel, panel, 0, 0});
    const PanelFigure* shown = shownPanel();
    if (!document || !shown) return;
    const double right = event.key() == Qt::Key_Right  ? 1
                         : event.key() == Qt::Key_Left ? -1
                                                       : 0,
                 up = event.key() == Qt::Key_Up     ? 1
                      : event.key() == Qt::Key_Down ? -1
                                                    : 0;
    if (event.modifiers() & (Qt::ControlModifier | Qt::AltModifier)) {
        const Side side = right > 0 ? Side::Right : right < 0 ? Side::Left : up > 0 ? Side::Above : Side::Below;
        if (event.modifiers() & Qt::AltModifier) return movePanel(panel, side);
        return event.modifiers() & Qt::ShiftModifier ? splitPanel(panel, side) : selectPanel(panel, side);
    }
    if (shown->frame().polar) return; // there is nothing beside a circle
    if (showsSpace(panel)) return turn(panel, 6 * right, 6 * up, document->panels[panel].view, "keys");
    const Frame& frame = shown->frame();
    const ItemPath part =
        right != 0 ? ItemPath{ItemKind::Scale, panel, acrossScale, 0} : ItemPath{ItemKind::Panel, panel, 0, 0};
    if (right != 0) return pan(part, frame, -0.1 * right * frame.rect.width, 0, "keys");
    WantedLimits limits;
    for (const std::size_t scale : scalesOf(part)) {
        if (scale == acrossScale) continue;
        const AxisMap map = mapOf(frame, scale);
        const double by = (isReversed(frame, scale) ? -0.1 : 0.1) * up * map.length;
        limits.push_back({scale, {map.fromSheet(by), map.fromSheet(by + map.length)}});
    }
    setLimits(panel, limits, tr("move of the view"), "keys");
}

void SheetView::turn(std::size_t panel, double azimuth, double elevation, const View& from, const QString& mergeKey) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document) return;
    View& view = document->panels[panel].view;
    view.azimuth = std::remainder(std::round(from.azimuth + azimuth), 360);
    view.elevation = std::clamp(std::round(from.elevation + elevation), -90.0, 90.0);
    session_.edit(std::move(*document), tr("turn of the view"), mergeKey);
}

void SheetView::restoreView(const ItemPath& part) {
    auto document = editable({ItemKind::Panel, part.panel, 0, 0});
    if (!document || !figure_) return;
    if (showsSpace(part.panel) && part.kind != ItemKind::Scale) document->panels[part.panel].view = View{};
    for (const std::size_t scale : scalesOf(part)) {
        for (const std::size_t each : sharing(part.panel, scale)) {
            if (Axis* axis = axisAt(*document, {ItemKind::Scale, each, scale, 0})) axis->limits.reset();
        }
    }
    session_.edit(std::move(*document), tr("automatic view"));
}

} // namespace coulter
