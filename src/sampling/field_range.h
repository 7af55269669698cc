#pragma once
#include "formula/proofs/jet_evaluator.h"
#include "special/bounds.h"

#include <cmath>
#include <optional>
#include <stop_token>

namespace coulter {

/// What is proven of the least and the greatest value of a function of two variables over a rectangle: the infimum lies
/// in `least`, the supremum in `greatest`. Where the function is undefined it has no value.
struct FieldRange {
    struct Place {
        double x = 0, y = 0, value = 0;
    };
    Bounds least{-HUGE_VAL, HUGE_VAL}, greatest{-HUGE_VAL, HUGE_VAL};
    std::optional<Place> lowest, highest; ///< the places found where it goes beyond the values known before
    std::size_t evaluations = 0;          ///< over boxes
    bool isUndefined = false;             ///< proven: it is nowhere defined
};

struct FieldRangeEffort {
    double tolerance = 0;                 ///< to which both are wanted, in values of the function
    Bounds known{HUGE_VAL, -HUGE_VAL};    ///< the least and the greatest value that it is known to take
    Bounds worth{-HUGE_VAL, HUGE_VAL};    ///< what lies beyond need not be told apart
    std::size_t mostEvaluations = 10'000; ///< over boxes, for each of both ends
    std::stop_token stop = {};
};

/// Method: branch and bound. Boxes are halved where the bounds of the function's jet (see jet.h) reach farthest, until
/// nothing reaches beyond the best value found by more than the tolerance (R. E. Moore, "Methods and Applications of
/// Interval Analysis", 1979, section 6.1). Values count as found only with the lower (or upper) end of their bounds.
FieldRange rangeOver(JetEvaluator<2>& jets, const std::array<Bounds, 2>& box, const FieldRangeEffort& effort);

} // namespace coulter
