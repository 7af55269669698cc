#include "drawing/figure_layout.h"

#include "sampling/grid.h"
#include "sampling/range.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr int coarsePoints = 400;

Limits horizontal(const Panel& panel, const PanelCurves& curves) {
    if (panel.x.limits) return *panel.x.limits;
    if (curves.curves.empty()) return {0, 1};
    Limits limits{curves.curves[0].interval.low, curves.curves[0].interval.high};
    for (const Curve& curve : curves.curves) {
        limits.low = std::min(limits.low, curve.interval.low);
        limits.high = std::max(limits.high, curve.interval.high);
    }
    return limits;
}

} // namespace

std::vector<CoarseCurve> coarseCurves(const PanelCurves& curves, const Panel& panel) {
    const Limits shown = horizontal(panel, curves);
    std::vector<CoarseCurve> all;
    for (const Curve& curve : curves.curves) {
        CoarseCurve coarse;
        const double low = std::max(curve.interval.low, shown.low), high = std::min(curve.interval.high, shown.high);
        if (!isAdaptive(curve.grid)) {
            for (const double x : gridPoints(curve.interval, curve.grid, curve.variable).points) {
                if (x >= low && x <= high) coarse.x.push_back(x);
            }
        } else if (low < high) {
            for (int i = 0; i <= coarsePoints; ++i) {
                if ((i == 0 && !curve.interval.lowClosed) || (i == coarsePoints && !curve.interval.highClosed))
                    continue;
                coarse.x.push_back(i == coarsePoints ? high : low + i * (high - low) / coarsePoints);
            }
        }
        coarse.y.resize(coarse.x.size());
        Evaluator evaluator(*curve.program);
        evaluator(coarse.x.data(), coarse.y.data(), coarse.x.size());
        all.push_back(std::move(coarse));
    }
    return all;
}

PanelLimits panelLimits(const Panel& panel, const PanelCurves& curves, const std::vector<CoarseCurve>& coarse,
                        double yTickCount) {
    PanelLimits limits{horizontal(panel, curves), {0, 1}};
    if (panel.y.limits) {
        limits.y = *panel.y.limits;
        return limits;
    }
    std::vector<double> values;
    for (const CoarseCurve& curve : coarse) values.insert(values.end(), curve.y.begin(), curve.y.end());
    const auto range = robustRange(values);
    if (!range) return limits;
    auto [low, high] = *range;
    if (!(high - low > 1e-12 * std::max(std::abs(low), std::abs(high)))) { // a constant: room on both sides
        const double room = low == 0 ? 1 : std::abs(low) * 0.5;
        low -= room;
        high += room;
    }
    low = std::max(low, -1e300);
    high = std::min(high, 1e300);
    // Out to the next tick, so that the scale ends with a number; half a step where a whole one would waste room.
    const double step = tickStep(low, high, yTickCount);
    const auto outwards = [&](double value, double direction) {
        const double margin = 0.01 * (high - low);
        const double whole =
            direction < 0 ? std::floor((value - margin) / step) * step : std::ceil((value + margin) / step) * step;
        const double half = direction < 0 ? std::floor((value - margin) / step * 2) * step / 2
                                          : std::ceil((value + margin) / step * 2) * step / 2;
        if (direction < 0 && value >= 0 && value <= margin) return 0.0; // a curve that starts at zero stands on zero
        return std::abs(whole - value) > 0.8 * step ? half : whole;
    };
    limits.y = {outwards(low, -1), outwards(high, 1)};
    return limits;
}

} // namespace coulter
