#include "drawing/figure_layout.h"

#include "sampling/field.h"
#include "sampling/grid.h"
#include "sampling/range.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr int coarsePoints = 400;
constexpr int coarseFieldPoints = 48;
/// A logarithmic scale that was given no positive end shows so much less than its other end.
constexpr double usualDecades = 1e-4;

/// An interval as far as a logarithmic scale can show it.
Limits forScale(Limits limits, ScaleKind scale) {
    if (scale == ScaleKind::Linear || limits.low > 0) return limits;
    if (!(limits.high > 0)) return {0.1, 1};
    return {limits.high * usualDecades, limits.high};
}

/// Half the distance of the outermost points of a grid: cells drawn round them reach so far beyond the interval.
Limits withCells(const Interval& interval, const Grid& grid, const std::string& variable, ScaleKind scale) {
    const std::vector<double> points = gridPoints(interval, grid, variable).points;
    if (points.size() < 2) return {interval.low, interval.high};
    const AxisMap map{scale, interval.low, interval.high, 1};
    const auto at = [&](std::size_t i) { return map.toSheet(points[i]); };
    const std::size_t n = points.size();
    return {std::min(interval.low, map.fromSheet(at(0) - (at(1) - at(0)) / 2)),
            std::max(interval.high, map.fromSheet(at(n - 1) + (at(n - 1) - at(n - 2)) / 2))};
}

Limits fieldLimits(const Panel& panel, const Field& field, std::size_t k, ScaleKind scale) {
    if (panel.plots[field.plot].style.fill == FieldFill::Cells && !isAdaptive(field.grids[k]))
        return withCells(field.intervals[k], field.grids[k], field.variables[k], scale);
    return {field.intervals[k].low, field.intervals[k].high};
}

/// The smallest limits that hold all given.
std::optional<Limits> unite(std::optional<Limits> a, const Limits& b) {
    return a ? Limits{std::min(a->low, b.low), std::max(a->high, b.high)} : b;
}

/// Limits of a coordinate from its values; out to the next tick, so that the scale ends with a number.
std::optional<Limits> fromValues(std::vector<double> values, ScaleKind scale, double tickCount) {
    const bool logarithmic = scale == ScaleKind::Logarithmic;
    if (logarithmic) {
        std::erase_if(values, [](double value) { return !(value > 0); });
        for (double& value : values) value = std::log10(value);
    }
    const auto range = robustRange(values);
    if (!range) return std::nullopt;
    double low = range->first, high = range->second;
    if (!(high - low > 1e-12 * std::max(std::abs(low), std::abs(high)))) { // a constant: room on both sides
        const double room = low == 0 || logarithmic ? 1 : std::abs(low) * 0.5;
        low -= room;
        high += room;
    }
    if (logarithmic) {
        // To whole powers of ten where that wastes little room.
        const double margin = 0.01 * (high - low), little = 0.25 * (high - low);
        if (low - std::floor(low) < little)
            low = std::floor(low);
        else
            low -= margin;
        if (std::ceil(high) - high < little)
            high = std::ceil(high);
        else
            high += margin;
        return Limits{std::pow(10, std::max(low, -300.0)), std::pow(10, std::min(high, 300.0))};
    }
    low = std::max(low, -1e300);
    high = std::min(high, 1e300);
    // Half a step where a whole one would waste room.
    const double step = tickStep(low, high, tickCount);
    const auto outwards = [&](double value, double direction) {
        const double margin = 0.01 * (high - low);
        const double whole =
            direction < 0 ? std::floor((value - margin) / step) * step : std::ceil((value + margin) / step) * step;
        const double half = direction < 0 ? std::floor((value - margin) / step * 2) * step / 2
                                          : std::ceil((value + margin) / step * 2) * step / 2;
        if (direction < 0 && value >= 0 && value <= margin) return 0.0; // a curve that starts at zero stands on zero
        return std::abs(whole - value) > 0.8 * step ? half : whole;
    };
    return Limits{outwards(low, -1), outwards(high, 1)};
}

Limits horizontal(const Panel& panel, const PanelCurves& curves) {
    if (panel.x.limits) return forScale(*panel.x.limits, curves.xScale);
    std::optional<Limits> limits;
    for (const Curve& curve : curves.curves) {
        if (curve.isFunction()) limits = unite(limits, {curve.interval.low, curve.interval.high});
    }
    for (const Field& field : curves.fields) limits = unite(limits, fieldLimits(panel, field, 0, curves.xScale));
    return forScale(limits.value_or(Limits{0, 1}), curves.xScale);
}

} // namespace

std::optional<Interval> shownPart(const Interval& interval, ScaleKind scale, const Limits& limits) {
    Interval shown = interval;
    if (scale == ScaleKind::Logarithmic && !(limits.low > 0)) return std::nullopt;
    if (limits.high <= shown.low || limits.low >= shown.high) return std::nullopt;
    if (limits.low > shown.low) {
        shown.low = limits.low;
        shown.lowClosed = true;
    }
    if (limits.high < shown.high) {
        shown.high = limits.high;
        shown.highClosed = true;
    }
    return shown;
}

std::vector<CoarseCurve> coarseCurves(const PanelCurves& curves, const Panel& panel, const std::stop_token& stop) {
    const Limits limits = horizontal(panel, curves);
    std::vector<CoarseCurve> all;
    for (const Curve& curve : curves.curves) {
        std::vector<double> t;
        const std::optional<Interval> shown =
            curve.isFunction() ? shownPart(curve.interval, curves.xScale, limits) : curve.interval;
        if (shown && !isAdaptive(curve.grid)) {
            for (const double point : gridPoints(curve.interval, curve.grid, curve.variable).points) {
                if (point >= shown->low && point <= shown->high) t.push_back(point);
            }
        } else if (shown) {
            const bool logarithmic = curve.isFunction() && curves.xScale == ScaleKind::Logarithmic;
            const AxisMap along{logarithmic ? ScaleKind::Logarithmic : ScaleKind::Linear, shown->low, shown->high,
                                coarsePoints};
            for (int i = 0; i <= coarsePoints; ++i) {
                if ((i == 0 && !shown->lowClosed) || (i == coarsePoints && !shown->highClosed)) continue;
                t.push_back(i == 0 ? shown->low : i == coarsePoints ? shown->high : along.fromSheet(i));
            }
        }
        CoarseCurve coarse;
        coarse.y.resize(t.size());
        const double* in = t.data();
        if (curve.isFunction()) {
            double* const out = coarse.y.data();
            evaluateInParallel(*curve.program, std::span(&in, 1), std::span(&out, 1), t.size(), stop);
            coarse.x = std::move(t);
        } else {
            coarse.x.resize(t.size());
            double* const out[] = {coarse.x.data(), coarse.y.data()};
            evaluateInParallel(*curve.program, std::span(&in, 1), out, t.size(), stop);
        }
        all.push_back(std::move(coarse));
    }
    return all;
}

PanelLimits panelLimits(const Panel& panel, const PanelCurves& curves, const std::vector<CoarseCurve>& coarse,
                        double yTickCount) {
    PanelLimits limits{horizontal(panel, curves), {0, 1}, curves.xScale, curves.yScale};
    if (!panel.x.limits && curves.fields.empty() && !curves.curves.empty() && curves.acrossVariable().empty()) {
        // Curves in the plane: both coordinates are values.
        std::vector<double> values;
        for (const CoarseCurve& curve : coarse) values.insert(values.end(), curve.x.begin(), curve.x.end());
        limits.x = fromValues(std::move(values), curves.xScale, yTickCount).value_or(limits.x);
    }
    if (panel.y.limits) {
        limits.y = forScale(*panel.y.limits, curves.yScale);
        return limits;
    }
    std::optional<Limits> fields;
    for (const Field& field : curves.fields) fields = unite(fields, fieldLimits(panel, field, 1, curves.yScale));
    if (fields) {
        limits.y = forScale(*fields, curves.yScale);
        return limits;
    }
    std::vector<double> values;
    for (const CoarseCurve& curve : coarse) values.insert(values.end(), curve.y.begin(), curve.y.end());
    limits.y = fromValues(std::move(values), curves.yScale, yTickCount)
                   .value_or(curves.yScale == ScaleKind::Logarithmic ? Limits{0.1, 1} : Limits{0, 1});
    return limits;
}

PanelLimits withEqualScales(PanelLimits limits, const Panel& panel, double width, double height) {
    if (limits.xScale != limits.yScale) return limits;
    const bool logarithmic = limits.xScale == ScaleKind::Logarithmic;
    const auto extent = [&](const Limits& l) { return logarithmic ? std::log(l.high / l.low) : l.high - l.low; };
    const double perX = extent(limits.x) / width, perY = extent(limits.y) / height;
    const auto widen = [&](Limits& l, double by) {
        if (logarithmic) {
            const double middle = std::sqrt(l.low) * std::sqrt(l.high), half = std::pow(l.high / l.low, by / 2);
            l = {middle / half, middle * half};
        } else {
            const double middle = l.low / 2 + l.high / 2, half = (l.high - l.low) / 2 * by;
            l = {middle - half, middle + half};
        }
    };
    if (perX < perY && !panel.x.limits) widen(limits.x, perY / perX);
    if (perY < perX && !panel.y.limits) widen(limits.y, perX / perY);
    return limits;
}

Limits colourLimits(const Panel& panel, const PanelCurves& curves, const PanelLimits& limits,
                    const std::stop_token& stop) {
    const ScaleKind scale = colourScale(panel);
    if (panel.colour.limits) return forScale(*panel.colour.limits, scale);
    std::vector<double> values;
    for (const Field& field : curves.fields) {
        const auto points = [&](std::size_t k) {
            std::vector<double> some;
            const auto shown =
                shownPart(field.intervals[k], k == 0 ? limits.xScale : limits.yScale, k == 0 ? limits.x : limits.y);
            if (!shown) return some;
            const AxisMap map{k == 0 ? limits.xScale : limits.yScale, shown->low, shown->high, coarseFieldPoints};
            for (int i = 0; i <= coarseFieldPoints; ++i) {
                if ((i == 0 && !shown->lowClosed) || (i == coarseFieldPoints && !shown->highClosed)) continue;
                some.push_back(std::clamp(map.fromSheet(i), shown->low, shown->high));
            }
            return some;
        };
        const FieldSamples look = sampleMeshgrid(*field.program, points(0), points(1), stop);
        for (std::size_t i = 0; i < look.pointCount(); ++i) values.push_back(look.sizeAt(i));
    }
    return fromValues(std::move(values), scale, 6).value_or(Limits{0.1, 1});
}

SpaceFrame spaceFrame(const PanelCurves& curves, const std::stop_token& stop) {
    SpaceFrame frame;
    std::array<std::vector<double>, 3> values;
    for (const Curve& curve : curves.curves) {
        if (!curve.inSpace) continue;
        frame.shown = true;
        std::vector<double> t;
        const AxisMap along{ScaleKind::Linear, curve.interval.low, curve.interval.high, coarsePoints};
        for (int i = 0; i <= coarsePoints; ++i) {
            if ((i == 0 && !curve.interval.lowClosed) || (i == coarsePoints && !curve.interval.highClosed)) continue;
            t.push_back(along.fromSheet(i));
        }
        std::array<std::vector<double>, 3> found;
        std::array<double*, 3> out{};
        for (std::size_t k = 0; k < 3; ++k) {
            found[k].resize(t.size());
            out[k] = found[k].data();
        }
        const double* in = t.data();
        evaluateInParallel(*curve.inSpace, std::span(&in, 1), out, t.size(), stop);
        for (std::size_t k = 0; k < 3; ++k) values[k].insert(values[k].end(), found[k].begin(), found[k].end());
    }
    for (std::size_t k = 0; k < 3 && frame.shown; ++k)
        frame.limits[k] = fromValues(std::move(values[k]), ScaleKind::Linear, 4).value_or(Limits{0, 1});
    return frame;
}

} // namespace coulter
