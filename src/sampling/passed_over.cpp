#include "sampling/passed_over.h"

#include <algorithm>
#include <cmath>
#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// Operations of arithmetic, about, and boxes: of all tiles, and of one.
constexpr double mostOperations = 4e8;
constexpr double seenShare = 0.02; // of what is shown
constexpr std::size_t mostBoxes = 150'000, fewestOfTile = 16, mostOfTile = 3000;

/// Whether anything is known of the field at single places, off all symmetries: else halving boxes ends nowhere.
bool hasBounds(JetEvaluator<2>& jets, const std::vector<SampledTile>& tiles) {
    const std::size_t step = std::max<std::size_t>(1, tiles.size() / 16);
    for (std::size_t i = 0; i < tiles.size(); i += step) {
        const auto within = [](const Bounds& side, double share) {
            const double at = side.low + share * (side.high - side.low);
            return Bounds{at, at};
        };
        const Enclosure& value = jets({within(tiles[i].box[0], 0.37), within(tiles[i].box[1], 0.61)})[0].value;
        if (value.known && !value.estimated) return true;
    }
    return false;
}

} // namespace

std::vector<FieldRange::Place> passedOver(const Program& f, const std::vector<SampledTile>& tiles,
                                          const ToldApart& told, const std::stop_token& stop) {
    const double noticed = told.noticed;
    const Bounds& worth = told.worth;
    const double boxes = std::min(static_cast<double>(mostBoxes), mostOperations / std::max(1.0, costOf(f)));
    const auto ofTile = static_cast<std::size_t>(boxes / static_cast<double>(std::max<std::size_t>(1, tiles.size())));
    if (ofTile < fewestOfTile) return {};
    FieldRangeEffort effort{.tolerance = noticed, .worth = worth, .stop = stop};
    effort.mostEvaluations = std::min(ofTile, mostOfTile);
    tbb::enumerable_thread_specific<JetEvaluator<2>> jets([&] { return JetEvaluator<2>(f); });
    if (!hasBounds(jets.local(), tiles)) return {};
    std::vector<FieldRange> ranges(tiles.size()), beyondLevels(tiles.size());
    tbb::parallel_for(std::size_t{0}, tiles.size(), [&](std::size_t i) {
        if (stop.stop_requested()) return;
        FieldRangeEffort here = effort;
        here.known = tiles[i].known;
        ranges[i] = rangeOver(jets.local(), tiles[i].box, here);
        if (told.levels.empty() || here.known.low > here.known.high) return;
        // The first value beyond a level is as good as any: nothing else is looked for.
        const Bounds beside = told.levelsBeside(here.known);
        if (beside.low == -HUGE_VAL && beside.high == HUGE_VAL) return;
        here.known = here.worth = beside;
        here.tolerance = 0;
        beyondLevels[i] = rangeOver(jets.local(), tiles[i].box, here);
    });
    const auto shown = [&](double value) { return std::clamp(value, worth.low, worth.high); };
    std::vector<FieldRange::Place> places;
    for (std::size_t i = 0; i < tiles.size(); ++i) {
        const auto& [highest, lowest] = std::pair{ranges[i].highest, ranges[i].lowest};
        const Bounds& known = tiles[i].known;
        if (highest && (known.low > known.high || shown(highest->value) > shown(known.high) + noticed))
            places.push_back(*highest);
        if (lowest && (known.low > known.high || shown(lowest->value) < shown(known.low) - noticed))
            places.push_back(*lowest);
        for (const auto& beyond : {beyondLevels[i].highest, beyondLevels[i].lowest}) {
            if (beyond) places.push_back(*beyond);
        }
    }
    return places;
}

Bounds ToldApart::levelsBeside(const Bounds& known) const {
    const auto below = std::ranges::lower_bound(levels, known.low),
               above = std::ranges::upper_bound(levels, known.high);
    return {below == levels.begin() ? -HUGE_VAL : *std::prev(below), above == levels.end() ? HUGE_VAL : *above};
}

HiddenPeaks::HiddenPeaks(const Bounds& shown, const std::vector<double>& levels, bool followsLevels)
    : told_{seenShare * (shown.high - shown.low), shown} {
    Bounds& worth = told_.worth;
    for (const double level : levels) worth = {std::min(worth.low, level), std::max(worth.high, level)};
    worth = {worth.low - told_.noticed, worth.high + told_.noticed};
    if (followsLevels) told_.levels = levels;
}

bool HiddenPeaks::hiddenIn(const std::array<FieldRange::Place, 3>& corner) const {
    const FieldRange::Place &a = corner[0], &b = corner[1], &c = corner[2];
    const auto side = [](const FieldRange::Place& from, const FieldRange::Place& to, const FieldRange::Place& p) {
        return (to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x);
    };
    const auto shown = [&](double value) { return std::clamp(value, told_.worth.low, told_.worth.high); };
    const auto levelsBelow = [&](double value) {
        return std::ranges::upper_bound(told_.levels, value) - told_.levels.begin();
    };
    return std::ranges::any_of(peaks_, [&](const FieldRange::Place& peak) {
        const double ofA = side(b, c, peak), ofB = side(c, a, peak), ofC = side(a, b, peak);
        if (ofA < 0 || ofB < 0 || ofC < 0) return false;
        const double plane = (ofA * a.value + ofB * b.value + ofC * c.value) / (ofA + ofB + ofC);
        return !(std::abs(shown(peak.value) - shown(plane)) <= told_.noticed) ||
               levelsBelow(peak.value) != levelsBelow(plane);
    });
}

} // namespace coulter
