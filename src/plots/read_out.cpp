#include "plots/read_out.h"

#include "plots/plot_kind.h"
#include "plots/special_places.h"
#include "plots/surface_faces.h"
#include "plots/telling.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

/// A coordinate with as many digits as a tenth of a millimetre on its scale can tell apart.
std::string coordinate(double value, const AxisMap& axis) {
    const double mm = axis.toSheet(value);
    double resolution = std::abs(axis.fromSheet(mm + 0.1) - value);
    if (!(resolution > 0) || !std::isfinite(resolution)) resolution = std::abs(axis.high - axis.low) * 1e-3;
    const double size = std::max(std::abs(value), resolution);
    return printedNumber(value, std::clamp(static_cast<int>(std::ceil(std::log10(size / resolution))) + 1, 3, 15));
}

/// Where on a drawn curve a place of the sheet is nearest to.
struct CurvePlace {
    const Curve* curve = nullptr;
    double t = 0;    ///< its parameter, by the chord
    double away = 0; ///< mm
    std::size_t scale = 0;
};

std::optional<CurvePlace> nearestCurve(std::span<const Drawn> drawn, const Frame& frame, Point mm, double reach) {
    std::optional<CurvePlace> nearest;
    for (const Drawn& each : drawn) {
        const CurveSamples* samples = curveSamplesOf(each);
        if (!samples || (each.kind && each.kind->tell)) continue;
        const Curve& curve = *curveOf(each);
        const Frame own = frame.onScale(each.scale);
        for (const Stretch& stretch : samples->stretches) {
            for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
                const Point a = own.onSheet(stretch.x[i], stretch.y[i]),
                            b = own.onSheet(stretch.x[i + 1], stretch.y[i + 1]);
                const double dx = b.x - a.x, dy = b.y - a.y, square = dx * dx + dy * dy;
                const double part =
                    square > 0 ? std::clamp(((mm.x - a.x) * dx + (mm.y - a.y) * dy) / square, 0.0, 1.0) : 0;
                const Point foot{a.x + part * dx, a.y + part * dy};
                const double distance = std::hypot(foot.x - mm.x, foot.y - mm.y);
                if (!(distance < reach)) continue;
                reach = distance;
                nearest = {&curve,
                           curve.isFunction() ? own.xAt(foot.x)
                                              : stretch.t[i] + part * (stretch.t[i + 1] - stretch.t[i]),
                           distance, each.scale};
            }
        }
    }
    return nearest;
}

/// So near on the sheet, in mm, the pointer snaps to a zero, an extremum or a crossing of curves.
constexpr double snap = 1.5;

std::optional<ReadOut> onSpecialPlace(const Frame& frame, const Curve& curve, double t,
                                      std::span<const Curve* const> others) {
    const double at = frame.acrossSheet(t);
    const double one = frame.xAt(at - snap), other = frame.xAt(at + snap);
    const auto found = specialPlaceNear(curve, others, std::min(one, other), std::max(one, other), t);
    if (!found) return std::nullopt;
    constexpr int digits = 7;
    const std::string where = curve.variable + " = " + printedNumber(found->x, digits);
    ReadOut out{"", frame.onSheet(found->x, found->y)};
    out.text = found->word == "zero"       ? "zero at " + where
               : found->word == "crossing" ? "crossing at " + where + "   value " + printedNumber(found->y, digits)
                                           : found->word + " " + printedNumber(found->y, digits) + " at " + where;
    return out;
}

ReadOut onFunction(const Frame& frame, const Curve& curve, double t, std::span<const Curve* const> others) {
    if (auto special = onSpecialPlace(frame, curve, t, others)) return std::move(*special);
    // The value is the formula's own, not the polyline's; the slope is a central difference.
    const double x = std::clamp(t, curve.interval.low, curve.interval.high);
    Evaluator f(*curve.program);
    const double y = f(x), h = std::max(std::abs(x), (frame.map.x.high - frame.map.x.low) * 1e-3) * 1e-5;
    const double slope = (f(x + h) - f(x - h)) / (2 * h);
    ReadOut out{curve.variable + " = " + coordinate(x, frame.map.x) + "   value " + coordinate(y, frame.map.y),
                frame.onSheet(x, y)};
    if (std::isfinite(slope)) out.text += "   slope " + printedNumber(slope, 3);
    return out;
}

ReadOut onRadius(const Frame& frame, const Curve& curve, double t) {
    const double r = Evaluator(*curve.radius)(t);
    return {
        curve.variable + " = " +
            coordinate(t, {ScaleKind::Linear, curve.interval.low, curve.interval.high, frame.polar->radius.length}) +
            "   radius " + coordinate(r, frame.polar->radius),
        frame.polar->onSheet(t, r)};
}

ReadOut onPath(const Frame& frame, const Curve& curve, double t) {
    const Program& program = curve.inSpace ? *curve.inSpace : *curve.program;
    std::vector<double> place(program.outputs.size());
    std::vector<double*> out;
    for (double& each : place) out.push_back(&each);
    const double* in = &t;
    Evaluator evaluator(program);
    evaluator(std::span(&in, 1), out, 1);
    std::string text = curve.variable + " = " +
                       coordinate(t, {ScaleKind::Linear, curve.interval.low, curve.interval.high, 100}) + "   (";
    for (std::size_t k = 0; k < place.size(); ++k)
        text += (k > 0 ? ", " : "") + coordinate(place[k], k == 0 ? frame.map.x : frame.map.y);
    std::array<double, 2> seen{};
    double* const into[] = {&seen[0], &seen[1]};
    Evaluator (*curve.program)(std::span(&in, 1), into, 1);
    return {text + ")", frame.onSheet(seen[0], seen[1])};
}

/// A field's value by its formula; empty outside its intervals.
std::string fieldValue(const Field& field, const Frame& frame, double x, double y) {
    if (x < field.intervals[0].low || x > field.intervals[0].high || y < field.intervals[1].low ||
        y > field.intervals[1].high)
        return {};
    std::vector<double> values(field.program->outputs.size());
    std::vector<double*> out;
    for (double& each : values) out.push_back(&each);
    const double* const in[] = {&x, &y};
    Evaluator (*field.program)(in, out, 1);
    if (std::ranges::any_of(values, [](double value) { return std::isnan(value); })) return "   undefined";
    std::string text;
    for (const double value : values) text += (text.empty() ? "" : ", ") + coordinate(value, frame.colour);
    return values.size() > 1 ? "   (" + text + ")" : "   value " + text;
}

} // namespace

ReadOut readOutAt(std::span<const Drawn> drawn, const Frame& frame, Point mm, double reach) {
    if (!frame.rect.grown(1).contains(mm)) return {};
    const auto place = nearestCurve(drawn, frame, mm, reach);
    std::optional<Touched> told;
    const Drawn* front = surfaceInFront(drawn, frame, mm);
    for (const Drawn& each : drawn) {
        const Field* field = fieldOf(each);
        if (frame.space && field && field->inSpace && &each != front) continue; // it is hidden there
        if (!each.kind || !each.kind->tell || each.parts.empty() || !each.parts[0].samples) continue;
        const auto found = each.kind->tell(each, frame.onScale(each.scale), mm, reach);
        if (found && (!told || found->away < told->away)) told = found;
    }
    if (told && (!place || told->away < place->away)) return {told->text, told->at};
    std::vector<const Curve*> others;
    for (const Drawn& each : drawn) {
        const Curve* curve = curveOf(each);
        if (place && curve && each.scale == place->scale && each.kind && !each.kind->tell) others.push_back(curve);
    }
    if (place)
        return place->curve->isFunction() ? onFunction(frame.onScale(place->scale), *place->curve, place->t, others)
               : place->curve->radius && frame.polar ? onRadius(frame, *place->curve, place->t)
                                                     : onPath(frame, *place->curve, place->t);
    if (frame.space) return {};
    if (frame.polar) {
        const double dx = mm.x - frame.polar->middle.x, dy = frame.polar->middle.y - mm.y, rho = std::hypot(dx, dy);
        if (rho > frame.polar->radius.length) return {};
        const double turn = 2 * std::numbers::pi, angle = frame.polar->sense * (std::atan2(dy, dx) - frame.polar->zero);
        return {"angle " + printedNumber((angle - turn * std::floor(angle / turn)) * 360 / turn, 4) + "°   radius " +
                    coordinate(frame.polar->radius.fromSheet(rho), frame.polar->radius),
                std::nullopt};
    }
    const double x = frame.xAt(mm.x), y = frame.yAt(mm.y);
    std::string text = "(" + coordinate(x, frame.map.x) + ", " + coordinate(y, frame.map.y) + ")";
    for (const Drawn& each : drawn) {
        if (const Field* field = fieldOf(each)) text += fieldValue(*field, frame, x, y);
    }
    return {text, std::nullopt};
}

} // namespace coulter
