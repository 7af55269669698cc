#include "plots/level_remarks.h"

#include "plots/levels.h"
#include "plots/telling.h"
#include "sampling/field_range.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double share = 1e-4; // of the range, to which it is wanted

/// What is known of a field over the rectangle of its samples.
FieldRange rangeOf(const Drawn& drawn, const FieldSamples& samples) {
    Bounds x{HUGE_VAL, -HUGE_VAL}, y = x, known = x;
    for (std::size_t i = 0; i < samples.pointCount(); ++i) {
        x = {std::min(x.low, samples.xAt(i)), std::max(x.high, samples.xAt(i))};
        y = {std::min(y.low, samples.yAt(i)), std::max(y.high, samples.yAt(i))};
        const double value = samples.sizeAt(i);
        if (!std::isnan(value)) known = {std::min(known.low, value), std::max(known.high, value)};
    }
    FieldRange range;
    range.least.high = known.low;
    range.greatest.low = known.high;
    const Field& field = *fieldOf(drawn);
    if (field.program->outputs.size() == 1 && x.low <= x.high && known.low <= known.high) {
        JetEvaluator<2> jets(*field.program);
        FieldRangeEffort effort{.tolerance = share * (known.high - known.low), .known = known};
        effort.mostEvaluations = static_cast<std::size_t>(std::clamp(2e8 / costOf(*field.program), 1.0, 10'000.0));
        range = rangeOver(jets, {x, y}, effort);
    }
    return range;
}

} // namespace

std::string remarkOnLevels(const Drawn& drawn, const Frame& frame) {
    return levelLinesOf(drawn, frame)->lines.empty() ? remarkOnNothing(drawn, levelsOf(drawn, frame.colour)) : "";
}

std::string remarkOnNothing(const Drawn& drawn, const std::vector<double>& levels) {
    const FieldRange range = rangeOf(drawn, *fieldSamplesOf(drawn));
    const Bounds found{range.least.high, range.greatest.low}, all{range.least.low, range.greatest.high};
    if (found.low > found.high) return drawn.of + " is nowhere defined in view.";
    const double rounding = 1e-12 * std::max(std::abs(found.low), std::abs(found.high));
    if (found.low == found.high && all.high - all.low <= rounding)
        return drawn.of + " is the same all over in view, " + printedNumber(found.low, 4) + ", and has no lines.";
    std::string wanted;
    constexpr std::size_t mostNamed = 3;
    for (std::size_t i = 0; i < std::min(levels.size(), mostNamed); ++i)
        wanted += (i > 0 ? " or " : "") + printedNumber(levels[i], 4);
    if (levels.size() > mostNamed) wanted += " or another of them";
    const auto isPassed = [&](double level) { return level > found.low && level < found.high; };
    const auto peak = [&](const std::optional<FieldRange::Place>& place) {
        return "it is " + printedNumber(place->value, 4) + " at (" + printedNumber(place->x, 4) + ", " +
               printedNumber(place->y, 4) + ")";
    };
    if (std::ranges::any_of(levels, isPassed) && (range.highest || range.lowest))
        return drawn.of + " has such levels only where it is narrower than what is drawn: " +
               peak(range.highest ? range.highest : range.lowest) + ".";
    if (std::ranges::any_of(levels, [&](double level) { return level >= all.low && level <= all.high; }))
        return drawn.of + " was nowhere found to be " + wanted + "; its values in view run at least from " +
               printedNumber(found.low, 4) + " to " + printedNumber(found.high, 4) + ".";
    return drawn.of + " has none of these levels: nowhere in view is it " + wanted + "; its values there run from " +
           printedNumber(found.low, 4) + " to " + printedNumber(found.high, 4) + ".";
}

} // namespace coulter
