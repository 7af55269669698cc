#pragma once
#include "composition/figure.h"

#include <vector>

namespace coulter {

/// What a careful reader would point out about a figure: one sentence and its place.
struct Finding {
    Problem said;
    ItemPath where;
    bool canGoOn = false; ///< more work would mend it (see Effort::operations)
    bool operator==(const Finding&) const = default;
};

/// Problems and notes of the page (in short: the sentence itself stands under its line), of the plots, and what
/// sampling found, in this order.
std::vector<Finding> findingsOf(const Figure& figure);

} // namespace coulter
