#pragma once
#include "formula/page/places.h"
#include "formula/program/program.h"

#include <array>
#include <vector>

namespace coulter {

/// One place of the plane at which a map of it into itself is zero.
struct PlaneZero {
    PlanePart within;
    double x = 0, y = 0;      ///< a short decimal of it, or the middle
    bool isProven = true;     ///< it exists and is the only one within
    bool isOneOrMore = false; ///< it exists, and nothing says that it is the only one within
    int turns = 0;            ///< how often the map turns round, along the border of `within`, if it is known
    bool isAtEdge = false;
    std::array<std::array<Bounds, 2>, 2> slopes; ///< of the map's components, by x and by y, within; of a proven one
};

struct PlaneZeros {
    std::vector<PlaneZero> found;     ///< from left to right, then upwards
    std::vector<PlanePart> unsettled; ///< single parts, down to narrow ones; see `hullsOf`
    bool outOfWork = false;           ///< some parts are unsettled for want of work alone
    bool mayBeLine = false;           ///< what is unsettled is so many small parts that a line of zeros may run there
    bool isBroken = false;            ///< most of it has no bounds: the map ends or jumps there, or has a corner
    bool isEstimated = false;         ///< something rests on error estimates of integrals, so nothing is proven
};

/// All common zeros of two functions of two variables in a rectangle, or all places where one function is level.
///
/// What is claimed holds for real numbers: a place that is proven exists and is the only one in its bounds; outside of
/// all places and unsettled parts there is none. An edge counts as the rectangle's own to within its rounding.
///
/// Method: bisection, breadth first. A part is left out where bounds exclude zero, and decided by Krawczyk's operator
/// (R. Krawczyk, "Newton-Algorithmen zur Bestimmung von Nullstellen mit Fehlerschranken", Computing 4, 1969; R. E.
/// Moore, "A test for existence of solutions to nonlinear systems", SIAM J. Numer. Anal. 14, 1977) over a slightly
/// larger part, so that zeros on borders of parts are no exception. What stays open in a very small part is shown to
/// exist by how often the map turns round along its border (Brouwer's degree, in two dimensions a winding number).
/// @param map   two outputs: both functions; one: that whose slopes are meant. Where that one ends, jumps or has a
/// corner
///              it may have an extremum without a slope, so such parts stay unsettled.
/// @param work  most operations of arithmetic
PlaneZeros planeZerosOf(const Program& map, const PlanePart& rectangle, double work);

/// Parts of a rectangle that touch each other, or nearly do, as one rectangle each, apart from each other.
std::vector<PlanePart> hullsOf(const std::vector<PlanePart>& parts, const PlanePart& rectangle);

/// Whether a function is larger in the middle of a part than all along its border (1), smaller (−1), or neither is
/// proven (0): then it has a greatest or a least value inside.
int peakWithin(const Program& f, const PlanePart& part);

} // namespace coulter
