#pragma once
#include <array>
#include <cstdint>
#include <functional>
#include <vector>

namespace coulter {

/// A place of the panel, in mm.
using PlaceInMm = std::array<double, 2>;

/// The direction of a field at a place, of length 1; not finite where it has none: it is undefined or zero there, or
/// the place lies outside the domain.
using Direction = std::function<PlaceInMm(const PlaceInMm&)>;

/// Why a streamline ends.
enum class StreamEnd : std::uint8_t {
    Edge,    ///< of the panel, of the domain, or of where the field is defined
    Rest,    ///< the direction turns round within no distance: a stagnation point, a source or a sink
    Near,    ///< it came too near to another streamline, or to itself
    Closed,  ///< it is back where it began
    TooLong, ///< the bound of its length was reached
};

/// A line along which the field runs.
struct Streamline {
    std::vector<PlaceInMm> points;
    std::size_t start = 0; ///< of these: where it was begun
    StreamEnd first = StreamEnd::Edge, last = StreamEnd::Edge;
    bool isClosed() const { return last == StreamEnd::Closed; }
};

struct StreamRules {
    double width = 100, height = 100; ///< of the panel, mm
    double tolerance = 0.02;          ///< mm between the chords and the true line
    double longest = 5000;            ///< mm of one line
};

/// The streamline through a place, both ways.
///
/// Method: the field of directions is integrated by arc length with the pair of orders 5 and 4 of J. R. Dormand and P.
/// J. Prince (1980), with local errors of a ten-thousandth of the tolerance a step; between steps the line is the cubic
/// Hermite curve, divided so that chords keep the tolerance. Ends are found by halving the step; near a
/// singular point steps are no longer than the direction takes to turn to the side. A line that comes back
/// to its start, across the normal there and within the tolerance, is closed.
Streamline streamlineThrough(const Direction& direction, const PlaceInMm& start, const StreamRules& rules);

/// Streamlines that lie evenly: none is begun nearer than the spacing to another, and each ends where it comes nearer
/// than half of it.
///
/// Method: B. Jobard and W. Lefer, "Creating evenly-spaced streamlines of arbitrary density" (1997); when no line has
/// room beside it, what is left of the panel is looked through.
std::vector<Streamline> evenStreamlines(const Direction& direction, double spacing, const StreamRules& rules);

} // namespace coulter
