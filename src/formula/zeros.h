#pragma once
#include "formula/interval.h"
#include "formula/places.h"
#include "formula/program.h"

namespace coulter {

/// One zero of a function.
struct Zero {
    Bounds within;
    double at = 0;        ///< the double that is nearest to it, as far as the function tells, or a short decimal
    int slope = 0;        ///< sign of the derivative there; 0 where it is zero, too, or unknown
    bool isProven = true; ///< it exists and is the only one within
    bool isMultiple = false;
    bool isAtEdge = false;
    bool isAllAlong = false; ///< the function is zero everywhere within
};

struct Zeros {
    std::vector<Zero> found;       ///< ascending
    std::vector<Bounds> unsettled; ///< ascending, apart from each other
    bool outOfWork = false;        ///< some parts are unsettled for want of work alone
    bool isEstimated = false;      ///< what was left out rests on error estimates of integrals, so nothing is proven
};

/// All zeros of a function of one variable in an interval; see searches.h for what is claimed and the method.
/// @param f          the function
/// @param slope      its derivative, for where bounds of f alone have none; null: none is known
/// @param numerator  a function that is zero wherever f is, and has no poles where f has; null: none is known
/// @param work       most operations of arithmetic
Zeros zerosOf(const Program& f, const Program* slope, const Program* numerator, const Interval& interval, double work);

/// Parts of an interval in which a function is not proven to be bounded and continuous, down to the same width; apart
/// from each other.
std::vector<Bounds> breaksOf(const Program& f, const Interval& interval, double work);

/// The number within bounds that has fewest decimal digits; their middle if that takes more than eight.
double shortestWithin(const Bounds& bounds);

} // namespace coulter
