#include "notes/document_look.h"

#include "notes/note_settings.h"

#include <algorithm>
#include <cmath>

namespace coulter {

void setLook(Document& document, const SheetLook& look) {
    const double times = look.textSize / document.sheet.textSize;
    setLook(document.sheet, look);
    for (Panel& panel : document.panels) {
        for (Note& note : panel.notes) {
            const double own = number(note.settings, noteLettersSetting);
            if (own == 0) continue;                                    // those of the sheet
            const double wanted = std::round(own * times * 100) / 100; // hundredths of a point are not seen
            set(note.settings, noteLettersSetting,
                std::clamp(wanted, noteLettersSetting.least, noteLettersSetting.greatest));
        }
    }
}

} // namespace coulter
