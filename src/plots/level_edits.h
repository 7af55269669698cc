#pragma once
#include "plots/levels.h"

namespace coulter {

// Levels of a plot changed one by one. What was chosen by itself, or by a step or a count, becomes a list.

/// Whether a kind of plot draws at levels.
bool hasLevels(const PlotKind& kind);

/// Puts a level at a place of the scale of colours, rounded to what the scale tells apart, and between its neighbours.
/// @param drawn  the plot, as it was drawn
void moveLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, std::size_t index, double to);
/// Adds one; nothing happens where there is one already.
void addLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, double at);
/// Takes one away; the last one stays.
void removeLevel(Plot& plot, const Drawn& drawn, const AxisMap& colours, std::size_t index);

} // namespace coulter
