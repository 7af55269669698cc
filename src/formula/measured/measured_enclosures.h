#pragma once
#include "formula/bounds/enclosure.h"
#include "formula/measured/interpolation.h"
#include "formula/measured/measured_field.h"

namespace coulter {

/// The values between points while its argument runs over an interval.
Enclosure enclose(const Interpolation& table, const Enclosure& at);
/// The values of a measured field while its operands run over intervals.
Enclosure enclose(const MeasuredField& field, std::span<const Enclosure> place);

} // namespace coulter
