#include "figure/item_path.h"

#include <utility>

namespace coulter {

const Panel* panelAt(const Document& document, const ItemPath& path) {
    return path.panel < document.panels.size() ? &document.panels[path.panel] : nullptr;
}
Panel* panelAt(Document& document, const ItemPath& path) {
    return const_cast<Panel*>(panelAt(std::as_const(document), path));
}

const Plot* plotAt(const Document& document, const ItemPath& path) {
    const Panel* panel = path.kind == ItemKind::Plot ? panelAt(document, path) : nullptr;
    return panel && path.index < panel->plots.size() ? &panel->plots[path.index] : nullptr;
}
Plot* plotAt(Document& document, const ItemPath& path) {
    return const_cast<Plot*>(plotAt(std::as_const(document), path));
}

const Note* noteAt(const Document& document, const ItemPath& path) {
    const Panel* panel = path.kind == ItemKind::Note ? panelAt(document, path) : nullptr;
    return panel && path.index < panel->notes.size() ? &panel->notes[path.index] : nullptr;
}
Note* noteAt(Document& document, const ItemPath& path) {
    return const_cast<Note*>(noteAt(std::as_const(document), path));
}

const Axis* axisAt(const Document& document, const ItemPath& path) {
    const Panel* panel = panelAt(document, path);
    if (!panel || (path.kind != ItemKind::Scale && path.kind != ItemKind::ScaleLabel)) return nullptr;
    if (path.index >= furtherScale) {
        const std::size_t further = path.index - furtherScale;
        return further < panel->further.size() ? &panel->further[further] : nullptr;
    }
    return path.index == acrossScale    ? &panel->x
           : path.index == upScale      ? &panel->y
           : path.index == uprightScale ? &panel->z
                                        : &panel->colour;
}
Axis* axisAt(Document& document, const ItemPath& path) {
    return const_cast<Axis*>(axisAt(std::as_const(document), path));
}

bool hasItem(const Document& document, const ItemPath& path) {
    switch (path.kind) {
    case ItemKind::Sheet:
    case ItemKind::SheetTitle:
    case ItemKind::SheetLegend: return true;
    case ItemKind::Plot: return plotAt(document, path);
    case ItemKind::Note: return noteAt(document, path);
    case ItemKind::Scale:
    case ItemKind::ScaleLabel: return axisAt(document, path);
    default: return panelAt(document, path);
    }
}

bool sameItem(const Document& a, const Document& b, const ItemPath& path) {
    if (!hasItem(a, path) || !hasItem(b, path)) return false;
    if (path.kind == ItemKind::Note) return noteAt(a, path)->kind == noteAt(b, path)->kind;
    return path.kind != ItemKind::Plot || plotAt(a, path)->of == plotAt(b, path)->of;
}

} // namespace coulter
