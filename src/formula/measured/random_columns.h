#pragma once
#include <cstddef>
#include <cstdint>
#include <string_view>
#include <vector>

namespace coulter {

// Columns of random numbers: the same bits on every machine, for any number of threads.
//
// The generator is the Mersenne Twister MT19937-64 (M. Matsumoto and T. Nishimura, "Mersenne Twister: a
// 623-dimensionally equidistributed uniform pseudorandom number generator", ACM TOMACS 8, 1998; the 64-bit variant of
// 2000 as ISO C++ defines it, mt19937_64, and its seeding from one number). Each number takes one of its outputs: the
// upper 52 bits k become u = (k + 1/2) 2^−52, which never is 0 or 1.

/// Uniform between two ends: low + (high − low) u.
std::vector<double> uniformNumbers(double low, double high, std::size_t count, std::uint64_t seed);

/// Normal: mean + √(2 variance) arerf(2u − 1), the inverse of the distribution function (L. Devroye, "Non-Uniform
/// Random Variate Generation", 1986, section II.2); 2u − 1 is exact.
std::vector<double> normalNumbers(double mean, double variance, std::size_t count, std::uint64_t seed);

/// A seed for a column that was given none, of at most five digits: always the same for the same line of a page.
std::uint64_t chosenSeed(std::string_view line);

} // namespace coulter
