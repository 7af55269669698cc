#pragma once
#include <string>
#include <vector>

namespace coulter {

/// The marks of a scale and what is written at them.
struct Ticks {
    double step = 1; ///< of a linear scale
    std::vector<double> places;
    std::vector<std::string> labels; ///< digits with a true decimal spelling, "-" is printed as a minus sign; or "10^3"
    std::vector<double> minor;       ///< shorter marks between, without labels
    int powerOfTen = 0; ///< the labels are to be multiplied by 10 to this power, said once at the scale's end
};

/// Ticks between low < high with a step of 1, 2 or 5 times a power of ten, as near to `wanted` marks as that allows.
Ticks linearTicks(double low, double high, double wanted);

/// Ticks of a logarithmic scale between 0 < low < high: powers of ten, every so many of them where there are more than
/// wanted, with their multiples as minor marks; over less than two powers of ten also 2 and 5 times each, and where
/// even those are too few the marks of a linear scale.
Ticks logarithmicTicks(double low, double high, double wanted);

/// The step that `linearTicks` would choose.
double tickStep(double low, double high, double wanted);

} // namespace coulter
