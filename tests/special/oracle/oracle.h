#pragma once
#include "special/catalogue.h"

#include <string_view>
#include <vector>

/// High-precision references for the functions of the catalogue, from Arb (FLINT), and the points to compare at.
namespace oracle {

/// Where a function is compared: values for its other operands, and ranges for the one that varies.
struct Points {
    std::string_view form;                   ///< of the catalogue's entry
    std::vector<std::vector<double>> others; ///< values of the other operands, in order
    std::vector<std::pair<double, double>> ranges;
    int varying = -1; ///< which operand varies; −1: the last
};

/// Errors of one function over all its points.
struct Errors {
    int points = 0;
    double ulps = 0; ///< largest, in units in the last place, where the function is well-conditioned (condition ≤ 16)
    double relative =
        0; ///< elsewhere, up to a condition of 10⁶: largest error in units of what rounding x by half a unit does
    std::vector<double> worst;      ///< operands of the largest error in ulps
    std::vector<double> worstOther; ///< operands of the largest relative error elsewhere
    int undefined = 0; ///< points where the function gives NaN although the reference has a value, or the reverse
    std::vector<double> undefinedAt;
};

/// All functions that have a reference. Every entry of the catalogue must be among them.
std::vector<Points> allPoints();

/// Value of a catalogue function at one place, as a program would compute it.
double valueOf(const coulter::FunctionEntry& entry, const std::vector<double>& operands);

/// Compares at about `density` points in each range: evenly, crowded towards both ends, and around zeros.
Errors compare(const Points& points, int density);

} // namespace oracle
