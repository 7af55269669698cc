#pragma once
#include "special/bounds.h"

#include <cstdint>
#include <string>
#include <vector>

namespace coulter {

/// What is looked for along an interval, or over a rectangle.
enum class Sought : std::uint8_t { Zeros, Extrema, Maximum, Minimum, Inflections, Everywhere, InRows };

/// A rectangle whose sides lie along both variables.
struct PlanePart {
    Bounds x, y;
};

/// One place that was found.
struct FoundPlace {
    double at = 0;
    Bounds within;     ///< where it lies for certain, if it is proven
    double across = 0; ///< in the plane: where along the second variable
    Bounds withinAcross;
    double value = 0;      ///< of the function there
    std::string word;      ///< what it is, where that is more than its kind: "maximum", "double", "at the edge"
    bool isAtEdge = false; ///< or at a corner; or that is where it would be, if an open end belonged to it
    bool isProven = true;
    bool isOneOrMore = false; ///< it exists, and several may lie so close together
};

/// All places that were found on an interval or in a rectangle, and what is known of the rest of it.
struct Places {
    std::vector<FoundPlace> found;         ///< ascending
    std::vector<Bounds> unsettled;         ///< parts of the interval of which it is not proven what lies there
    std::vector<PlanePart> unsettledParts; ///< of the rectangle
    std::string why;                       ///< what kept them from being settled
    std::string verdict;                   ///< on whether an equation holds everywhere, or in all rows
    bool inPlane = false;                  ///< they are places of two variables
    bool isEstimated = false;              ///< all of it rests on error estimates of integrals
    bool areAll() const;                   ///< whether these are all of them, proven
};

} // namespace coulter
