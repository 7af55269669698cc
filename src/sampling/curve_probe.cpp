#include "sampling/curve_sampler.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

/// Far outside, a millimetre more or less means nothing, and products of huge lengths would overflow.
constexpr double farOut = 1e12;

double onSheet(const AxisMap& map, double coordinate) {
    const double mm = map.toSheet(coordinate);
    return std::isfinite(coordinate) ? std::clamp(mm, -farOut, farOut) : mm;
}

} // namespace

bool Knot::usable() const { return std::isfinite(x) && std::isfinite(y) && std::isfinite(u) && std::isfinite(v); }

void CurveProbe::limit(const std::stop_token& stop) {
    evaluator_.limit(stop, std::numeric_limits<std::int64_t>::max());
}

Knot CurveProbe::place(double t, double x, double y) const {
    Knot knot;
    knot.t = t;
    knot.x = x;
    knot.y = y;
    knot.w = along_.toSheet(t);
    knot.u = function_ ? knot.w : onSheet(map_.x, x);
    knot.v = onSheet(map_.y, y);
    return knot;
}

Knot CurveProbe::at(double t) { return at(std::span(&t, 1))[0]; }

std::vector<Knot> CurveProbe::at(std::span<const double> ts) {
    looked(ts.size());
    return ahead(ts);
}

std::vector<Knot> CurveProbe::ahead(std::span<const double> ts) {
    std::vector<double> xs, ys(ts.size());
    const double* in = ts.data();
    if (function_) {
        evaluator_(in, ys.data(), ts.size());
    } else {
        xs.resize(ts.size());
        double* const out[] = {xs.data(), ys.data()};
        evaluator_(std::span(&in, 1), out, ts.size());
    }
    std::vector<Knot> knots(ts.size());
    for (std::size_t i = 0; i < ts.size(); ++i) knots[i] = place(ts[i], function_ ? ts[i] : xs[i], ys[i]);
    return knots;
}

unsigned outerSides(const Knot& knot, const PanelMap& map) {
    constexpr double room = 1; // mm
    return (knot.u < -room ? 1U : 0U) | (knot.u > map.x.length + room ? 2U : 0U) | (knot.v < -room ? 4U : 0U) |
           (knot.v > map.y.length + room ? 8U : 0U);
}

double apart(const Knot& a, const Knot& b) { return std::hypot(b.u - a.u, b.v - a.v); }

CurveSamples sampleAtPoints(const Program& f, std::span<const double> points, std::stop_token stop,
                            const std::function<void(std::size_t)>& evaluated) {
    const bool function = f.outputs.size() == 1;
    std::vector<double> xs(points.begin(), points.end()), ys(points.size());
    const double* in = points.data();
    double* const out[] = {function ? ys.data() : xs.data(), ys.data()};
    evaluateInParallel(f, std::span(&in, 1), std::span(out, function ? 1 : 2), points.size(), stop, evaluated);
    CurveSamples samples;
    samples.finished = !stop.stop_requested();
    if (!samples.finished) return samples;
    samples.evaluations = points.size();
    bool open = false;
    for (std::size_t i = 0; i < points.size(); ++i) {
        if (!std::isfinite(xs[i]) || !std::isfinite(ys[i])) {
            if (open || i == 0)
                samples.gaps.push_back({points[i], points[i], GapKind::Undefined});
            else if (!samples.gaps.empty())
                samples.gaps.back().high = points[i];
            open = false;
            continue;
        }
        if (!open) samples.stretches.emplace_back();
        open = true;
        Stretch& stretch = samples.stretches.back();
        stretch.t.push_back(points[i]);
        stretch.x.push_back(xs[i]);
        stretch.y.push_back(ys[i]);
        stretch.state.push_back(PointState::Grid);
    }
    return samples;
}

} // namespace coulter
