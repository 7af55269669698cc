// Legends on the sheet: entries renamed where they stand. See sheet_view.h.
#include "composition/pointing.h"
#include "desktop/sheet_view.h"
#include "figure/edits.h"

#include <algorithm>

namespace coulter {
namespace {

/// The name that was given by hand; of a member of a family its own.
std::optional<std::string> givenName(const Document& document, const Drawn& drawn) {
    const Plot* plot = plotAt(document, drawn.path);
    if (!plot) return std::nullopt;
    if (drawn.caseCount == 1) return plot->name;
    const std::size_t part = drawn.path.part;
    return part < plot->members.size() ? plot->members[part].name : std::nullopt;
}

} // namespace

std::vector<Hit> SheetView::legendEntries() const {
    std::vector<Hit> entries;
    if (!figure_) return entries;
    const Figure& figure = figure_->figure;
    for (const PanelFigure& panel : figure.panels) {
        const LegendLayout& legend = panel.layout.legend;
        if (legend.place == LegendPlace::AtEnds) continue;
        for (std::size_t i = 0; i < legend.drawn.size(); ++i) {
            Rect rect = legend.entryRect(i);
            rect.x += legend.rect.x;
            rect.y += legend.rect.y;
            entries.push_back({panel.drawn[legend.drawn[i]].path, rect});
        }
    }
    for (const SheetEntry& entry : figure.layout.legend)
        entries.push_back({figure.panels[entry.panel].drawn[entry.drawn].path,
                           {entry.at.x, entry.at.y, distance::legendSample + distance::sampleGap + entry.words.width,
                            figure.layout.rowHeight}});
    for (const Hit& hit : figure.hits) { // at the ends of curves
        if (hit.path.kind == ItemKind::Plot) entries.push_back(hit);
    }
    return entries;
}

void SheetView::editName(const Hit& entry) {
    const Drawn* drawn = drawnAt(figure_->figure, entry.path);
    if (!drawn) return;
    textPath_ = entry.path;
    showTextField(givenName(session_.document(), *drawn).value_or(""), entry.rect);
    textField_->setPlaceholderText(tr("derived from the formula"));
}

void SheetView::finishName(const ItemPath& path, Document document, const std::string& name) {
    const Drawn* drawn = drawnAt(figure_->figure, path);
    Plot* plot = plotAt(document, path);
    if (!drawn || !plot) return;
    const auto wanted = name.empty() ? std::nullopt : std::optional(name);
    (drawn->caseCount == 1 ? plot->name : memberOf(*plot, path.part).name) = wanted;
    trimMembers(*plot);
    if (document != session_.document()) session_.edit(std::move(document), tr("change of a name"));
}

std::optional<ItemPath> SheetView::entryAt(Point mm) const {
    for (const Hit& entry : legendEntries()) {
        if (entry.rect.contains(mm)) return entry.path;
    }
    return std::nullopt;
}

std::optional<std::size_t> SheetView::otherScaleAt(const Drag& drag, Point mm) const {
    const Plot* plot = drag.entry ? plotAt(session_.document(), *drag.entry) : nullptr;
    if (!plot || !figure_) return std::nullopt;
    for (const Hit& hit : figure_->figure.hits) {
        const bool isScale = hit.path.kind == ItemKind::Scale && hit.path.panel == drag.entry->panel;
        if (!isScale || !isUpward(hit.path.index) || !hit.rect.contains(mm)) continue;
        const std::size_t number = hit.path.index == upScale ? 0 : hit.path.index - furtherScale + 1;
        if (number != plot->scale) return number;
    }
    return std::nullopt;
}

void SheetView::dropEntry(const Drag& drag, Point mm) {
    const auto number = otherScaleAt(drag, mm);
    if (!number) return;
    Document document = drag.from;
    plotAt(document, *drag.entry)->scale = *number;
    session_.edit(std::move(document), tr("change of scale"), "legend");
}

void SheetView::moveEntry(int by) {
    if (selection_.kind != ItemKind::Plot) return;
    Document document = session_.document();
    if (selection_.panel >= document.panels.size()) return;
    if (moveInLegend(document.panels[selection_.panel], selection_.index, by))
        session_.edit(std::move(document), tr("order of the legend"), "order");
}

} // namespace coulter
