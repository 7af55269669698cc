#include "composition/heavier_marks.h"

#include "notes/note_settings.h"
#include "plots/marks.h"
#include "plots/vectors.h"

#include <algorithm>

namespace coulter {

void makeHeavier(Settings& settings, std::span<const Setting* const> kind, double times) {
    if (times == 1) return;
    for (const Setting* setting : {&sizeSetting, &headLengthSetting, &headSizeSetting}) {
        if (std::ranges::find(kind, setting) != kind.end()) set(settings, *setting, times * number(settings, *setting));
    }
}

} // namespace coulter
