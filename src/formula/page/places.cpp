#include "formula/page/places.h"

#include <algorithm>

namespace coulter {

bool Places::areAll() const {
    const auto isCertain = [](const FoundPlace& each) { return each.isProven && !each.isOneOrMore; };
    return unsettled.empty() && unsettledParts.empty() && !isEstimated && std::ranges::all_of(found, isCertain);
}

} // namespace coulter
