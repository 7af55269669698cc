#include "plots/sampling.h"

#include "plots/field_source.h"
#include "plots/level_proofs.h"

#include "drawing/field_image.h"
#include "formula/base/text.h"
#include "formula/proofs/jet_evaluator.h"
#include "sampling/cost.h"
#include "sampling/curve.h"
#include "sampling/dot_samples.h"
#include "sampling/element_samples.h"
#include "sampling/field.h"
#include "sampling/grid.h"
#include "sampling/isolines.h"
#include "sampling/zero_proof.h"

#include <algorithm>
#include <atomic>
#include <cmath>

namespace coulter {
namespace {

/// Whether its integrals, if it has any, do not stand in the way of proofs.
bool canHaveProofs(const Curve& curve) {
    return curve.program->integrals.empty() || (curve.provesIntegrals && hasJets(*curve.program));
}

/// Whether its lines of zeros are proven with its samples: nothing else of it is drawn.
bool hasZeroProof(const Field& field) { return field.isMargin && canProveLines(field); }

constexpr int coarsePoints = 400;
constexpr int coarseFieldPoints = 48;
constexpr std::size_t mostPlacesLookedAt = 600, mostNodesLookedAt = 200'000; // of what was measured
constexpr std::size_t mostColumnPoints = 2000;
/// With fewer values than that a curve or a mesh is not looked at adaptively, but evenly.
constexpr double leastAdaptive = 2000, leastMesh = 30'000;
/// A program that costs more has proofs that may be waited for (see costOf).
constexpr double dearProof = 100;

/// At most so many of some points, the first and the last among them.
std::vector<double> thinned(const std::vector<double>& points, std::size_t most) {
    if (points.size() <= most || most < 2) return points;
    std::vector<double> kept(most);
    for (std::size_t i = 0; i < most; ++i) kept[i] = points[i * (points.size() - 1) / (most - 1)];
    return kept;
}

/// How many values of a program so many operations allow; at least two, unless one value alone takes too long.
double affordable(const Program& program, std::span<const Interval> intervals, double operations,
                  const std::stop_token& stop) {
    const double cost = costOfValue(program, intervals, operations / 4, stop);
    return std::isinf(cost) ? 0 : operations / cost;
}

/// Evenly, in so many places as are affordable; half a step inside open ends.
std::vector<double> evenly(const Interval& interval, double count) {
    std::vector<double> places;
    const double n = std::floor(count), before = interval.lowClosed ? 0 : 0.5, after = interval.highClosed ? 0 : 0.5,
                 steps = std::max(1.0, n - 1 + before + after);
    for (double i = 0; i < n; ++i)
        places.push_back(std::min(interval.high, interval.low + (interval.high - interval.low) * (i + before) / steps));
    return places;
}

CurveSamples tooDear(CurveSamples samples) {
    samples.tooDear = true;
    samples.finished = false;
    return samples;
}
FieldSamples tooDear(FieldSamples samples) {
    samples.tooDear = true;
    samples.finished = false;
    return samples;
}

/// Counts points for who watches; nothing if nobody does.
std::function<void(std::size_t)> counting(const SampleWatch& watch, std::size_t all) {
    if (!watch.sampling) return {};
    return [&watch, all, done = std::make_shared<std::atomic<std::size_t>>(0)](std::size_t more) {
        watch.sampling(*done += more, all);
    };
}

CurveSamples sample(const Curve& curve, const std::vector<FinerStretch>& finer, const Frame& frame,
                    const Effort& effort, const std::stop_token& stop, const SampleWatch& watch) {
    const double values = affordable(*curve.program, std::span(&curve.interval, 1), effort.operations, stop);
    if (!isAdaptive(curve.grid)) {
        const GridPoints grid = gridPoints(curve.interval, curve.grid, curve.variable);
        const auto most = static_cast<std::size_t>(std::min(values, static_cast<double>(effort.mostPoints)));
        if (most < 2 && grid.points.size() > most) return tooDear(CurveSamples{});
        const std::vector<double> points = thinned(grid.points, most);
        CurveSamples samples = sampleAtPoints(*curve.program, points, stop, counting(watch, points.size()));
        if (static_cast<double>(grid.points.size()) > values) return tooDear(std::move(samples));
        return samples;
    }
    const AxisMap& x = frame.map.x;
    const std::optional<Interval> shown =
        curve.isFunction() ? shownPart(curve.interval, x.kind, {x.low, x.high})
        : curve.radius && frame.polar
            ? shownPart(curve.interval, ScaleKind::Linear, {frame.polar->from, frame.polar->to})
            : curve.interval;
    if (!shown) return {};
    if (values < leastAdaptive) {
        const std::vector<double> points = evenly(*shown, values);
        return tooDear(sampleAtPoints(*curve.program, points, stop, counting(watch, points.size())));
    }
    Tolerance tolerance = effort.tolerance;
    tolerance.finer = finer;
    CurveEffort allowed;
    // Where nothing can be proven asking for it costs nothing, and the samples are the same either way.
    allowed.proofs = effort.proofs || !canHaveProofs(curve) ? Proofs::All : Proofs::None;
    allowed.integrals = curve.provesIntegrals;
    allowed.watch = watch.proving;
    if (std::isfinite(effort.operations)) {
        allowed.mostEvaluations =
            static_cast<std::size_t>(std::min(values, static_cast<double>(allowed.mostEvaluations)));
        allowed.mostProofOperations = std::min(allowed.mostProofOperations, effort.operations / 100);
    } else {
        allowed.mostProofOperations *= 100;
    }
    return sampleCurve(*curve.program, *shown, frame.map, tolerance, stop, allowed);
}

/// What is divided by a mask is undefined where the mask is zero, as on a mesh.
void leaveOutInfinite(FieldSamples& samples) {
    for (auto& component : samples.values) {
        for (double& value : component) {
            if (std::isinf(value)) value = std::nan("");
        }
    }
}

/// A picture by dots: nothing where it would take long, so that the points of the field make it as they can.
FieldSamples sampleAsDots(const Field& field, const Frame& frame, const Effort& effort, const std::stop_token& stop) {
    FieldSamples samples;
    if (effort.coarse) return samples;
    constexpr double mostShare = 0.1; // of the operations that are allowed
    const auto [across, down] = dotSides(frame, effort.dotsPerMm);
    const double dots = static_cast<double>(across.middles.size()) * static_cast<double>(down.middles.size());
    if (affordable(*field.program, field.intervals, mostShare * effort.operations, stop) < dots) return samples;
    const Limits range = samplingRange(field, frame);
    samples.dots = std::make_shared<const DotSamples>(
        sampleDots(*field.program, field.intervals, across, down, {range.low, range.high}, stop));
    samples.evaluations = samples.dots->evaluations;
    samples.finished = samples.dots->finished;
    return samples;
}

FieldSamples sampleField(const Field& field, const Frame& frame, const Effort& effort, const std::stop_token& stop,
                         const SampleWatch& watch) {
    const double values = affordable(*field.program, field.intervals, effort.operations, stop);
    if (values < 4) return tooDear(FieldSamples{});
    const PanelMap map = samplingMap(field, frame);
    const Limits range = samplingRange(field, frame);
    const auto axis = [&](std::size_t k) -> const AxisMap& { return k == 0 ? map.x : map.y; };
    const FieldTolerance allowed{samplingTolerance(field, effort.tolerance),
                                 range.low,
                                 range.high,
                                 field.followsLevels ? field.levels : levelsBeyond(field, range),
                                 field.looksForPeaks && !effort.coarse,
                                 field.knowsPieces,
                                 field.followsLevels};
    if (field.mesh && values >= static_cast<double>(field.mesh->x.size()))
        return sampleElements(*field.program, *field.mesh, field.intervals, field.hasCells, map, allowed, stop);
    const bool adaptive = isAdaptive(field.grids[0]) && isAdaptive(field.grids[1]);
    if (adaptive && values >= leastMesh) {
        std::array<Interval, 2> shown;
        for (std::size_t k = 0; k < 2; ++k) {
            const auto part = shownPart(field.intervals[k], axis(k).kind, {axis(k).low, axis(k).high});
            if (!part) return {};
            shown[k] = *part;
        }
        return sampleMesh(*field.program, shown, map, allowed, stop,
                          static_cast<std::size_t>(std::min(values, static_cast<double>(mostMeshEvaluations))));
    }
    std::array<std::vector<double>, 2> points;
    for (std::size_t k = 0; k < 2; ++k) {
        Grid grid = field.grids[k];
        if (isAdaptive(grid)) {
            grid.count = 257;
            grid.logarithmic = axis(k).kind == ScaleKind::Logarithmic;
        }
        points[k] = gridPoints(field.intervals[k], grid, field.variables[k]).points;
    }
    const double all = static_cast<double>(points[0].size()) * static_cast<double>(points[1].size());
    const double most = std::min(values, static_cast<double>(effort.mostPoints));
    if (const double share = most / std::max(1.0, all); share < 1) {
        for (auto& each : points)
            each = thinned(std::move(each),
                           std::max<std::size_t>(
                               2, static_cast<std::size_t>(std::sqrt(share) * static_cast<double>(each.size()))));
    }
    const std::size_t count = points[0].size() * points[1].size();
    FieldSamples samples =
        sampleMeshgrid(*field.program, std::move(points[0]), std::move(points[1]), stop, counting(watch, count));
    if (field.grids[0].places) leaveOutInfinite(samples);
    for (const auto& measured : field.program->fields)
        samples.finished = samples.finished && measured->trouble().empty();
    if (adaptive || all > values) return tooDear(std::move(samples)); // not chosen between: that would copy
    return samples;
}

FieldSamples sample(const Field& field, const std::vector<FinerStretch>&, const Frame& frame, const Effort& effort,
                    const std::stop_token& stop, const SampleWatch& watch) {
    if (field.asDots) return sampleAsDots(field, frame, effort, stop);
    FieldSamples samples = sampleField(field, frame, effort, stop, watch);
    if (hasZeroProof(field) && effort.proofs && !samples.tooDear && !stop.stop_requested()) {
        const LevelLines found = followLevels(samples, {0}, field.program.get(), frame.map, {effort.tolerance});
        samples.zeroProof = std::make_shared<const ZeroProof>(
            provenLines(field, samples, 0, found.lines, frame, effort, stop, watch.sampling));
    }
    return samples;
}

ColumnSamples sample(const Columns& columns, const std::vector<FinerStretch>&, const Frame&, const Effort&,
                     const std::stop_token&, const SampleWatch&) {
    return {columns.numbers};
}

Problems problemsOf(const Columns&) { return {}; }
Problems problemsOf(const Curve& curve) { return gridPoints(curve.interval, curve.grid, curve.variable).problems; }

Problems problemsOf(const Field& field) {
    double points = 1;
    for (std::size_t k = 0; k < 2; ++k) {
        const GridPoints grid = gridPoints(field.intervals[k], field.grids[k], field.variables[k]);
        if (!grid.problems.empty()) return grid.problems;
        points *= std::max(1.0, static_cast<double>(grid.points.size()));
    }
    const double most = field.inSpace ? mostSurfacePoints : mostFieldPoints;
    if (points <= most) return {};
    Problem problem;
    problem.sentence = "The grid of " + field.variables[0] + " and " + field.variables[1] + " has " +
                       roundedNumber(points, 3) + " points; at most " + roundedNumber(most, 3) + " are " +
                       (field.inSpace ? "drawn as a surface." : "sampled.");
    problem.suggestion = "ask for fewer in one of the two directions; " +
                         std::to_string(static_cast<int>(std::sqrt(most))) + " in each would do";
    return {problem};
}

/// Where a curve is looked at.
std::vector<double> coarseParameters(const Curve& curve, ScaleKind xScale, const Limits& across, double most) {
    std::vector<double> t;
    const std::optional<Interval> shown =
        curve.isFunction() ? shownPart(curve.interval, xScale, across) : curve.interval;
    if (!shown) return t;
    if (!isAdaptive(curve.grid)) {
        for (const double point : gridPoints(curve.interval, curve.grid, curve.variable).points) {
            if (point >= shown->low && point <= shown->high) t.push_back(point);
        }
        return static_cast<double>(t.size()) > most ? thinned(std::move(t), static_cast<std::size_t>(most)) : t;
    }
    const bool logarithmic = curve.isFunction() && xScale == ScaleKind::Logarithmic;
    const int last = static_cast<int>(std::min(most, coarsePoints + 1.0)) - 1;
    const AxisMap along{logarithmic ? ScaleKind::Logarithmic : ScaleKind::Linear, shown->low, shown->high,
                        static_cast<double>(last)};
    for (int i = 0; i <= last && last > 0; ++i) {
        if ((i == 0 && !shown->lowClosed) || (i == last && !shown->highClosed)) continue;
        t.push_back(i == 0 ? shown->low : i == last ? shown->high : along.fromSheet(i));
    }
    return t;
}

/// A grid of values over the intervals, without open ends.
FieldSamples coarseGrid(const Program& program, const Field& field, int last, const std::stop_token& stop) {
    const auto points = [&](std::size_t k) {
        std::vector<double> some;
        const Interval& interval = field.intervals[k];
        const AxisMap map{field.grids[k].logarithmic ? ScaleKind::Logarithmic : ScaleKind::Linear, interval.low,
                          interval.high, static_cast<double>(last)};
        for (int i = 0; i <= last; ++i) {
            if ((i > 0 || interval.lowClosed) && (i < last || interval.highClosed))
                some.push_back(std::clamp(map.fromSheet(i), interval.low, interval.high));
        }
        return some;
    };
    return sampleMeshgrid(program, points(0), points(1), stop);
}

/// Values at so many places; of a vector its length.
std::vector<double> sizesAt(const Program& program, const std::vector<double>& xs, const std::vector<double>& ys,
                            const std::stop_token& stop) {
    FieldSamples samples;
    samples.x = xs;
    samples.y = ys;
    samples.values.assign(program.outputs.size(), UnsetNumbers(xs.size(), 0));
    std::vector<double*> out;
    for (auto& component : samples.values) out.push_back(component.data());
    const double* const in[] = {xs.data(), ys.data()};
    evaluateInParallel(program, in, out, xs.size(), stop);
    std::vector<double> sizes;
    for (std::size_t i = 0; i < xs.size(); ++i) sizes.push_back(samples.sizeAt(i));
    return sizes;
}

/// Places of a surface, to know the box round it.
void lookAtSurface(const Field& field, CoarseLook& look, double operations, const std::stop_token& stop) {
    const double most = affordable(*field.program, field.intervals, operations, stop);
    const int last = std::min(coarseFieldPoints, static_cast<int>(std::sqrt(std::min(most, 1e6))) - 1);
    if (last < 1) return;
    const FieldSamples grid = coarseGrid(*field.program, field, last, stop);
    for (std::size_t i = 0; i < grid.pointCount(); ++i) {
        const Place place = placeOf(field, grid, i);
        for (std::size_t k = 0; k < 3; ++k) look.space[k].push_back(place[k]);
    }
}

} // namespace

Samples sampleSource(const Source& source, const std::vector<FinerStretch>& finer, const Frame& frame,
                     const Effort& effort, const std::stop_token& stop, const SampleWatch& watch) {
    return std::visit([&](const auto& each) -> Samples { return sample(each, finer, frame, effort, stop, watch); },
                      source);
}

bool canBeProven(const Source& source) {
    if (const Field* field = std::get_if<Field>(&source)) return hasZeroProof(*field);
    const Curve* curve = std::get_if<Curve>(&source);
    return curve && isAdaptive(curve->grid) && canHaveProofs(*curve);
}

bool hasDearProofs(const Source& source) {
    // Of lines of zeros the whole panel is looked at.
    return canBeProven(source) &&
           (std::holds_alternative<Field>(source) || costOf(*std::get<Curve>(source).program) > dearProof);
}

Problems gridProblems(const Source& source) {
    return std::visit([](const auto& each) { return problemsOf(each); }, source);
}

CoarseLook lookAt(const Source& source, ScaleKind xScale, const Limits& across, double operations,
                  const std::stop_token& stop) {
    const Curve* curve = std::get_if<Curve>(&source);
    CoarseLook look;
    if (const Columns* columns = std::get_if<Columns>(&source); columns && std::ranges::min(columns->along) >= 0) {
        look.x = thinned(*columns->numbers[static_cast<std::size_t>(columns->along[0])], mostColumnPoints);
        look.y = thinned(*columns->numbers[static_cast<std::size_t>(columns->along[1])], mostColumnPoints);
    }
    if (const Field* field = std::get_if<Field>(&source); field && field->inSpace)
        lookAtSurface(*field, look, operations, stop);
    if (!curve) return look;
    const double most = affordable(*curve->program, std::span(&curve->interval, 1), operations, stop);
    std::vector<double> t = coarseParameters(*curve, xScale, across, most);
    const double* in = t.data();
    look.y.resize(t.size());
    if (curve->isFunction()) {
        double* const out = look.y.data();
        evaluateInParallel(*curve->program, std::span(&in, 1), std::span(&out, 1), t.size(), stop);
        look.x = std::move(t);
        return look;
    }
    look.x.resize(t.size());
    double* const out[] = {look.x.data(), look.y.data()};
    evaluateInParallel(*curve->program, std::span(&in, 1), out, t.size(), stop);
    if (curve->inSpace) { // evenly, whatever the grid: the box round the curve holds what lies between its points
        const AxisMap along{ScaleKind::Linear, curve->interval.low, curve->interval.high, coarsePoints};
        t.clear();
        for (int i = 0; i <= coarsePoints; ++i) {
            if ((i > 0 || curve->interval.lowClosed) && (i < coarsePoints || curve->interval.highClosed))
                t.push_back(along.fromSheet(i));
        }
        in = t.data();
        std::array<double*, 3> into{};
        for (std::size_t k = 0; k < 3; ++k) {
            look.space[k].resize(t.size());
            into[k] = look.space[k].data();
        }
        evaluateInParallel(*curve->inSpace, std::span(&in, 1), into, t.size(), stop);
    }
    return look;
}

std::vector<double> coarseValues(const Field& field, ScaleKind xScale, const Limits& x, ScaleKind yScale,
                                 const Limits& y, double operations, const std::stop_token& stop) {
    const double most = affordable(*field.program, field.intervals, operations, stop);
    const int last = std::min(coarseFieldPoints, static_cast<int>(std::sqrt(std::min(most, 1e6))) - 1);
    if (last < 1) return {};
    if (field.mesh && !field.inSpace && !field.hasCells) { // at its nodes
        std::vector<double> xs, ys;
        for (std::size_t i = 0; i < field.mesh->x.size(); ++i) {
            const double px = field.mesh->x[i], py = field.mesh->y[i];
            if (px < field.intervals[0].low || px > field.intervals[0].high || py < field.intervals[1].low ||
                py > field.intervals[1].high)
                continue;
            xs.push_back(px);
            ys.push_back(py);
        }
        xs = thinned(std::move(xs), mostNodesLookedAt);
        ys = thinned(std::move(ys), mostNodesLookedAt);
        return sizesAt(field.tint ? *field.tint : *field.program, xs, ys, stop);
    }
    const auto points = [&](std::size_t k) {
        std::vector<double> some;
        if (field.grids[k].places && !field.inSpace) {
            const Limits& shown = k == 0 ? x : y;
            for (const double place : gridPoints(field.intervals[k], field.grids[k], field.variables[k]).points) {
                if (place >= shown.low && place <= shown.high) some.push_back(place);
            }
            return thinned(std::move(some), mostPlacesLookedAt);
        }
        const ScaleKind scale = k == 0 ? xScale : yScale;
        const auto shown = shownPart(field.intervals[k], scale, k == 0 ? x : y);
        if (!shown) return some;
        const AxisMap map{scale, shown->low, shown->high, static_cast<double>(last)};
        for (int i = 0; i <= last; ++i) {
            if ((i == 0 && !shown->lowClosed) || (i == last && !shown->highClosed)) continue;
            some.push_back(std::clamp(map.fromSheet(i), shown->low, shown->high));
        }
        return some;
    };
    std::vector<double> values;
    if (field.inSpace) { // a vector gives places, of which heights are shown
        const FieldSamples look = coarseGrid(field.tint ? *field.tint : *field.program, field, last, stop);
        const auto& heights = look.values.back();
        return {heights.begin(), heights.end()};
    }
    const FieldSamples look = sampleMeshgrid(field.tint ? *field.tint : *field.program, points(0), points(1), stop);
    for (std::size_t i = 0; i < look.pointCount(); ++i) values.push_back(look.sizeAt(i));
    return values;
}

void addExtents(const Source& source, const CoarseLook& look, Extents& extents) {
    if (std::holds_alternative<Columns>(source)) return; // how far they reach is for the kind to say
    if (const Field* field = std::get_if<Field>(&source)) {
        if (field->isParametric()) return;
        Extents::hold(extents.across, {field->intervals[0].low, field->intervals[0].high});
        Extents::hold(extents.up, {field->intervals[1].low, field->intervals[1].high});
        return;
    }
    const Curve& curve = std::get<Curve>(source);
    if (curve.isFunction()) Extents::hold(extents.across, {curve.interval.low, curve.interval.high});
    if (!curve.isFunction()) extents.xs.insert(extents.xs.end(), look.x.begin(), look.x.end());
    extents.ys.insert(extents.ys.end(), look.y.begin(), look.y.end());
}

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

Polylines linesOf(const CurveSamples& samples, const Frame& frame) {
    Polylines lines;
    lines.reserve(samples.stretches.size());
    for (const Stretch& stretch : samples.stretches) {
        std::vector<Point>& line = lines.emplace_back();
        line.reserve(stretch.x.size());
        for (std::size_t i = 0; i < stretch.x.size(); ++i) line.push_back(frame.onSheet(stretch.x[i], stretch.y[i]));
    }
    return lines;
}

} // namespace coulter
