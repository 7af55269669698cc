#pragma once
#include "sampling/pieced_field.h"
#include "special/bounds.h"

#include <cmath>
#include <optional>

namespace coulter {

/// Where a straight line between two places crosses a border of a field's domain, a jump, or a line along which two of
/// its pieces meet.
struct FieldCut {
    bool parts = false;              ///< the field has a value on each side: a jump, or a corner of it
    bool isJump = false;             ///< and they differ
    bool isSingle = true;            ///< nothing else is crossed
    PiecedField::Spot first, second; ///< the last of one side and the first of the other; at a border of the domain the
                                     ///< same one, that is defined
};

/// How far values must be apart to be told apart.
struct CutSteps {
    double jump = 0;                   ///< by more than this they may jump, where pieces do not say
    double same = 0;                   ///< by less than this the pieces on both sides of a line go on in each other
    Bounds shown{-HUGE_VAL, HUGE_VAL}; ///< values beyond count as these: a pole is as high as what is shown
    bool besideBorders = false; ///< whether values count that the field has a hair beside a border, and not on it; so
                                ///< a place in between at which it is infinite parts it
};

/// Looks for a cut between two places of which one at least is defined, by bisection down to neighbouring numbers; none
/// if the field goes on.
std::optional<FieldCut> findCut(PiecedField& field, const PiecedField::Spot& first, const PiecedField::Spot& second,
                                const CutSteps& steps, const std::stop_token& stop);

} // namespace coulter
