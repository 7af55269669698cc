#include "composition/shared_looks.h"

#include "drawing/colours.h"
#include "figure/sheet_settings.h"
#include "plots/common_settings.h"

#include <map>

namespace coulter {

void shareLooks(const Document& document, std::vector<ReadPanel>& panels) {
    const auto legend = static_cast<SheetLegend>(word(document.sheet.settings, sheetLegendSetting));
    if (legend == SheetLegend::EachPanel || panels.size() < 2) return;
    std::map<std::string, std::size_t> formulas;
    for (ReadPanel& panel : panels) {
        for (Drawn& drawn : panel.reading.drawn) {
            const bool own = !colour(drawn.settings, colourSetting) && drawn.caseCount == 1 &&
                             drawn.colour == plotColour(drawn.path.index);
            if (own) drawn.colour = plotColour(formulas.try_emplace(drawn.of, formulas.size()).first->second);
        }
    }
}

} // namespace coulter
