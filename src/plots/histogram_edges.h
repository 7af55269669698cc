#pragma once
#include <cstddef>
#include <vector>

namespace coulter {

// Bins of histograms. Numbers are finite; a bin holds its lower edge, the last one its upper edge too.

inline constexpr std::size_t mostBins = 10'000;

/// How many bins of equal width from the least to the greatest number: their width is at most 2 q n^(−1/3), where q is
/// the distance between the quartiles of n numbers. Where the quartiles are one, as many as log2(n) + 1.
/// Sources: D. Freedman and P. Diaconis, "On the histogram as a density estimator: L2 theory" (1981); H. Sturges, "The
/// choice of a class interval" (1926).
std::size_t freedmanDiaconisBins(std::vector<double> numbers);

/// So many bins of equal width from the least to the greatest number.
std::vector<double> edgesOfCount(const std::vector<double>& numbers, std::size_t count);

/// Multiples of a width, round all numbers; none if that cannot be had.
std::vector<double> edgesOfWidth(const std::vector<double>& numbers, double width);

/// How many of some numbers are in each bin.
std::vector<std::size_t> countsBetween(const std::vector<double>& edges, const std::vector<double>& numbers);

/// A quantile between the numbers of an ascending list, straight between neighbours: of n numbers the i-th is at
/// i / (n − 1) (type 7 of R. Hyndman and Y. Fan, "Sample quantiles in statistical packages", 1996).
double quantile(const std::vector<double>& ascending, double share);

} // namespace coulter
