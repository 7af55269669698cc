#pragma once
#include "formula/enclosure.h"

namespace coulter {

/// The values of one operation while its operands run over a and b; `same`: both operands are the same value.
Enclosure enclose(Kernel kernel, const Enclosure& a, const Enclosure& b, bool same);

/// The values between points while its argument runs over an interval.
Enclosure enclose(const Interpolation& table, const Enclosure& at);

/// The values of a measured field while its operands run over intervals.
Enclosure enclose(const MeasuredField& field, std::span<const Enclosure> place);

/// The values of a special function; known only while at most one of its operands varies.
Enclosure encloseSpecial(ScalarFunction function, std::span<const Enclosure> operands);

/// What is doubtful about an operand is doubtful about the result.
void inherit(Enclosure& result, const Enclosure& operand);

} // namespace coulter
