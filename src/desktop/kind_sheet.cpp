#include "desktop/kind_sheet.h"
#include "desktop/translation.h"

#include "figure/scale_settings.h"
#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"

namespace coulter {

PictureSheet* makeKindSheet(DocumentSession& session, const LookSettings& look, const ItemPath& path, QWidget* parent) {
    const Document& document = session.document();
    std::vector<PictureChoice> choices;
    if (const Plot* plot = plotAt(document, path)) {
        for (const WayToDraw& way : waysToDraw(readPage(document), *plot)) {
            Document little = PictureSheet::littleDocument(document, path.panel);
            little.panels[0].plots = {way.plot};
            little.panels[0].plots[0].scale = 0;
            choices.push_back({spoken(way.name), std::move(little), way.isNow,
                               [path, chosen = way.plot](Document& changed) {
                                   if (Plot* at = plotAt(changed, path)) *at = chosen;
                               },
                               [path, chosen = way.plot](Document& changed) {
                                   if (Panel* panel = panelAt(changed, path)) panel->plots.push_back(chosen);
                               }});
        }
    }
    auto* sheet = new PictureSheet(session, look, QObject::tr("Draw as"), QObject::tr("another kind of plot"),
                                   std::move(choices), PictureSheet::For::Colour, parent);
    sheet->setObjectName("kindSheet");
    return sheet;
}

PictureSheet* makeMapSheet(DocumentSession& session, const LookSettings& look, std::size_t panel, QWidget* parent) {
    const Document& document = session.document();
    std::vector<PictureChoice> choices;
    for (const char* map : mapSetting.words) {
        if (panel >= document.panels.size()) break;
        const auto choose = [map](Panel& changed) { set(changed.colour.settings, mapSetting, std::string(map)); };
        Document little = PictureSheet::littleDocument(document, panel);
        choose(little.panels[0]);
        choices.push_back({spoken(map), std::move(little),
                           text(document.panels[panel].colour.settings, mapSetting) == map,
                           [choose, panel](Document& changed) {
                               if (panel < changed.panels.size()) choose(changed.panels[panel]);
                           }});
    }
    auto* sheet = new PictureSheet(session, look, QObject::tr("Colour maps"), QObject::tr("another colour map"),
                                   std::move(choices), PictureSheet::For::All, parent);
    sheet->setObjectName("mapSheet");
    return sheet;
}

} // namespace coulter
