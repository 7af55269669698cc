#include "composition/look.h"

#include "drawing/ticks.h"
#include "figure/scale_settings.h"

#include "sampling/range.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// A logarithmic scale that was given no positive end shows so much less than its other end.
constexpr double usualDecades = 1e-4;

/// An interval as far as a logarithmic scale can show it.
Limits forScale(Limits limits, ScaleKind scale) {
    if (scale == ScaleKind::Linear || limits.low > 0) return limits;
    if (!(limits.high > 0)) return {0.1, 1};
    return {limits.high * usualDecades, limits.high};
}

std::optional<std::pair<double, double>> wholeRange(const std::vector<double>& values) {
    std::optional<std::pair<double, double>> range;
    for (const double value : values) {
        if (std::isfinite(value))
            range = range ? std::pair{std::min(range->first, value), std::max(range->second, value)}
                          : std::pair{value, value};
    }
    return range;
}

/// Limits of a coordinate from its values; out to the next tick, so that the scale ends with a number.
/// @param all  what is shown whole, whatever the values are worth
std::optional<Limits> fromValues(std::vector<double> values, ScaleKind scale, double tickCount,
                                 std::optional<Limits> all = {}, bool withOutliers = false) {
    const bool logarithmic = scale == ScaleKind::Logarithmic;
    if (logarithmic) {
        std::erase_if(values, [](double value) { return !(value > 0); });
        for (double& value : values) value = std::log10(value);
    }
    const auto range = withOutliers ? wholeRange(values) : robustRange(values);
    if (!range && !all) return std::nullopt;
    if (all && logarithmic) all = {std::log10(all->low), std::log10(all->high)};
    double low = range ? range->first : all->low, high = range ? range->second : all->high;
    if (all) {
        low = std::min(low, all->low);
        high = std::max(high, all->high);
    }
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

/// Automatic limits with those ends that were set; where these leave nothing between, as much as there was.
Limits withSet(Limits limits, const AxisLimits& set, ScaleKind scale) {
    const Limits before = limits;
    if (set.low) limits.low = *set.low;
    if (set.high) limits.high = *set.high;
    if (!set) return limits;
    if (!(limits.low < limits.high)) {
        const double extent = scale == ScaleKind::Logarithmic ? before.high / before.low : before.high - before.low;
        const bool logarithmic = scale == ScaleKind::Logarithmic;
        if (set.low)
            limits.high = logarithmic ? limits.low * extent : limits.low + extent;
        else
            limits.low = logarithmic ? limits.high / extent : limits.high - extent;
    }
    return forScale(limits, scale);
}

/// What the horizontal scale will show, which decides where functions are looked at. Columns need none, and passing
/// through millions of numbers for nothing would be felt.
Limits intervalOfFunctions(const Panel& panel, const PanelReading& reading) {
    const auto hasColumnsOnly = [](const Drawn& drawn) {
        return std::ranges::all_of(drawn.parts,
                                   [](const auto& part) { return std::holds_alternative<Columns>(*part.source); });
    };
    if (std::ranges::all_of(reading.drawn, hasColumnsOnly)) return {};
    Extents intervals;
    intervals.xScale = reading.xScale;
    intervals.yScale = reading.yScale;
    for (const Drawn& drawn : reading.drawn) {
        addExtents(*drawn.parts[0].source, {}, intervals);
        if (drawn.kind->reach) drawn.kind->reach(drawn, intervals);
    }
    return panelLimits(panel, intervals, 6).x;
}

} // namespace

PanelLook lookAtPanel(const Panel& panel, const PanelReading& reading, double operations, const std::stop_token& stop) {
    PanelLook look;
    // A part of what the figure may take, shared by all that is drawn. No patience is needed for a look.
    const double share = std::min(operations / 10, usualOperations) /
                         static_cast<double>(std::max<std::size_t>(1, reading.drawn.size()));
    look.extents.xScale = reading.xScale;
    look.extents.yScale = reading.yScale;
    const Limits across = intervalOfFunctions(panel, reading);
    std::array<std::vector<double>, 3> inSpace;
    std::vector<std::pair<std::size_t, std::vector<CoarseLook>>> partsLookedAt; // of what has an inside
    for (const Drawn& drawn : reading.drawn) {
        std::vector<CoarseLook> parts;
        for (std::size_t i = 0; i < drawn.parts.size(); ++i) {
            CoarseLook coarse = lookAt(*drawn.parts[i].source, reading.xScale, across, share, stop);
            addExtents(*drawn.parts[i].source, coarse, look.extents);
            for (std::size_t k = 0; k < 3; ++k)
                inSpace[k].insert(inSpace[k].end(), coarse.space[k].begin(), coarse.space[k].end());
            parts.push_back(std::move(coarse));
        }
        look.coarse.push_back(parts[0]);
        if (reading.format.legendAvoidsAreas && drawn.kind->inside)
            partsLookedAt.emplace_back(look.coarse.size() - 1, std::move(parts));
        if (drawn.kind->reach) drawn.kind->reach(drawn, look.extents);
    }
    const PanelLimits limits = panelLimits(panel, look.extents, 6);
    for (std::size_t i = 0; i < reading.drawn.size(); ++i) {
        const Drawn& drawn = reading.drawn[i];
        if (!drawn.kind->trace) continue;
        look.coarse[i] = {};
        drawn.kind->trace(drawn, limits.x, limits.y, look.coarse[i].x, look.coarse[i].y);
    }
    for (const auto& [index, parts] : partsLookedAt)
        reading.drawn[index].kind->inside(reading.drawn[index], parts, limits.y, look.coarse[index]);
    if (reading.shape == PanelShape::Space) {
        look.space.emplace();
        const Axis* const axes[] = {&panel.x, &panel.y, &panel.z};
        for (std::size_t k = 0; k < 3; ++k) {
            const ScaleKind scale = axes[k]->scale.value_or(ScaleKind::Linear);
            const Limits usual = scale == ScaleKind::Logarithmic ? Limits{0.1, 1} : Limits{0, 1};
            // A surface over a floor shows all of its intervals, and no more.
            const std::optional<Limits>& floor = k == 0 ? look.extents.across : look.extents.up;
            Limits shown = k < 2 && floor ? forScale(*floor, scale) : usual;
            if (k < 2 && floor) {
                for (const double value : inSpace[k]) {
                    if (std::isfinite(value) && (scale == ScaleKind::Linear || value > 0))
                        shown = {std::min(shown.low, value), std::max(shown.high, value)};
                }
            } else {
                shown = fromValues(std::move(inSpace[k]), scale, 4).value_or(usual);
            }
            (*look.space)[k] = withSet(shown, axes[k]->limits, scale);
        }
    }
    const auto isField = [](const Drawn& drawn) { return fieldOf(drawn) != nullptr && !drawn.caseValue; };
    std::optional<Limits> members; // all of them, however far apart
    for (const Drawn& drawn : reading.drawn) {
        if (drawn.caseValue && std::isfinite(*drawn.caseValue) &&
            (*drawn.caseValue > 0 || colourScaleOf(panel) == ScaleKind::Linear))
            Extents::hold(members, {*drawn.caseValue, *drawn.caseValue});
    }
    if (!members && std::ranges::none_of(reading.drawn, isField)) return look;
    const ScaleKind scale = colourScaleOf(panel);
    if (panel.colour.limits.both()) {
        look.colours = forScale({*panel.colour.limits.low, *panel.colour.limits.high}, scale);
        return look;
    }
    std::vector<double> values;
    for (const Drawn& drawn : reading.drawn) {
        if (!isField(drawn)) continue;
        const auto some = coarseValues(*fieldOf(drawn), limits.xScale, limits.x, limits.yScale, limits.y, share, stop);
        values.insert(values.end(), some.begin(), some.end());
    }
    const bool all = word(panel.colour.settings, rangeSetting) == static_cast<std::size_t>(ColourRange::All);
    look.colours = withSet(fromValues(std::move(values), scale, 6, members, all).value_or(Limits{0.1, 1}),
                           panel.colour.limits, scale);
    return look;
}

PanelLimits panelLimits(const Panel& panel, const Extents& extents, double yTickCount) {
    PanelLimits limits{{0, 1}, {0, 1}, extents.xScale, extents.yScale};
    const auto automatic = [yTickCount](std::optional<Limits> decided, const std::optional<Limits>& all,
                                        const std::vector<double>& values, ScaleKind scale) {
        if (!decided) { // all coordinates are values
            const Limits usual = scale == ScaleKind::Logarithmic ? Limits{0.1, 1} : Limits{0, 1};
            return fromValues(values, scale, yTickCount, all).value_or(usual);
        }
        decided = forScale(*decided, scale);
        if (all) Extents::hold(decided, *all);
        return *decided;
    };
    if (!panel.x.limits.both()) limits.x = automatic(extents.across, extents.allX, extents.xs, extents.xScale);
    if (!panel.y.limits.both()) limits.y = automatic(extents.up, extents.allY, extents.ys, extents.yScale);
    limits.x = withSet(limits.x, panel.x.limits, extents.xScale);
    limits.y = withSet(limits.y, panel.y.limits, extents.yScale);
    return limits;
}

PanelLimits withEqualScales(PanelLimits limits, const Panel& panel, double width, double height) {
    if (limits.xScale != limits.yScale) return limits;
    const bool logarithmic = limits.xScale == ScaleKind::Logarithmic;
    const auto extent = [&](const Limits& l) { return logarithmic ? std::log(l.high / l.low) : l.high - l.low; };
    const double perX = extent(limits.x) / width, perY = extent(limits.y) / height;
    // About the middle, or away from an end that was set.
    const auto widen = [&](Limits& l, double by, const AxisLimits& set) {
        if (set.both()) return;
        if (logarithmic) {
            const double middle = std::sqrt(l.low) * std::sqrt(l.high), half = std::pow(l.high / l.low, by / 2);
            const Limits wide{middle / half, middle * half};
            l = {set.low    ? l.low
                 : set.high ? l.high / (half * half)
                            : wide.low,
                 set.high  ? l.high
                 : set.low ? l.low * (half * half)
                           : wide.high};
        } else {
            const double middle = l.low / 2 + l.high / 2, half = (l.high - l.low) / 2 * by;
            const Limits wide{middle - half, middle + half};
            l = {set.low    ? l.low
                 : set.high ? l.high - 2 * half
                            : wide.low,
                 set.high  ? l.high
                 : set.low ? l.low + 2 * half
                           : wide.high};
        }
    };
    if (perX < perY) widen(limits.x, perY / perX, panel.x.limits);
    if (perY < perX) widen(limits.y, perX / perY, panel.y.limits);
    return limits;
}

} // namespace coulter
