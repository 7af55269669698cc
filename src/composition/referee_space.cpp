// What a referee says of views of space. See referee.h.
#include "composition/referee.h"

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

} // namespace

extern const Check edgeOnCheck{"seen edge on", "a surface that is looked at along its floor", edgeOn};

} // namespace coulter
