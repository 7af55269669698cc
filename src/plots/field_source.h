#pragma once
#include "plots/plot_kind.h"
#include "sampling/field_samples.h"

namespace coulter {

/// The setting of all kinds that draw a field: which variable runs to the right.
extern const Setting acrossSetting;

/// Reads a plot as a field over two variables.
Reading readField(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// Reads an equation, a condition, or a number as what is zero along a line; each case of a family by itself.
Reading readZeroOf(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// Lets a field's colours show another function of its variables, if a setting names one; whether there is no problem
/// with it, which else the reading has.
bool readTint(Reading& reading, const ReadingContext& context, const Plot& plot, const Setting& setting, Field& field);

/// Through which scales a field is sampled: those of its panel; of a surface those of the floor or of its parameters,
/// as long as the panel is, so that the direction of view does not matter.
PanelMap samplingMap(const Field& field, const Frame& frame);
/// mm to which it is sampled: a surface is shown by dots, which are coarser than lines.
double samplingTolerance(const Field& field, double tolerance);
/// Values between which it is worth refining.
Limits samplingRange(const Field& field, const Frame& frame);
/// Levels that are asked for beyond these values.
std::vector<double> levelsBeyond(const Field& field, const Limits& range);
/// The place of a point of a surface's samples, or of any point of a surface.
Place placeOf(const Field& field, const FieldSamples& samples, std::size_t point);

} // namespace coulter
