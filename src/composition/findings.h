#pragma once
#include "composition/figure.h"

#include <vector>

namespace coulter {

/// What a careful reader would point out about a figure: one sentence and its place.
struct Finding {
    Problem said;
    ItemPath where;
    bool canGoOn = false;    ///< more work would mend it (see Effort::operations)
    std::string remedy = {}; ///< what would mend it, as an order: "Add the unit"; empty: nothing that is clear
    std::optional<Document> fixed = {}; ///< the document that the remedy makes
    bool operator==(const Finding&) const = default;
};

/// Problems and notes of the page (in short: the sentence itself stands under its line), of the plots, what sampling
/// found, and what a careful referee would ask (see referee.h), in this order.
std::vector<Finding> findingsOf(const Figure& figure);

} // namespace coulter
