#pragma once
#include "formula/measured_field.h"

namespace coulter {

/// The values of a measured field at many places, the same to the bit as one after the other, and sooner on a grid
/// where places that follow each other lie in the same piece or the next one, as along the rows of a picture.
/// @param places  coordinates by variable: as many as the field has
void measuredValues(const MeasuredField& field, const std::array<const double*, 3>& places, std::size_t count,
                    double* values);

} // namespace coulter
