#pragma once
#include "formula/bounds/bounds_arithmetic.h"

namespace coulter {

/// How something runs over a part of the parameter, in mm: where it is, and its derivatives by the parameter.
struct Course {
    Bounds all, slopes;           ///< its values and slopes over the part
    Bounds middle, slopeAtMiddle; ///< at the middle of the part
    Bounds bend;                  ///< second derivatives over the part

    friend Course operator+(const Course& a, const Course& b);
    friend Course operator*(double k, const Course& a);
    friend Course operator-(const Course& a, double b);
};

/// All values of a course over a part that reaches so far to both sides of its middle.
Bounds rangeOf(const Course& course, double radius);

/// A straight line between two points on the sheet, in mm.
struct Chord {
    double ua = 0, va = 0, ub = 0, vb = 0;
    double length = 0;
    double du = 1, dv = 0; ///< its direction, of length 1

    Chord(double fromU, double fromV, double toU, double toV);
    /// The largest distance from it of a curve with these courses to the right and upwards.
    double distance(const Course& u, const Course& v, double radius) const;
    double distance(double u, double v) const;
    /// Length of what of it lies between (0, 0) and (width, height).
    double lengthWithin(double width, double height) const;
};

} // namespace coulter
