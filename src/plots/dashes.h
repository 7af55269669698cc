#pragma once
#include "figure/settings.h"
#include "formula/page/page.h"

#include <optional>
#include <vector>

namespace coulter {

/// The dashes of a line, of plots and of notes, instead of those of a pattern by name: a list such as {3, 1, 0.5, 1},
/// mm on, mm off, and so on.
extern const Setting dashesSetting;

/// What is set, in mm; empty if nothing is, or it is no such list.
/// @param problem  what is wrong with it, in one sentence
std::vector<double> readDashes(const Page& page, const Settings& settings, std::optional<Problem>& problem);

} // namespace coulter
