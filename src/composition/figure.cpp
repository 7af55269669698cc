#include "composition/figure.h"

#include "figure/sheet_settings.h"
#include "typeset/formula_math.h"
#include "typeset/words.h"

namespace coulter {

std::string titleOf(const Figure& figure) {
    const Document& document = figure.document;
    std::string title = text(document.sheet.settings, sheetTitleSetting);
    if (title.empty() && !document.panels.empty()) title = document.panels[0].title;
    if (!rulesOf(document.format).plainTitles) return title;
    std::string printed;
    const Box box = labelBox(withValues(figure.page, title), FontId::Text, 3, figure.page.names);
    for (const PlacedGlyph& glyph : box.glyphs) printed += glyph.text;
    return printed;
}

} // namespace coulter
