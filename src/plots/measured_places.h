#pragma once
#include "plots/source.h"

namespace coulter {

/// Lets a field in whose formula a measured one is called with the field's own variables be looked at where that was
/// measured: on its elements, or at the places of its grid, in the directions whose variables say no count or step.
///
/// Where a grid has more places within the field's intervals than are drawn, the means over squares of them are, with
/// the formula computed from these: Field::meansOver says how many a side. See drawMeans.
void lookWhereMeasured(Field& field, const Panel& panel);

/// For a field of which so many points are drawn at most, and which has more: what lies beyond the limits of the panel
/// is left out, and of what then still is too much means over squares are drawn.
void drawMeans(Field& field, const Panel& panel, double most);

} // namespace coulter
