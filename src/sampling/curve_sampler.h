#pragma once
#include "sampling/curve.h"

#include <optional>

namespace coulter {

/// A point of the curve while it is being sampled: in the user's coordinates and in millimetres.
struct Knot {
    double x = 0;
    double y = 0; ///< NaN or infinite where undefined
    double u = 0;
    double v = 0;
    PointState state = PointState::Estimated;
    std::optional<GapKind> gapAfter; ///< the line breaks between this knot and the next
    bool settled = false;            ///< the chord to the next knot needs no more points
    bool continuous = false;         ///< looked at closely: steep, but without a jump up to the next knot
};

/// Evaluates the function and keeps count. One for each thread.
class CurveProbe {
public:
    CurveProbe(const Program& f, const PanelMap& map) : evaluator_(f), map_(map) {}

    Knot at(double x);
    std::vector<Knot> at(std::span<const double> xs);
    std::size_t evaluations() const { return evaluations_; }
    const PanelMap& map() const { return map_; }

private:
    Knot place(double x, double y) const;

    Evaluator evaluator_;
    PanelMap map_;
    std::size_t evaluations_ = 0;
};

/// The two neighbouring knots between which the function stops or starts being defined, found by bisection down to
/// neighbouring doubles; the first is defined, the second is not.
struct Boundary {
    Knot defined;
    Knot undefined;
};
Boundary findBoundary(CurveProbe& probe, Knot defined, Knot undefined);

/// What a bisection towards the steepest place between two knots found.
struct SteepPlace {
    Knot left;
    Knot right;
    std::optional<GapKind> kind; ///< none: no place at which the curve breaks
    bool oscillates = false;     ///< turns to and fro without coming to rest: cannot be resolved
};
SteepPlace findSteepPlace(CurveProbe& probe, const Knot& left, const Knot& right, double tolerance);

/// Distance in mm of a knot from the chord between two others (not from the line through them).
double distanceFromChord(const Knot& knot, const Knot& a, const Knot& b);

/// The knots, all within one unbroken piece, that must be kept so that the polyline through them stays within
/// `tolerance` mm of the polyline through all of them. Always keeps the first and the last; indices in ascending order.
/// Method: longest chords first to last, by intersecting the cones of directions that pass each point within the
/// tolerance.
std::vector<std::size_t> fewestKnots(std::span<const Knot> knots, double tolerance);

} // namespace coulter
