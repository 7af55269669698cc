#pragma once
#include "formula/notation/units.h"
#include "sampling/panel_map.h"

#include <string>
#include <vector>

namespace coulter {

/// How numbers at ticks are written.
enum class NumberStyle {
    Automatic, ///< digits; a power of ten apart where they would be many, 10³ where a logarithmic scale is wide
    Plain,     ///< digits, however many
    Powers,    ///< a power of ten always: apart on a linear scale, 10³ or 2×10³ on a logarithmic one
    OfPi,      ///< multiples of π: π/2, 3π
    Degrees,   ///< an angle in radians as degrees: 90°
    Prefixes,  ///< with SI prefixes: 20 k
};

/// Marks between those with numbers.
enum class MinorTicks { Automatic, None, Halves, Fifths, Tenths };

/// The marks of a scale and what is written at them.
struct Ticks {
    double step = 1; ///< of a linear scale
    std::vector<double> places;
    std::vector<std::string> labels; ///< digits with a true decimal spelling, "-" is printed as a minus sign; "10^3",
                                     ///< "3π/2", "20 k", "90°"; words; empty: a mark without a number
    bool areWords = false;           ///< the labels are words of a person, with formulas between $
    std::vector<double> minor;       ///< shorter marks between, without labels
    int powerOfTen = 0; ///< the labels are to be multiplied by 10 to this power, said once at the scale's end
};

/// Ticks between low < high with a step of 1, 2 or 5 times a power of ten, as near to `wanted` marks as that allows.
/// Multiples of π go by π/12, π/6, π/4, π/3, π/2, π, 2π, 5π, …; degrees by 1, 2, 5, 10, 15, 30, 45, 60, 90, 180, ….
Ticks linearTicks(double low, double high, double wanted, NumberStyle style = NumberStyle::Automatic);

/// Ticks of a logarithmic scale between 0 < low < high: powers of ten, every so many of them where there are more than
/// wanted, with their multiples as minor marks; over less than two powers of ten also 2 and 5 times each, and where
/// even those are too few the marks of a linear scale.
Ticks logarithmicTicks(double low, double high, double wanted, NumberStyle style = NumberStyle::Automatic);

/// The step that `linearTicks` would choose.
double tickStep(double low, double high, double wanted);

/// All that decides the ticks of a scale.
struct TickRules {
    ScaleKind kind = ScaleKind::Linear;
    NumberStyle numbers = NumberStyle::Automatic;
    MinorTicks minor = MinorTicks::Automatic;
    UnitConversion shown;                ///< what is written at a place; round numbers are round in it
    double count = 0;                    ///< about how many; 0: as wanted
    std::vector<double> given;           ///< places as written; empty: round ones
    std::vector<std::string> words = {}; ///< at the given places instead of numbers
};
/// Ticks between low < high by these rules; places are coordinates of the scale, in ascending order.
Ticks ticksBy(const TickRules& rules, double low, double high, double wanted);

} // namespace coulter
