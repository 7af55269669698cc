#pragma once
#include <span>

namespace coulter {

/// A limit, and about how far it may be off: inf where there is none.
struct Limit {
    double value = 0;
    double error = 0;
};

/// Where a sequence goes whose distance from its limit is made of a few geometric sequences, as the totals up to 1, 2,
/// 4, 8, … of what falls off like powers are. The error is how much the last three extrapolations differ. Method:
/// epsilon algorithm, P. Wynn, "On a device for computing the e_m(S_n) transformation" (1956).
Limit limitOf(std::span<const double> sequence);

/// The part of a sequence from where on its terms come to rest: what is before that leads an extrapolation astray.
/// @param unrests  how much each term's neighbourhood moves
std::span<const double> settlingPart(std::span<const double> sequence, std::span<const double> unrests);

/// The sum of (−1)^k terms[k] over all k, from its first terms, all of them positive.
/// Method: H. Cohen, F. Rodriguez Villegas, D. Zagier, "Convergence acceleration of alternating series" (2000),
/// algorithm 1: of n terms that are the moments of a positive measure it makes an error of at most 5.8^(−n) of the sum.
double alternatingSum(std::span<const double> terms);

/// How much of what stands at t counts, for t from 0 to 1: all of it up to 1/2, then less and less, to nothing at 1. So
/// smooth that of a sum or an integral of oscillations only their limit is left: weights[i] for t[i].
void smoothCutoff(std::span<const double> t, double* weights);

} // namespace coulter
