// Panels of the sheet by mouse and keys: added, split, copied, moved, made larger, taken away. See sheet_view.h.
#include "composition/pointing.h"
#include "desktop/sheet_view.h"
#include "formula/lines/read_page.h"
#include "plots/differences.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Where a dragged panel would go: to a side of another one, or in its place.
std::optional<Side> sideOf(const Rect& room, Point mm) {
    const double x = (mm.x - room.x) / room.width, y = (mm.y - room.y) / room.height;
    const double nearest = std::min({x, 1 - x, y, 1 - y});
    if (nearest > 0.25) return std::nullopt;
    return nearest == x ? Side::Left : nearest == 1 - x ? Side::Right : nearest == y ? Side::Above : Side::Below;
}

} // namespace

std::optional<std::size_t> SheetView::panelRoomAt(Point mm) const {
    if (!figure_) return std::nullopt;
    for (std::size_t p = 0; p < figure_->figure.panels.size(); ++p) {
        if (figure_->figure.panels[p].layout.room.contains(mm)) return p;
    }
    return std::nullopt;
}

Rect SheetView::gripOf(std::size_t panel) const {
    const Rect& room = figure_->figure.panels[panel].layout.room;
    const double size = 14 / fit(); // logical pixels
    return {room.right() - size - 4 / fit(), room.y + 4 / fit(), size, size};
}

void SheetView::selectPanel(std::size_t panel, Side side) {
    if (const auto next = neighbourOf(session_.document(), panel, side)) select({ItemKind::Panel, *next, 0, 0});
}

void SheetView::addPanel(std::size_t panel, Side side, NewPanel content, bool split) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document || panel >= document->panels.size()) return;
    Panel added;
    if (content == NewPanel::Copy) {
        added = document->panels[panel];
        added.cell.reset();
    }
    if (content == NewPanel::Differences) {
        added.plots = differencesOf(readPage(*document), document->panels[panel]);
        added.x = document->panels[panel].x;
        added.title = tr("Differences").toStdString();
    }
    const std::size_t count = document->panels.size();
    *document = split ? withPanelSplit(*document, panel, side, std::move(added))
                      : withPanelBeside(*document, panel, side, std::move(added));
    if (document->panels.size() == count) return;
    session_.edit(std::move(*document), tr("new panel"));
    select({ItemKind::Panel, count, 0, 0});
}

void SheetView::splitPanel(std::size_t panel, Side side) { addPanel(panel, side, NewPanel::Empty, true); }

void SheetView::movePanel(std::size_t panel, Side side) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    const auto next = document ? neighbourOf(*document, panel, side) : std::nullopt;
    if (!next) return;
    session_.edit(withPanelsExchanged(*document, panel, *next), tr("move of a panel"));
}

void SheetView::removePanel(std::size_t panel) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document) return;
    select({});
    session_.edit(withoutPanel(*document, panel), tr("removal of a panel"));
}

void SheetView::fillPanelMenu(QMenu& menu, std::size_t panel) {
    const auto add = [&](const QString& text, Side side, NewPanel content, bool split) {
        return menu.addAction(text, this, [=, this] { addPanel(panel, side, content, split); });
    };
    add(tr("Panel to the right"), Side::Right, NewPanel::Empty, false);
    add(tr("Panel below"), Side::Below, NewPanel::Empty, false);
    add(tr("Split side by side"), Side::Right, NewPanel::Empty, true);
    add(tr("Split above and below"), Side::Below, NewPanel::Empty, true);
    add(tr("Copy of the panel"), Side::Right, NewPanel::Copy, false);
    const Document& document = session_.document();
    const bool differs =
        panel < document.panels.size() && !differencesOf(readPage(document), document.panels[panel]).empty();
    add(tr("Panel of differences below"), Side::Below, NewPanel::Differences, false)->setEnabled(differs);
    if (document.panels.size() < 2) return;
    menu.addSeparator();
    static constexpr Side sides[] = {Side::Left, Side::Right, Side::Above, Side::Below};
    const QString names[] = {tr("Move to the left"), tr("Move to the right"), tr("Move up"), tr("Move down")};
    for (std::size_t k = 0; k < 4; ++k) {
        menu.addAction(names[k], this, [this, panel, side = sides[k]] { movePanel(panel, side); })
            ->setEnabled(neighbourOf(document, panel, sides[k]).has_value());
    }
    menu.addAction(tr("Remove the panel"), this, [this, panel] { removePanel(panel); });
}

void SheetView::contextMenuEvent(QContextMenuEvent* event) {
    const Point mm = toSheet(event->pos());
    const auto panel = panelRoomAt(mm);
    if (!panel) return;
    if (figure_->figure.panels.size() > 1) select({ItemKind::Panel, *panel, 0, 0});
    QMenu menu(this);
    menu.setObjectName("panelMenu");
    if (const auto reading = readingAt(mm)) {
        fillReadingMenu(menu, *reading);
        menu.addSeparator();
    }
    if (showsProfile()) menu.addAction(tr("Keep the profile as a panel"), this, &SheetView::keepProfile);
    fillPanelMenu(menu, *panel);
    menu.addSeparator();
    fillNoteMenu(*menu.addMenu(tr("Note")));
    menu.exec(event->globalPos());
}

std::optional<SheetView::Border> SheetView::borderAt(Point mm) const {
    if (!figure_ || figure_->figure.panels.size() < 2) return std::nullopt;
    const std::vector<Cell> cells = cellsOf(figure_->figure.document);
    const double reach = 4 / fit();
    for (std::size_t p = 0; p < cells.size() && p < figure_->figure.panels.size(); ++p) {
        const Rect& room = figure_->figure.panels[p].layout.room;
        const bool last = cells[p].column + cells[p].columns == gridSize(cells).columns,
                   lowest = cells[p].row + cells[p].rows == gridSize(cells).rows;
        if (!last && std::abs(mm.x - room.right()) < reach && mm.y > room.y && mm.y < room.bottom())
            return Border{true, static_cast<std::size_t>(cells[p].column + cells[p].columns - 1)};
        if (!lowest && std::abs(mm.y - room.bottom()) < reach && mm.x > room.x && mm.x < room.right())
            return Border{false, static_cast<std::size_t>(cells[p].row + cells[p].rows - 1)};
    }
    return std::nullopt;
}

void SheetView::dragBorder(const Border& border, const Document& from, double mm) {
    auto document = editable({ItemKind::Sheet, 0, 0, 0});
    if (!document || document->panels.size() != from.panels.size()) return;
    std::vector<double> weights = border.isUpright ? columnWeights(from) : rowWeights(from);
    // All frames together are about so long for the weights they have.
    double whole = 0, length = 0;
    for (const double weight : weights) whole += weight;
    for (const PanelFigure& panel : figure_->figure.panels) {
        const Rect& f = panel.frame().rect;
        length = std::max(length, border.isUpright ? f.right() : f.bottom());
    }
    const double by = mm / std::max(1.0, length) * whole;
    double &before = weights[border.index], &behind = weights[border.index + 1];
    const double least = 0.1, moved = std::clamp(by, least - before, behind - least);
    before = std::round((before + moved) * 100) / 100;
    behind = std::round((behind - moved) * 100) / 100;
    while (!weights.empty() && weights.back() == 1) weights.pop_back();
    (border.isUpright ? document->sheet.columnWidths : document->sheet.rowHeights) = weights;
    session_.edit(std::move(*document), tr("change of the panels' sizes"), "border");
}

bool SheetView::pressOnPanels(Point mm, QPointF position) {
    if (figure_->figure.panels.size() < 2) return false;
    const auto room = panelRoomAt(mm);
    Drag drag;
    drag.start = position;
    if (room && gripOf(*room).grown(1).contains(mm)) {
        select({ItemKind::Panel, *room, 0, 0});
        drag.path = selection_;
        drag.carried = room;
    } else if (partAt(figure_->figure, mm).kind == ItemKind::Sheet) {
        drag.border = borderAt(mm);
        if (!drag.border) return false;
        drag.from = session_.document();
    } else {
        return false;
    }
    drag_ = std::move(drag);
    session_.endMerge();
    return true;
}

void SheetView::dropPanel(std::size_t panel, Point mm) {
    const auto target = panelRoomAt(mm);
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document || !target || *target == panel) return;
    const auto side = sideOf(figure_->figure.panels[*target].layout.room, mm);
    session_.edit(side ? withPanelMoved(*document, panel, *target, *side)
                       : withPanelsExchanged(*document, panel, *target),
                  tr("move of a panel"));
}

Rect SheetView::dropRect(Point mm) const {
    const auto target = panelRoomAt(mm);
    if (!target) return {};
    const Rect& room = figure_->figure.panels[*target].layout.room;
    const auto side = sideOf(room, mm);
    if (!side) return room;
    const double w = room.width / 4, h = room.height / 4;
    return *side == Side::Left    ? Rect{room.x, room.y, w, room.height}
           : *side == Side::Right ? Rect{room.right() - w, room.y, w, room.height}
           : *side == Side::Above ? Rect{room.x, room.y, room.width, h}
                                  : Rect{room.x, room.bottom() - h, room.width, h};
}

} // namespace coulter
