#include "sampling/chord.h"

namespace coulter {

Course operator+(const Course& a, const Course& b) {
    return {a.all + b.all, a.slopes + b.slopes, a.middle + b.middle, a.slopeAtMiddle + b.slopeAtMiddle,
            a.bend + b.bend};
}
Course operator*(double k, const Course& a) {
    return {k * a.all, k * a.slopes, k * a.middle, k * a.slopeAtMiddle, k * a.bend};
}
Course operator-(const Course& a, double b) {
    return {a.all - exactly(b), a.slopes, a.middle - exactly(b), a.slopeAtMiddle, a.bend};
}

Bounds rangeOf(const Course& course, double radius) {
    const Bounds taylor = course.middle + rangeOfParabola(course.slopeAtMiddle, course.bend, radius);
    const Bounds mean = course.middle + course.slopes * Bounds{-radius, radius};
    return common(course.all, common(taylor, mean));
}

Chord::Chord(double fromU, double fromV, double toU, double toV)
    : ua(fromU), va(fromV), ub(toU), vb(toV), length(std::hypot(toU - fromU, toV - fromV)) {
    if (!(length > 0)) return;
    du = (ub - ua) / length;
    dv = (vb - va) / length;
}

double Chord::distance(const Course& u, const Course& v, double radius) const {
    // Distance from a chord is convex: over the box of both courses it is largest at a corner.
    const double ofBox = std::max({distance(u.all.low, v.all.low), distance(u.all.low, v.all.high),
                                   distance(u.all.high, v.all.low), distance(u.all.high, v.all.high)});
    const Course right = u - ua, up = v - va;
    const Bounds along = rangeOf(du * right + dv * up, radius), across = rangeOf(du * up + -dv * right, radius);
    const double ofCourse = std::hypot(magnitude(across), std::max({0.0, -along.low, along.high - length}));
    return std::isnan(ofBox) ? ofCourse : std::min(ofBox, ofCourse);
}

double Chord::distance(double u, double v) const {
    const double t = std::clamp(du * (u - ua) + dv * (v - va), 0.0, length);
    return std::hypot(u - ua - t * du, v - va - t * dv);
}

double Chord::lengthWithin(double width, double height) const {
    double from = 0, to = length;
    const auto clip = [&](double start, double direction, double limit) {
        if (direction == 0) {
            if (start < 0 || start > limit) to = -1;
            return;
        }
        const double a = -start / direction, b = (limit - start) / direction;
        from = std::max(from, std::min(a, b));
        to = std::min(to, std::max(a, b));
    };
    clip(ua, du, width);
    clip(va, dv, height);
    return to > from && std::isfinite(length) ? to - from : 0;
}

} // namespace coulter
