#pragma once
#include "composition/figure.h"

namespace coulter {

/// What is drawn at a path; null if nothing is.
const Drawn* drawnAt(const Figure& figure, const ItemPath& path);

/// What is at a place of the sheet: the nearest line or mark of a plot within `reach` mm, else the area that is on top
/// there, else another part. The sheet itself where nothing is.
ItemPath itemAt(const Figure& figure, Point mm, double reach);
/// The part of the sheet there, whatever is drawn over it.
ItemPath partAt(const Figure& figure, Point mm);

} // namespace coulter
