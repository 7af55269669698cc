#pragma once
#include "plots/plot_kind.h"

namespace coulter {

/// The setting of all kinds that draw a field: which variable runs to the right.
extern const Setting acrossSetting;

/// Reads a plot as a field over two variables.
Reading readField(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

} // namespace coulter
