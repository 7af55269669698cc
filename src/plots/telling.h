#pragma once
#include "drawing/frame.h"
#include "formula/base/problem.h"
#include "plots/drawn.h"
#include "plots/effort.h"

#include <optional>
#include <string>
#include <vector>

namespace coulter {

// What the window shows of a source beside its picture, as values.

/// A variable of a source and how it is sampled.
struct VariableSampling {
    std::string variable;
    Grid grid;
    Interval interval;
    bool isMeasured = false; ///< without count and step it is looked at where something was measured
};
std::vector<VariableSampling> samplingOf(const Drawn& drawn);

/// The part of a curve's variable that is in view, where more points can be asked for; none if they cannot.
std::optional<Limits> refinable(const Drawn& drawn, const Frame& frame);

/// Where the samples of a source lie along one of its variables; places in mm over the panel's width.
struct Lane {
    enum class SignKind : std::uint8_t { Pole, Jump, Undefined, Band, Filled, Corner };
    struct Bar {
        double from = 0, to = 0;
        bool proven = false;
    };
    struct Sign {
        SignKind kind = SignKind::Pole;
        double from = 0, to = 0;
    };
    std::string variable;
    AxisMap along;
    std::vector<double> density;     ///< around each mm, nearer samples counting more
    std::vector<double> samples;     ///< at most one for each column of the picture
    std::vector<Bar> bars;           ///< of a curve: where there is a line, and whether it is proven
    std::vector<Sign> signs;         ///< of a curve: its special places
    std::vector<FinerStretch> finer; ///< where more points were asked for, in the variable
};
/// @param column  mm that one column of the picture takes: what lies closer is one
std::vector<Lane> lanesOf(const Drawn& drawn, const Frame& frame, double column);

/// "97 points to 0.02 mm, 100 % proven, 480 evaluations · 1 pole", or what is right for a field.
std::string summaryOf(const Drawn& drawn, const Effort& effort);

/// What is missing of something that is not finished, why, and what helps.
Problem unfinished(const Drawn& drawn);

/// What stands at a place of a lane, in words; empty if nothing does.
/// @param reach  mm within which a special place is meant
std::string wordsAt(const Drawn& drawn, const Frame& frame, std::size_t lane, double mm, double reach);

/// Samples of a curve on the sheet, at most one for each square of so many mm; none of a field.
std::vector<Point> dotsOf(const Drawn& drawn, const Frame& frame, double square);

/// "row 3:   t = 1.2,   s = 0.4"
std::string rowWords(const Columns& columns, std::size_t row);

/// How many values of the samples a scale is asked to show, by its place in item paths; only those up to a bound, if
/// one is given. Undefined ones are none.
std::size_t valuesAlong(const Drawn& drawn, std::size_t scale, std::optional<double> upTo);

/// A number as it is printed: with a true minus sign.
std::string printedNumber(double value, int digits);

} // namespace coulter
