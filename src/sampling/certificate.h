#pragma once
#include "sampling/curve.h"

#include <map>

namespace coulter {

/// Chords that were proven before, by the parameter at both ends, and the bound of each in mm.
using ProvenChords = std::map<std::pair<double, double>, double>;

/// How many evaluations over intervals may still be spent on the proofs of a curve.
struct ProofEffort {
    std::size_t evaluationsLeft = 0;
    std::size_t inVainLeft = 0; ///< of these, for chords that are not proven in the end
    bool integrals = true;      ///< whether curves with integrals are tried, too
    bool isSpent() const { return evaluationsLeft == 0 || inVainLeft == 0; }
    std::function<void(const CurveSamples&)> watch = {}; ///< told now and then what is proven so far
    /// So many operations on bounds: fewer evaluations of a larger formula.
    static ProofEffort of(const Program& curve, double mostOperations = CurveEffort{}.mostProofOperations);
};

/// Marks the chords of sampled stretches that are proven to stay within the tolerance: rigorous bounds of the curve and
/// of its derivatives show that it is continuous between both ends and nowhere farther from the chord than the
/// tolerance on the sheet, as far as it is inside the panel. Adds no points; what cannot be shown with bounded work
/// stays estimated. Beside a special place (corner, jump, edge) the proof leaves out 64 units in the last place of the
/// parameter, or 1e-14 of the chord: the place itself is not known better.
///
/// Where the bounds show instead that the curve leaves a chord by more than the tolerance, such as at a narrow peak
/// between two points, a place (of the parameter) of that is returned.
///
/// @param curve  x ↦ y or t ↦ (x, y); of integrals only those have bounded derivatives that `IntegralJet` fits
/// @param effort  what is left of it; when nothing is, the rest stays estimated
/// @param known  if given, its chords are not proven again, and those that are proven now are added
/// Method: over a part of width h the curve, as scales show it, lies within its Taylor form of second order about the
/// middle, c(m) + c′(m) s + c″ s²/2 for |s| ≤ h/2 with bounds of c″ over the part (see jet.h), and so does its distance
/// from the chord. Where that is not enough all such parts are halved; where most of them fail, and not by so little
/// that halving would help, the proof is given up.
std::vector<double> certify(CurveSamples& samples, const Program& curve, const PanelMap& map,
                            const Tolerance& tolerance, ProofEffort& effort, std::stop_token stop = {},
                            ProvenChords* known = nullptr);

} // namespace coulter
