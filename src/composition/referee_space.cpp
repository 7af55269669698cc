// What a referee says of views of space. See referee.h.
#include "composition/referee.h"
#include "figure/sheet_settings.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Seen along its floor a surface is a strip of its edges: what stands behind is hidden, and nothing of it can be read.
void edgeOn(const Figure& figure, std::vector<Finding>& found) {
    constexpr double least = 2; // degrees
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const View& view = figure.document.panels[p].view;
        if (!figure.panels[p].frame().space || std::abs(view.elevation) >= least) continue;
        const bool isOverFloor = std::ranges::any_of(figure.panels[p].drawn, [](const Drawn& drawn) {
            const Field* field = fieldOf(drawn);
            return field && field->inSpace && !field->isParametric();
        });
        if (!isOverFloor) continue;
        found.push_back(
            findingOf("The surface is seen edge on: nothing of its floor can be read.", {ItemKind::Panel, p, 0, 0},
                      "Look from above its edge",
                      changed(figure, [&](Document& d) { d.panels[p].view.elevation = View{}.elevation; })));
    }
}

/// A sheet that wants polygons, and a surface that has too many for that.
void tooManyPolygons(const Figure& figure, std::vector<Finding>& found) {
    if (figure.effort.coarse || word(figure.document.sheet.settings, surfacesSetting) == 0) return;
    for (const Owned& owned : figure.owned) {
        const Plot* plot = plotAt(figure.document, owned.path);
        if (!plot || owned.first >= owned.last || !std::holds_alternative<ImageItem>(figure.scene.items[owned.first]))
            continue;
        const auto& all = figure.panels[owned.path.panel].drawn;
        const auto drawn = std::ranges::find(all, owned.path, &Drawn::path);
        if (drawn == all.end() || !fieldOf(*drawn) || !fieldOf(*drawn)->inSpace) continue;
        found.push_back(
            findingOf("A surface is too fine for polygons, or too much of it lies over itself: it is made of dots.",
                      owned.path, "Make surfaces of dots",
                      changed(figure, [](Document& d) { set(d.sheet.settings, surfacesSetting, std::nullopt); })));
        return;
    }
}

} // namespace

extern const Check tooManyPolygonsCheck{
    "too many polygons", "a surface that is too fine for the polygons that its sheet asks for", tooManyPolygons};

extern const Check edgeOnCheck{"seen edge on", "a surface that is looked at along its floor", edgeOn};

} // namespace coulter
