#include "composition/sheet_parts.h"

#include "drawing/colours.h"

namespace coulter {

void drawSheetParts(Figure& figure) {
    const SheetLayout& layout = figure.layout;
    if (layout.title.height() > 0) {
        addBox(figure.scene, layout.title, layout.titleAt.x, layout.titleAt.y, inkColour);
        figure.hits.push_back(
            {{ItemKind::SheetTitle, 0, 0, 0},
             {layout.titleAt.x, layout.titleAt.y - layout.title.ascent, layout.title.width, layout.title.height()}});
    }
    if (layout.legend.empty()) return;
    const Em text = figure.panels[0].layout.sizes.text;
    Canvas canvas(figure.scene, {-1e6, -1e6, 2e6, 2e6}, figure.effort.dotsPerMm, text);
    figure.hits.push_back({{ItemKind::SheetLegend, 0, 0, 0}, layout.legendRect});
    for (const SheetEntry& entry : layout.legend) {
        const Drawn& drawn = figure.panels[entry.panel].drawn[entry.drawn];
        drawn.kind->swatch(drawn, {entry.at.x, entry.at.y, distance::legendSample, layout.rowHeight}, canvas);
        addBox(figure.scene, entry.words, entry.at.x + distance::legendSample + distance::sampleGap,
               entry.at.y + layout.rowHeight / 2 + 0.25 * text, inkColour);
    }
}

} // namespace coulter
