#include "plots/curve_marks.h"

#include "sampling/grid.h"

#include <cmath>

namespace coulter {

const Setting everySetting{.key = "every",
                           .label = "every",
                           .meaning = "distance between marks where the variable has no grid",
                           .type = SettingType::Number,
                           .usual = 5.0,
                           .unit = "mm",
                           .least = 0.2,
                           .greatest = 500,
                           .step = 0.5,
                           .needs = "shape"};

const Setting stepSetting{.key = "step",
                          .label = "step",
                          .meaning = "marks at equal steps of the variable, of this size; 0: by distance",
                          .type = SettingType::Number,
                          .usual = 0.0,
                          .least = 0,
                          .greatest = 1e6,
                          .step = 0.1,
                          .rare = true};

namespace {

Point placeOf(Evaluator& evaluator, bool function, double t, const Frame& frame) {
    double x = t, y = 0;
    const double* const in = &t;
    double* const out[] = {&x, &y};
    evaluator(std::span(&in, 1), function ? std::span(&out[1], 1) : std::span(out, 2), 1);
    return frame.onSheet(x, y);
}

/// Parameters at equal distances along the polyline, the first of each stretch half a distance from its start.
std::vector<double> alongCurve(const Curve& curve, const CurveSamples& samples, const Frame& frame, double every) {
    std::vector<double> found;
    const Rect room = frame.rect.grown(every); // nothing far outside the panel is walked along
    for (const Stretch& stretch : samples.stretches) {
        double walked = every / 2;
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
            const Point a = frame.onSheet(stretch.x[i], stretch.y[i]),
                        b = frame.onSheet(stretch.x[i + 1], stretch.y[i + 1]);
            const double length = std::hypot(b.x - a.x, b.y - a.y);
            const Rect chord{std::min(a.x, b.x), std::min(a.y, b.y), std::abs(b.x - a.x), std::abs(b.y - a.y)};
            if (!(length < 1e5) || !room.intersects(chord.grown(0.01))) continue;
            double at = every - walked;
            for (; at <= length; at += every) {
                const double part = at / length;
                found.push_back(curve.isFunction() ? frame.xAt(a.x + part * (b.x - a.x))
                                                   : stretch.t[i] + part * (stretch.t[i + 1] - stretch.t[i]));
            }
            walked = length - (at - every);
        }
    }
    return found;
}

/// Parameters of a function at equal distances along the horizontal scale, round numbers of mm from the panel's left.
std::vector<double> alongScale(const Curve& curve, const Frame& frame, double every) {
    std::vector<double> found;
    for (double mm = every / 2; mm < frame.map.x.length; mm += every) {
        const double t = frame.map.x.fromSheet(mm);
        if (t >= curve.interval.low && t <= curve.interval.high) found.push_back(t);
    }
    return found;
}

/// At equal steps from the start of the interval; no more than anyone can see.
std::vector<double> alongVariable(const Curve& curve, double step) {
    std::vector<double> found;
    constexpr std::size_t most = 100'000;
    for (double i = 0; found.size() < most; ++i) {
        const double t = curve.interval.low + i * step;
        if (t > curve.interval.high + 1e-9 * step) break;
        if ((t > curve.interval.low || curve.interval.lowClosed) &&
            (t < curve.interval.high || curve.interval.highClosed))
            found.push_back(std::min(t, curve.interval.high));
    }
    return found;
}

} // namespace

std::vector<CurveMark> marksAlong(const Drawn& drawn, const Frame& frame, MarkSpacing spacing) {
    const Curve& curve = *curveOf(drawn);
    const CurveSamples& samples = *curveSamplesOf(drawn);
    std::vector<CurveMark> marks;
    if (!isAdaptive(curve.grid)) {
        for (const Stretch& stretch : samples.stretches) {
            const std::vector<Point> places = onSheet(frame, stretch.x, stretch.y);
            marks.reserve(marks.size() + places.size());
            for (std::size_t i = 0; i < places.size(); ++i) marks.push_back({stretch.t[i], places[i]});
        }
        return marks;
    }
    const double every = number(drawn.settings, everySetting), step = number(drawn.settings, stepSetting);
    Evaluator evaluator(*curve.program);
    for (const double t : step > 0                             ? alongVariable(curve, step)
                          : spacing == MarkSpacing::AlongCurve ? alongCurve(curve, samples, frame, every)
                                                               : alongScale(curve, frame, every)) {
        const Point at = placeOf(evaluator, curve.isFunction(), t, frame);
        if (std::isfinite(at.x) && std::isfinite(at.y)) marks.push_back({t, at});
    }
    return marks;
}

std::vector<Point> placesOf(const std::vector<CurveMark>& marks) {
    std::vector<Point> places;
    places.reserve(marks.size());
    for (const CurveMark& mark : marks) places.push_back(mark.at);
    return places;
}

} // namespace coulter
