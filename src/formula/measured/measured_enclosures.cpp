#include "formula/measured/measured_enclosures.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {

Enclosure enclose(const Interpolation& table, const Enclosure& at) {
    if (!at.known || at.low > at.high || std::isnan(at.low) || std::isnan(at.high)) return Enclosure::unknown();
    const double low = std::max(at.low, table.x.front()), high = std::min(at.high, table.x.back());
    Enclosure result{HUGE_VAL, -HUGE_VAL, true, false};
    if (low > high) return result;
    const Bounds bounds = table.over(low, high);
    result = {bounds.low, bounds.high};
    result.defined = table.holds(at.low, at.high);
    inherit(result, at);
    return result;
}

Enclosure enclose(const MeasuredField& field, std::span<const Enclosure> place) {
    std::array<Bounds, 3> box{};
    Enclosure result;
    for (std::size_t k = 0; k < place.size(); ++k) {
        const Enclosure& at = place[k];
        if (!at.known || at.low > at.high || std::isnan(at.low) || std::isnan(at.high)) return Enclosure::unknown();
        box[k] = {at.low, at.high};
    }
    const MeasuredField::Over over = field.over({box.data(), place.size()});
    if (over.values.low > over.values.high) return Enclosure{HUGE_VAL, -HUGE_VAL, true, false};
    result = {over.values.low, over.values.high};
    result.defined = over.isDefined;
    result.continuous = over.isContinuous;
    for (const Enclosure& at : place) inherit(result, at);
    return result;
}

} // namespace coulter
