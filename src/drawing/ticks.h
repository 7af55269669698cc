#pragma once
#include <string>
#include <vector>

namespace coulter {

/// The marks of a linear scale and what is written at them.
struct Ticks {
    double step = 1;
    std::vector<double> places;
    std::vector<std::string> labels; ///< digits with a true decimal spelling; "-" is printed as a minus sign
    int powerOfTen = 0; ///< the labels are to be multiplied by 10 to this power, said once at the scale's end
};

/// Ticks between low < high with a step of 1, 2 or 5 times a power of ten, as near to `wanted` marks as that allows.
Ticks linearTicks(double low, double high, double wanted);

/// The step that `linearTicks` would choose.
double tickStep(double low, double high, double wanted);

} // namespace coulter
