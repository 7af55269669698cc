#include "formula/page/places.h"

#include <algorithm>

namespace coulter {

bool Places::areAll() const {
    return unsettled.empty() && !isEstimated && std::ranges::all_of(found, &FoundPlace::isProven);
}

} // namespace coulter
