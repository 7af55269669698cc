#pragma once
#include "formula/page/page.h"

namespace coulter {

/// Adds remedies that need the whole page: a bare expression becomes a function, and so does a quantity whose formula
/// depends on a variable.
void addRemedies(Page& page);

} // namespace coulter
