#include "desktop/read_out.h"

#include "formula/text.h"

#include <QObject>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

QString spelledNumber(double value, int digits) {
    return QString::fromStdString(roundedNumber(value, digits)).replace('-', QChar(0x2212));
}

/// A coordinate with as many digits as a tenth of a millimetre on its scale can tell apart.
QString coordinate(double value, const AxisMap& axis) {
    const double mm = axis.toSheet(value);
    double resolution = std::abs(axis.fromSheet(mm + 0.1) - value);
    if (!(resolution > 0) || !std::isfinite(resolution)) resolution = std::abs(axis.high - axis.low) * 1e-3;
    const double size = std::max(std::abs(value), resolution);
    return spelledNumber(value, std::clamp(static_cast<int>(std::ceil(std::log10(size / resolution))) + 1, 3, 15));
}

Point placeOnSheet(const PanelLayout& layout, double x, double y) {
    return {layout.frame.x + layout.map.x.toSheet(x), layout.frame.bottom() - layout.map.y.toSheet(y)};
}

ReadOut onFunction(const PanelLayout& layout, const Curve& curve, double t) {
    // The value is the formula's own, not the polyline's; the slope is a central difference.
    const double x = std::clamp(t, curve.interval.low, curve.interval.high);
    Evaluator f(*curve.program);
    const double y = f(x), h = std::max(std::abs(x), (layout.map.x.high - layout.map.x.low) * 1e-3) * 1e-5;
    const double slope = (f(x + h) - f(x - h)) / (2 * h);
    ReadOut out{
        QObject::tr("%1 = %2   value %3")
            .arg(QString::fromStdString(curve.variable), coordinate(x, layout.map.x), coordinate(y, layout.map.y)),
        placeOnSheet(layout, x, y)};
    if (std::isfinite(slope)) out.text += QObject::tr("   slope %1").arg(spelledNumber(slope, 3));
    return out;
}

ReadOut onPath(const PanelLayout& layout, const Curve& curve, double t) {
    const Program& program = curve.inSpace ? *curve.inSpace : *curve.program;
    std::vector<double> place(program.outputs.size());
    std::vector<double*> out;
    for (double& each : place) out.push_back(&each);
    const double* in = &t;
    Evaluator evaluator(program);
    evaluator(std::span(&in, 1), out, 1);
    QString text = QString::fromStdString(curve.variable) + " = " +
                   coordinate(t, {ScaleKind::Linear, curve.interval.low, curve.interval.high, 100}) + "   (";
    for (std::size_t k = 0; k < place.size(); ++k)
        text += (k > 0 ? ", " : "") + coordinate(place[k], k == 0 ? layout.map.x : layout.map.y);
    std::array<double, 2> seen{};
    double* const into[] = {&seen[0], &seen[1]};
    Evaluator (*curve.program)(std::span(&in, 1), into, 1);
    return {text + ")", placeOnSheet(layout, seen[0], seen[1])};
}

/// A field's value by its formula; empty outside its intervals.
QString fieldValue(const Field& field, const PanelLayout& layout, double x, double y) {
    if (x < field.intervals[0].low || x > field.intervals[0].high || y < field.intervals[1].low ||
        y > field.intervals[1].high)
        return {};
    std::vector<double> values(field.program->outputs.size());
    std::vector<double*> out;
    for (double& each : values) out.push_back(&each);
    const double* const in[] = {&x, &y};
    Evaluator (*field.program)(in, out, 1);
    if (std::ranges::any_of(values, [](double value) { return std::isnan(value); })) return QObject::tr("   undefined");
    QString text;
    for (const double value : values) text += (text.isEmpty() ? "" : ", ") + coordinate(value, layout.colours.map);
    return values.size() > 1 ? "   (" + text + ")" : QObject::tr("   value %1").arg(text);
}

} // namespace

std::optional<CurvePlace> nearestCurve(const Figure& figure, Point mm, double reach) {
    if (figure.layouts.empty()) return std::nullopt;
    const PanelLayout& layout = figure.layouts[0];
    std::optional<CurvePlace> nearest;
    for (std::size_t c = 0; c < figure.samples[0].size(); ++c) {
        for (const Stretch& stretch : figure.samples[0][c].stretches) {
            for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
                const Point a = placeOnSheet(layout, stretch.x[i], stretch.y[i]),
                            b = placeOnSheet(layout, stretch.x[i + 1], stretch.y[i + 1]);
                const double dx = b.x - a.x, dy = b.y - a.y, square = dx * dx + dy * dy;
                const double part =
                    square > 0 ? std::clamp(((mm.x - a.x) * dx + (mm.y - a.y) * dy) / square, 0.0, 1.0) : 0;
                const Point foot{a.x + part * dx, a.y + part * dy};
                const double distance = std::hypot(foot.x - mm.x, foot.y - mm.y);
                if (!(distance < reach)) continue;
                reach = distance;
                const double t = figure.curves[0].curves[c].isFunction()
                                     ? layout.map.x.fromSheet(foot.x - layout.frame.x)
                                     : stretch.t[i] + part * (stretch.t[i + 1] - stretch.t[i]);
                nearest = CurvePlace{c, t, foot};
            }
        }
    }
    return nearest;
}

ReadOut readOutAt(const Figure& figure, Point mm, double reach) {
    if (figure.layouts.empty() || !figure.layouts[0].frame.grown(1).contains(mm)) return {};
    const PanelLayout& layout = figure.layouts[0];
    if (const auto place = nearestCurve(figure, mm, reach)) {
        const Curve& curve = figure.curves[0].curves[place->curve];
        return curve.isFunction() ? onFunction(layout, curve, place->t) : onPath(layout, curve, place->t);
    }
    if (layout.space.shown) return {};
    const double x = layout.map.x.fromSheet(mm.x - layout.frame.x),
                 y = layout.map.y.fromSheet(layout.frame.bottom() - mm.y);
    QString text = QString("(%1, %2)").arg(coordinate(x, layout.map.x), coordinate(y, layout.map.y));
    for (const Field& field : figure.curves[0].fields) text += fieldValue(field, layout, x, y);
    return {text, std::nullopt};
}

} // namespace coulter
