#pragma once
#include "formula/base/interval.h"
#include "formula/program/program.h"

namespace coulter {

/// What is known of how far a function of one variable is from zero along an interval: of the difference of two
/// functions, whether they agree.
struct Agreement {
    double largest = 0;       ///< the largest magnitude at all places that were looked at
    double at = 0;            ///< and where
    bool isDifferent = false; ///< proven not to be zero there
    double bound = 0;         ///< proven not to be exceeded anywhere; inf where no bound is known
};

/// Looks at places first, then bounds what lies between them: parts with the largest bounds are halved until no bound
/// is more than a twentieth above what was found, or until all that is left is rounding, or the work is done.
/// @param work        in operations of arithmetic, about
/// @param negligible  no bound needs to be below this, as the rounding of what is compared is not
Agreement agreementOf(const Program& difference, const Interval& interval, double work, double negligible = 0);

} // namespace coulter
