#include "composition/pointing.h"

#include "drawing/nearness.h"
#include "drawing/sheet_ink.h"
#include "plots/surface_faces.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// How far a place is from what an item of the scene shows as a line or mark; infinite for an area.
double distanceTo(const SceneItem& item, Point p) {
    double least = HUGE_VAL;
    if (const auto* stroke = std::get_if<StrokeItem>(&item)) {
        for (const auto& line : stroke->lines) least = std::min(least, distanceTo(line, p));
    }
    const auto* fill = std::get_if<FillItem>(&item);
    if (fill && !fill->evenOdd) { // marks
        for (const auto& polygon : fill->polygons) {
            if (isInside({polygon}, p)) return 0;
            least = std::min(least, distanceTo(polygon, p));
        }
    }
    return least;
}

bool covers(const SceneItem& item, Point p) {
    if (const auto* fill = std::get_if<FillItem>(&item)) {
        const auto hasPlace = [&](const auto& polygon) { return isInside({polygon}, p); };
        return fill->evenOdd ? isInside(fill->polygons, p) : std::ranges::any_of(fill->polygons, hasPlace);
    }
    const auto* image = std::get_if<ImageItem>(&item);
    if (!image || !image->clip.contains(p) || image->width <= 0 || image->height <= 0) return false;
    const auto dot = [](double at, double from, double length, int count) {
        return static_cast<std::size_t>(std::clamp((at - from) / length * count, 0.0, count - 1.0));
    };
    const std::size_t x = dot(p.x, image->rect.x, image->rect.width, image->width),
                      y = dot(p.y, image->rect.y, image->rect.height, image->height);
    return image->pixels[y * static_cast<std::size_t>(image->width) + x] >> 24 != 0;
}

} // namespace

const Drawn* drawnAt(const Figure& figure, const ItemPath& path) {
    if (path.kind != ItemKind::Plot || path.panel >= figure.panels.size()) return nullptr;
    for (const Drawn& drawn : figure.panels[path.panel].drawn) {
        if (drawn.path == path) return &drawn;
    }
    return nullptr;
}

ItemPath itemAt(const Figure& figure, Point mm, double reach) {
    const auto inPanel = [&](const ItemPath& path) {
        return path.kind == ItemKind::Note || figure.panels[path.panel].layout.frame.rect.grown(1).contains(mm);
    };
    std::optional<ItemPath> nearest, top;
    for (const Owned& owned : figure.owned) {
        if (!inPanel(owned.path)) continue;
        const Drawn* drawn = drawnAt(figure, owned.path);
        const bool isSurface = drawn && fieldOf(*drawn) && fieldOf(*drawn)->inSpace;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            const SceneItem& item = figure.scene.items[i];
            // The polygons of a surface are an area, however many they are.
            const double away = isSurface && std::holds_alternative<FillItem>(item) ? HUGE_VAL : distanceTo(item, mm);
            if (away < reach) {
                reach = away;
                nearest = owned.path;
            }
            if (covers(item, mm)) top = owned.path;
        }
    }
    if (!nearest && top) { // all surfaces of a panel are one picture
        const PanelFigure& panel = figure.panels[top->panel];
        if (const Drawn* front = surfaceInFront(panel.drawn, panel.frame(), mm)) return front->path;
    }
    return nearest ? *nearest : top ? *top : partAt(figure, mm);
}

ItemPath partAt(const Figure& figure, Point mm) {
    for (auto hit = figure.hits.rbegin(); hit != figure.hits.rend(); ++hit) {
        if (hit->rect.grown(0.6).contains(mm)) return hit->path;
    }
    return {};
}

} // namespace coulter
