#pragma once
#include "special/scalar_functions.h"

#include <span>

namespace coulter {

/// What is known of a formula's values while its inputs run over intervals.
struct Enclosure {
    double low = 0;
    double high = 0;         ///< every value it takes lies in [low, high]; low > high: it is nowhere defined
    bool known = true;       ///< the bounds hold; else nothing is known of the values
    bool defined = true;     ///< certainly defined everywhere
    bool continuous = true;  ///< certainly continuous everywhere
    bool estimated = false;  ///< the bounds rest on an error estimate of an integral, not on a proof
    bool mayBeUnset = false; ///< pieces: some places belong to none of those looked at so far
    bool isUnset = false;    ///< pieces: no place belongs to any of those looked at so far

    static Enclosure point(double x) { return {x, x}; }
    static Enclosure unknown();
    bool isPoint() const { return low == high; }
    double width() const { return high - low; }
    /// Bounds that are finite and hold, of a function that is defined and continuous throughout.
    bool isProof() const;
};

/// What is doubtful about an operand is doubtful about the result.
void inherit(Enclosure& result, const Enclosure& operand);

/// The values of a special function; known only while at most one of its operands varies.
Enclosure encloseSpecial(ScalarFunction function, std::span<const Enclosure> operands);

} // namespace coulter
