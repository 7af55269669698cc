#include "drawing/colour_maps.h"

#include "drawing/colours.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {

extern const OkLab fenPoints[colourMapPoints], frostPoints[colourMapPoints], heathPoints[colourMapPoints],
    mossPoints[colourMapPoints], strawPoints[colourMapPoints], emberPoints[colourMapPoints],
    thawPoints[colourMapPoints], hedgePoints[colourMapPoints], furrowPoints[colourMapPoints],
    seasonsPoints[colourMapPoints], roundsPoints[colourMapPoints], ashPoints[colourMapPoints];

std::span<const ColourMap> colourMaps() {
    // Twelve sorts, each apart from all others by lightness or by hue.
    static const auto strata = [] {
        std::array<OkLab, 12> colours{};
        for (std::size_t i = 0; i < colours.size(); ++i) {
            const double lightness = std::array{0.40, 0.62, 0.80}[i % 3];
            colours[i] = fromHue(lightness, std::array{0.085, 0.11, 0.075}[i % 3], 30 + 30.0 * static_cast<double>(i));
        }
        return colours;
    }();
    static const auto sowing = [] {
        std::array<OkLab, plotColourCount> colours{};
        for (std::size_t i = 0; i < colours.size(); ++i) colours[i] = toOkLab(plotColour(i));
        return colours;
    }();
    using enum MapOrder;
    static const ColourMap maps[] = {
        {"loam", "dry sand over ochre and clay to wet peat", Sequential, {}},
        {"fen", "pale blush over sage to dark water", Sequential, fenPoints},
        {"frost", "pale straw over ice and violet to dark wine", Sequential, frostPoints},
        {"heath", "pale mint over dusk blue and heather to dark bark", Sequential, heathPoints},
        {"moss", "pale sky over moss to peat", Sequential, mossPoints},
        {"straw", "dark wine over earth and green to pale straw", Sequential, strawPoints},
        {"ember", "dark fir over olive and rust to pale lilac", Sequential, emberPoints},
        {"ash", "pale to dark grey", Sequential, ashPoints},
        {"thaw", "dark blue over water to pale, over apricot to wine", Diverging, thawPoints},
        {"hedge", "dark green over young leaves to pale, over lilac to violet", Diverging, hedgePoints},
        {"furrow", "dark soil over rose to pale, over water to dark green", Diverging, furrowPoints},
        {"seasons", "straw, pond, night, rose, and straw again", Cyclic, seasonsPoints},
        {"rounds", "all hues once round, light and dark four times", Cyclic, roundsPoints},
        {"strata", "twelve sorts", Categorical, strata},
        {"sowing", "the colours of plots, one after the other", Categorical, sowing},
    };
    return maps;
}

const ColourMap& colourMapNamed(std::string_view name) {
    const auto maps = colourMaps();
    const auto at = std::ranges::find_if(maps, [&](const ColourMap& map) { return name == map.name; });
    return at == maps.end() ? maps.front() : *at;
}

Colour colourAt(const ColourMap& map, double place) {
    place = place > 0 ? std::min(place, 1.0) : 0;
    if (map.points.empty()) return loam(place);
    const auto n = static_cast<double>(map.points.size());
    if (map.order == MapOrder::Categorical)
        return toColour(map.points[static_cast<std::size_t>(std::min(place * n, n - 1))]);
    const double at = place * (n - 1);
    const auto i = static_cast<std::size_t>(std::min(at, n - 2));
    const OkLab &a = map.points[i], &b = map.points[i + 1];
    const double part = at - static_cast<double>(i);
    return toColour(
        {a.lightness + part * (b.lightness - a.lightness), a.a + part * (b.a - a.a), a.b + part * (b.b - a.b)});
}

Colour ColourRun::at(double place) const {
    place = std::clamp(place, 0.0, 1.0);
    if (turned) place = 1 - place;
    return colourAt(map ? *map : colourMaps().front(), from + place * (to - from));
}

Colour ColourRun::ofStep(std::size_t step, const AxisMap& scale) const {
    const double low = step == 0 ? scale.low : std::max(steps[step - 1], scale.low),
                 high = step == steps.size() ? scale.high : std::min(steps[step], scale.high);
    return at((scale.toSheet(low) + scale.toSheet(std::max(low, high))) / 2 / scale.length);
}

std::optional<Colour> ColourRun::of(double value, const AxisMap& scale) const {
    if (std::isnan(value)) return undefined;
    if (under && value < scale.low) return under;
    if (over && value > scale.high) return over;
    if (!steps.empty())
        return ofStep(static_cast<std::size_t>(std::ranges::upper_bound(steps, value) - steps.begin()), scale);
    const double place = scale.toSheet(value) / scale.length;
    return at(std::isnan(place) ? 0 : place);
}

} // namespace coulter
