#pragma once
#include "figure/settings.h"

#include <algorithm>
#include <iterator>
#include <vector>

namespace coulter {

/// The settings of a kind that stand in one place of a plot's recipe.
template <typename Kind> std::vector<const Setting*> settingsOf(const Kind& kind, bool style) {
    std::vector<const Setting*> some;
    std::ranges::copy_if(kind.settings, std::back_inserter(some),
                         [style](const Setting* each) { return each->isStyle == style; });
    return some;
}

} // namespace coulter
