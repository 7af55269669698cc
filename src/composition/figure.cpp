#include "composition/figure.h"

#include "figure/sheet_settings.h"

namespace coulter {

std::string titleOf(const Document& document) {
    const std::string title = text(document.sheet.settings, sheetTitleSetting);
    return !title.empty() || document.panels.empty() ? title : document.panels[0].title;
}

} // namespace coulter
