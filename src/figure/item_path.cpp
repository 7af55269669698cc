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

const Axis* axisAt(const Document& document, const ItemPath& path) {
    const Panel* panel = panelAt(document, path);
    if (!panel || (path.kind != ItemKind::Scale && path.kind != ItemKind::ScaleLabel)) return nullptr;
    return path.index == acrossScale    ? &panel->x
           : path.index == upScale      ? &panel->y
           : path.index == uprightScale ? &panel->z
                                        : &panel->colour;
}
Axis* axisAt(Document& document, const ItemPath& path) {
    return const_cast<Axis*>(axisAt(std::as_const(document), path));
}

bool sameItem(const Document& a, const Document& b, const ItemPath& path) {
    if (path.kind == ItemKind::Sheet) return true;
    if (!panelAt(a, path) || !panelAt(b, path)) return false;
    if (path.kind != ItemKind::Plot) return true;
    const Plot *first = plotAt(a, path), *second = plotAt(b, path);
    return first && second && first->of == second->of;
}

} // namespace coulter
