#pragma once
#include "formula/program/piece_borders.h"
#include "sampling/curve.h"

#include <algorithm>
#include <optional>

namespace coulter {

/// A point of the curve while it is being sampled: in the user's coordinates and in millimetres.
struct Knot {
    double t = 0;        ///< parameter
    double x = 0, y = 0; ///< NaN or infinite where undefined
    double w = 0;        ///< millimetres along the parameter; of y = f(x) the same as u
    double u = 0, v = 0; ///< mm
    PointState state = PointState::Estimated;
    std::optional<GapKind> gapAfter; ///< the line breaks between this knot and the next
    bool settled = false;            ///< the chord to the next knot needs no more points
    bool calm = false;       ///< the chord after it was looked at, and needs no point as long as its neighbours stay
    bool continuous = false; ///< looked at closely: steep, but without a jump up to the next knot
    bool unresolved = false; ///< settled although it turns to and fro up to the next knot
    bool fixed = false;      ///< is kept, and chords end here

    bool usable() const;
};

/// Evaluates the curve and keeps count. One for each thread.
class CurveProbe {
public:
    /// @param along  millimetres along the parameter; of y = f(x) the horizontal scale
    CurveProbe(const Program& f, const PanelMap& map, const AxisMap& along)
        : evaluator_(f), function_(f.outputs.size() == 1),
          severalAtOnce_(
              std::ranges::all_of(f.instructions, [](const auto& step) { return !step.special && step.integral < 0; })),
          map_(map), along_(along) {}

    Knot at(double t);
    std::vector<Knot> at(std::span<const double> ts);
    /// The same for places of which only some may be looked at: those are counted by `looked`.
    std::vector<Knot> ahead(std::span<const double> ts);
    void looked(std::size_t places) { evaluations_ += places; }
    /// Whether a few places cost as much as one, because all operations run over blocks.
    bool takesSeveralAtOnce() const { return severalAtOnce_; }
    std::size_t evaluations() const { return evaluations_; }
    const PanelMap& map() const { return map_; }
    const AxisMap& along() const { return along_; }
    /// Whether this is y = f(x).
    bool isFunction() const { return function_; }
    void limit(const std::stop_token& stop);

private:
    Knot place(double t, double x, double y) const;

    Evaluator evaluator_;
    bool function_, severalAtOnce_;
    PanelMap map_;
    AxisMap along_;
    std::size_t evaluations_ = 0;
};

/// On which outer sides of the panel (with a little room) a knot lies: bits for left, right, below, above. The chord
/// between two knots that share one cannot be seen.
unsigned outerSides(const Knot& knot, const PanelMap& map);

/// Distance in mm between two knots on the sheet.
double apart(const Knot& a, const Knot& b);

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
/// @param longest  no chord is longer than this (mm), unless it joins neighbours
/// Method: longest chords first to last, by intersecting the cones of directions that pass each point within the
/// tolerance.
std::vector<std::size_t> fewestKnots(std::span<const Knot> knots, double tolerance, double longest = 1e300);

/// Where the line goes up and down again and again within a tenth of a millimetre, and what was found unresolved.
/// @param along  millimetres along the parameter
std::vector<Band> findBands(const CurveSamples& samples, const PanelMap& map, const AxisMap& along,
                            std::vector<Band> unresolved);

} // namespace coulter
