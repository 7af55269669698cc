#pragma once
#include "figure/settings.h"

namespace coulter {

/// Makes the marks and arrow heads of a plot or note as many times larger as the sheet's lines are wider: under wide
/// lines small ones would drown.
/// @param kind  the settings that its kind has
void makeHeavier(Settings& settings, std::span<const Setting* const> kind, double times);

} // namespace coulter
