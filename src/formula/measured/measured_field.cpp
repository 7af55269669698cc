#include "formula/measured/measured_field.h"

#include <cmath>

namespace coulter {

void MeasuredField::values(const std::array<const double*, 3>& places, std::size_t count, double* values) const {
    for (std::size_t i = 0; i < count; ++i) {
        const std::array<double, 3> place{places[0][i], places[1][i], places[2][i]};
        values[i] = at(place.data());
    }
}

Bounds MeasuredField::slopeOver(std::size_t, std::span<const Bounds>, bool& isStraight) const {
    isStraight = false;
    return {-HUGE_VAL, HUGE_VAL};
}

double MeasuredField::pieceOf(std::size_t, double) const { return 0; }

std::span<const double> MeasuredField::places(std::size_t) const { return {}; }

const std::shared_ptr<const ElementMesh>& MeasuredField::mesh() const {
    static const std::shared_ptr<const ElementMesh> noMesh;
    return noMesh;
}

} // namespace coulter
