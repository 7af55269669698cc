#pragma once
#include "formula/base/interval.h"
#include "formula/page/places.h"
#include "formula/program/program.h"

#include <memory>
#include <span>

namespace coulter {

/// One zero of a function.
struct Zero {
    Bounds within;
    double at = 0;  ///< the double that is nearest to it, as far as the function tells, or a short decimal
    int change = 0; ///< +1: the function goes from below to above zero, −1: the other way; 0: it touches
    bool isChangeKnown = true;
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
/// @param slope  its derivative, for where bounds of f alone have none; null: none is known
/// @param work   most operations of arithmetic
Zeros zerosOf(const Program& f, const Program* slope, const Interval& interval, double work);

/// The zeros of something that a function is zero with, wherever it is defined; see factors.h.
struct ZerosOfFactor {
    std::shared_ptr<const Program> base;
    Zeros zeros;
    bool isRepeated = false;
};

/// The zeros of a function from those of its factors: where it is not defined they are none.
Zeros zerosOfProduct(const Program& f, std::span<const ZerosOfFactor> factors, const Interval& interval);

/// Parts of an interval in which a function is not proven to be bounded and continuous, down to the same width; apart
/// from each other. Where it is defined nowhere it does not break; where it begins to be defined it does.
std::vector<Bounds> breaksOf(const Program& f, const Interval& interval, double work);

/// The number within bounds that has fewest decimal digits; their middle if that takes more than eight.
double shortestWithin(const Bounds& bounds);

} // namespace coulter
