#pragma once
#include "plots/source.h"

namespace coulter {

/// Lets a field in whose formula a measured one is called with the field's own variables be looked at where that was
/// measured: on its elements, or at the places of its grid, in the directions whose variables say no count or step.
void lookWhereMeasured(Field& field);

} // namespace coulter
