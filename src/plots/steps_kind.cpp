// Values that hold for a while, then change at once.
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/telling.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr const char* holdWords[] = {"from its place on", "up to its place", "around its place"};
const Setting holdsSetting{.key = "holds",
                           .label = "holds",
                           .meaning = "where each value holds",
                           .type = SettingType::Word,
                           .usual = std::string("from its place on"),
                           .words = holdWords};

constexpr const char* riserWords[] = {"drawn", "left out"};
const Setting risersSetting{.key = "risers",
                            .label = "risers",
                            .meaning = "the upright lines from one value to the next",
                            .type = SettingType::Word,
                            .usual = std::string("drawn"),
                            .words = riserWords};

const Setting* const settings[] = {&colourSetting, &widthSetting,  &patternSetting, &dashesSetting,
                                   &holdsSetting,  &risersSetting, &runSetting,     &opacitySetting};

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    return readPairs(context, plot, plotted, path);
}

/// Each value with where it holds, on the sheet.
struct Step {
    double from = 0, to = 0, y = 0; // mm
    std::size_t row = 0;
};

/// In the order of their places; the outermost hold as long as their neighbour does.
std::vector<Step> stepsOf(const Drawn& drawn, const Frame& frame) {
    const Columns& columns = *columnsOf(drawn);
    const std::vector<Point> places = onSheet(frame, *columns.numbers[0], *columns.numbers[1]);
    std::vector<std::size_t> order;
    order.reserve(places.size());
    for (std::size_t i = 0; i < places.size(); ++i) {
        if (std::isfinite(places[i].x)) order.push_back(i);
    }
    const auto placeOf = [&](std::size_t i) { return (*columns.numbers[0])[i]; };
    if (!std::ranges::is_sorted(order, {}, placeOf)) std::ranges::stable_sort(order, {}, placeOf);
    const auto at = [&](std::size_t k) { return places[order[k]].x; };
    std::vector<Step> steps;
    const std::size_t n = order.size();
    steps.reserve(n);
    const auto before = [&](std::size_t k) { return k > 0 ? at(k - 1) : n > 1 ? 2 * at(0) - at(1) : at(0); };
    const auto after = [&](std::size_t k) { return k + 1 < n ? at(k + 1) : n > 1 ? 2 * at(k) - at(k - 1) : at(k); };
    const std::size_t holds = word(drawn.settings, holdsSetting);
    for (std::size_t k = 0; k < n; ++k) {
        const double y = places[order[k]].y;
        switch (holds) {
        case 0: steps.push_back({at(k), after(k), y, order[k]}); break;
        case 1: steps.push_back({before(k), at(k), y, order[k]}); break;
        default: steps.push_back({(before(k) + at(k)) / 2, (at(k) + after(k)) / 2, y, order[k]});
        }
    }
    return steps;
}

void reach(const Drawn& drawn, Extents& extents) {
    const Columns& columns = *columnsOf(drawn);
    std::vector<double> places = *columns.numbers[0];
    std::erase_if(places, [](double place) { return !std::isfinite(place); });
    std::ranges::sort(places);
    if (places.size() > 1) { // the last value holds beyond the last place
        const std::size_t n = places.size();
        const bool logarithmic = extents.xScale == ScaleKind::Logarithmic;
        const auto beyond = [&](double end, double inner, double share) {
            return logarithmic ? end * std::pow(end / inner, share) : end + share * (end - inner);
        };
        const std::size_t holds = word(drawn.settings, holdsSetting);
        const double first = holds == 0 ? 0 : holds == 1 ? 1 : 0.5, last = holds == 0 ? 1 : holds == 1 ? 0 : 0.5;
        const double low = beyond(places[0], places[1], first), high = beyond(places[n - 1], places[n - 2], last);
        if (std::isfinite(low) && std::isfinite(high)) Extents::hold(extents.across, {low, high});
    }
    extents.holdAll(true, places);
    extents.holdAll(false, *columns.numbers[1]);
}

void trace(const Drawn& drawn, const Limits& x, const Limits&, std::vector<double>& xs, std::vector<double>& ys) {
    Frame frame; // so many mm wide, to have the steps in coordinates
    frame.rect = {0, 0, 200, 100};
    frame.map = {{ScaleKind::Linear, x.low, x.high, 200}, {ScaleKind::Linear, 0, 1, 100}};
    for (const Step& step : stepsOf(drawn, frame)) {
        for (double mm = std::max(0.0, step.from); mm <= std::min(200.0, step.to); ++mm) {
            xs.push_back(frame.xAt(mm));
            ys.push_back((*columnsOf(drawn)->numbers[1])[step.row]);
        }
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    Polylines lines;
    const bool risers = word(drawn.settings, risersSetting) == 0;
    bool broken = true;
    const std::vector<Step> steps = stepsOf(drawn, frame);
    for (const Step& step : steps) {
        if (!std::isfinite(step.y)) {
            broken = true;
            continue;
        }
        if (broken || !risers) {
            lines.emplace_back();
            if (risers && lines.size() == 1) lines[0].reserve(2 * steps.size());
        }
        broken = false;
        lines.back().push_back({step.from, step.y});
        lines.back().push_back({step.to, step.y});
    }
    Pen pen = penOf(drawn);
    pen.roundEnds = false;
    canvas.stroke(lines, pen);
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    std::optional<Touched> told;
    for (const Step& step : stepsOf(drawn, frame)) {
        const auto [from, to] = std::minmax(step.from, step.to);
        const Point at{std::clamp(mm.x, from, to), step.y};
        const double away = std::hypot(at.x - mm.x, at.y - mm.y);
        if (!(away < reach)) continue;
        reach = away;
        told = Touched{rowWords(*columnsOf(drawn), step.row), at, away};
    }
    return told;
}

} // namespace

extern const PlotKind stepsKind;
const PlotKind stepsKind{.name = "steps",
                         .meaning = "values that hold for a while and change at once: columns, or a formula on a grid",
                         .runs = Runs::Along,
                         .layer = Layer::Line,
                         .settings = settings,
                         .takesColumns = true,
                         .fits = arePairs,
                         .read = read,
                         .reach = reach,
                         .trace = trace,
                         .draw = draw,
                         .swatch = lineSwatch,
                         .tell = tell};

} // namespace coulter
