#include "formula/bounds/enclosure.h"

#include "special/bounds.h"

#include <array>
#include <cmath>

namespace coulter {

Enclosure Enclosure::unknown() {
    Enclosure e{-HUGE_VAL, HUGE_VAL};
    e.known = e.defined = e.continuous = false;
    return e;
}

bool Enclosure::isProof() const {
    return known && defined && continuous && !estimated && std::isfinite(low) && std::isfinite(high);
}

void inherit(Enclosure& result, const Enclosure& operand) {
    result.known = result.known && operand.known;
    result.defined = result.defined && operand.defined && !operand.mayBeUnset;
    result.continuous = result.continuous && operand.continuous;
    result.estimated = result.estimated || operand.estimated;
}

Enclosure encloseSpecial(ScalarFunction function, std::span<const Enclosure> operands) {
    std::array<double, 4> v{};
    std::size_t varying = operands.size() - 1;
    int wide = 0;
    Enclosure result;
    for (std::size_t i = 0; i < operands.size(); ++i) {
        const Enclosure& operand = operands[i];
        if (!operand.known || operand.low > operand.high) return Enclosure::unknown();
        inherit(result, operand);
        v[i] = operand.low;
        if (operand.isPoint()) continue;
        varying = i;
        ++wide;
    }
    if (wide > 1) return Enclosure::unknown();
    const Enclosure& operand = operands[varying];
    const auto bounds = boundsOver(function, v.data(), operands.size(), varying, operand.low, operand.high);
    if (!bounds) return Enclosure::unknown();
    result.low = bounds->low;
    result.high = bounds->high;
    return result;
}

} // namespace coulter
