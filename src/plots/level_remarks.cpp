#include "plots/level_remarks.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "plots/levels.h"
#include "plots/telling.h"
#include "sampling/field_range.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

constexpr double share = 1e-4; // of the range, to which it is wanted

struct Known {
    Bounds sampled{HUGE_VAL, -HUGE_VAL}; ///< the values that were looked at; low > high: none
    std::optional<double> at;            ///< one of the levels that was met exactly
    FieldRange range;                    ///< over all that is in view
    bool settled = false;                ///< both its ends, to the share
};

Known knownOf(const Drawn& drawn, const Frame& frame, const std::vector<double>& levels) {
    Known known;
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    for (std::size_t i = 0; i < samples.pointCount(); ++i) {
        const double value = samples.sizeAt(i);
        if (std::isnan(value)) continue;
        known.sampled = {std::min(known.sampled.low, value), std::max(known.sampled.high, value)};
        if (std::ranges::find(levels, value) != levels.end()) known.at = value;
    }
    const Field& field = *fieldOf(drawn);
    const std::array<const AxisMap*, 2> axes{&frame.map.x, &frame.map.y};
    std::array<Bounds, 2> view;
    for (std::size_t k = 0; k < 2; ++k) {
        view[k] = {std::max(field.intervals[k].low, std::min(axes[k]->low, axes[k]->high)),
                   std::min(field.intervals[k].high, std::max(axes[k]->low, axes[k]->high))};
        if (!(view[k].low < view[k].high)) return known;
    }
    if (field.program->outputs.size() > 1) return known;
    const double across = std::max(0.0, known.sampled.high - known.sampled.low);
    JetEvaluator<2> jets(*field.program);
    FieldRangeEffort effort{.tolerance = share * across, .known = known.sampled};
    effort.mostEvaluations = static_cast<std::size_t>(std::clamp(2e8 / costOf(*field.program), 1.0, 10'000.0));
    known.range = rangeOver(jets, view, effort);
    const double allowed = effort.tolerance + 1e-12 * std::max(magnitude(known.sampled), across);
    known.settled = width(known.range.least) <= allowed && width(known.range.greatest) <= allowed;
    return known;
}

std::string listOf(const std::vector<double>& levels) {
    constexpr std::size_t mostNamed = 3;
    std::string list;
    for (std::size_t i = 0; i < std::min(levels.size(), mostNamed); ++i)
        list += (i > 0 ? " or " : "") + printedNumber(levels[i], 4);
    if (levels.size() > mostNamed) list += " or another of them";
    return list;
}

} // namespace

std::string remarkOnLevels(const Drawn& drawn, const Frame& frame) {
    if (!levelLinesOf(drawn, frame)->lines.empty()) return "";
    return remarkOnNothing(drawn, frame, levelsOf(drawn, frame.colour));
}

std::string remarkOnNothing(const Drawn& drawn, const Frame& frame, const std::vector<double>& levels) {
    const Known known = knownOf(drawn, frame, levels);
    const Bounds& sampled = known.sampled;
    const FieldRange& range = known.range;
    if (range.isUndefined) return drawn.of + " is nowhere defined in view.";
    if (sampled.low > sampled.high) return drawn.of + " was nowhere in view found to be defined.";
    // What was found between the points, if it reaches one of the levels.
    for (const auto& place : {range.highest, range.lowest}) {
        const auto isReached = [&](double level) {
            return (level > sampled.high && level <= place->value) || (level < sampled.low && level >= place->value);
        };
        if (place && std::ranges::any_of(levels, isReached))
            return drawn.of + " goes beyond the points that were looked at, so that lines may be missing: it is " +
                   printedNumber(place->value, 4) + " at (" + printedNumber(place->x, 4) + ", " +
                   printedNumber(place->y, 4) + ").";
    }
    const Bounds found{range.least.high, range.greatest.low};
    if (known.settled && found.low == found.high)
        return drawn.of + " is the same all over in view, " + printedNumber(found.low, 4) + ", and has no lines.";
    if (known.at)
        return drawn.of + " is exactly " + printedNumber(*known.at, 4) +
               " in places in view, and nowhere passes it, so that it has no line there.";
    const bool isProven = std::ranges::none_of(
        levels, [&](double level) { return level >= range.least.low && level <= range.greatest.high; });
    const std::string wanted = listOf(levels), low = printedNumber(found.low, 4), high = printedNumber(found.high, 4);
    if (!isProven)
        return drawn.of + " was nowhere found to be " + wanted + "; its values in view run at least from " + low +
               " to " + high + ".";
    if (!known.settled)
        return drawn.of + " has none of these levels: nowhere in view is it " + wanted +
               "; its values there run at least from " + low + " to " + high + ".";
    return drawn.of + " has none of these levels: nowhere in view is it " + wanted + "; its values there run from " +
           low + " to " + high + ".";
}

} // namespace coulter
