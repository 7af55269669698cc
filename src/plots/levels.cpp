#include "plots/levels.h"

#include "drawing/nearness.h"
#include "drawing/ticks.h"
#include "formula/compile/columns.h"
#include "plots/column_source.h"
#include "plots/field_source.h"
#include "plots/telling.h"
#include "sampling/field.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <list>
#include <mutex>

namespace coulter {

const Setting levelsSetting{.key = "levels",
                            .label = "levels",
                            .meaning = "a list such as {0, 0.5, 1}; empty: round values",
                            .type = SettingType::Formula,
                            .usual = std::string(),
                            .isStyle = false};

const Setting levelStepSetting{.key = "level step",
                               .label = "level step",
                               .meaning = "between levels; 0: automatic",
                               .type = SettingType::Number,
                               .usual = 0.0,
                               .least = 0,
                               .greatest = 1e300,
                               .step = 0.1,
                               .isStyle = false,
                               .rare = true};

const Setting levelCountSetting{.key = "level count",
                                .label = "level count",
                                .meaning = "so many levels, evenly on the scale of colours; 0: automatic",
                                .type = SettingType::Number,
                                .usual = 0.0,
                                .least = 0,
                                .greatest = mostLevels,
                                .step = 1,
                                .isStyle = false,
                                .rare = true};

namespace {

constexpr double usualLevels = 10;

/// What is wrong with levels that were given; none if nothing is.
std::optional<Problem> problemOf(const std::vector<double>& levels) {
    const auto about = [](std::string sentence, std::string way) {
        return Problem{-1, 1, 1, "“levels”: " + std::move(sentence), std::move(way)};
    };
    if (levels.size() > mostLevels)
        return about("There are " + std::to_string(levels.size()) + " levels; at most " + std::to_string(mostLevels) +
                         " are drawn.",
                     "ask for fewer");
    for (std::size_t i = 0; i < levels.size(); ++i) {
        if (!std::isfinite(levels[i]))
            return about("Level " + std::to_string(i + 1) + " is not a number.", "leave it out of the list");
        if (i > 0 && !(levels[i] > levels[i - 1]))
            return about("Level " + std::to_string(i + 1) + ", " + printedNumber(levels[i], 6) +
                             ", is not above the one before it, " + printedNumber(levels[i - 1], 6) + ".",
                         "list levels from the lowest to the highest, each once");
    }
    return std::nullopt;
}

} // namespace

Reading readLevels(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readField(context, plot, plotted, path);
    const std::string given = text(plot.settings, levelsSetting);
    if (given.empty() || reading.drawn.empty()) return reading;
    const ColumnAnswer found = columnsOf(context.page, given);
    std::optional<Problem> problem;
    if (found.columns.size() != 1) {
        problem = found.problems.empty()
                      ? Problem{-1, 1, 1, "“levels”: This is no list of numbers.", "write one such as {0, 0.5, 1}"}
                      : found.problems.front();
        problem->line = -1;
        if (!found.problems.empty()) problem->sentence = "“levels”: " + problem->sentence;
    } else {
        problem = problemOf(*found.columns[0]);
    }
    if (problem) {
        reading.problems = {*problem};
        reading.drawn.clear();
        return reading;
    }
    if (const Field* field = fieldOf(reading.drawn[0]); field && context.format.findsPeaks) {
        Field levelled = *field;
        levelled.levels = *found.columns[0];
        reading.drawn[0].parts[0].source = std::make_shared<const Source>(std::move(levelled));
    }
    addColumns(reading.drawn[0], {"level"}, {found.columns[0]}, {-1, -1});
    return reading;
}

std::vector<double> levelsOf(const Drawn& drawn, const AxisMap& colours) {
    if (const Columns* given = columnsOf(drawn, 1)) return *given->numbers[0];
    std::vector<double> levels;
    const auto add = [&](double level) {
        if (level > colours.low && level < colours.high && levels.size() < mostLevels) levels.push_back(level);
    };
    if (const double step = number(drawn.settings, levelStepSetting); step > 0) {
        const double first = std::ceil(colours.low / step);
        for (double i = 0; i < mostLevels + 2 && (first + i) * step < colours.high; ++i) add((first + i) * step);
        return levels;
    }
    if (const double count = number(drawn.settings, levelCountSetting); count > 0) {
        AxisMap even = colours;
        even.length = count + 1;
        for (double i = 1; i <= count; ++i) add(even.fromSheet(i));
        return levels;
    }
    const Ticks ticks = colours.kind == ScaleKind::Logarithmic
                            ? logarithmicTicks(colours.low, colours.high, usualLevels)
                            : linearTicks(colours.low, colours.high, usualLevels);
    for (const double place : ticks.places) add(place);
    return levels;
}

namespace {

/// @param perLevel  evaluations for each level beyond what sampling took
std::shared_ptr<const LevelLines> followed(const Drawn& drawn, const Frame& frame, std::vector<double> levels,
                                           std::size_t perLevel = 0) {
    struct KnownLines {
        std::weak_ptr<const Samples> samples;
        std::vector<double> levels;
        PanelMap map;
        double tolerance = 0;
        std::shared_ptr<const LevelLines> lines;
    };
    static std::mutex guard;
    static std::list<KnownLines> known; // the last ones first
    constexpr std::size_t most = 12;
    const std::shared_ptr<const Samples>& samples = drawn.parts[0].samples;
    {
        const std::scoped_lock lock(guard);
        for (auto at = known.begin(); at != known.end(); ++at) {
            if (at->samples.lock() != samples || at->levels != levels || at->map != frame.map ||
                at->tolerance != frame.tolerance)
                continue;
            known.splice(known.begin(), known, at);
            return known.front().lines;
        }
    }
    const FieldSamples& field = *fieldSamplesOf(drawn);
    IsolineEffort effort;
    effort.millimetres = frame.tolerance;
    // No more than sampling itself took, but enough for a coarse grid.
    effort.mostEvaluations =
        std::min<std::size_t>(2'000'000, 4 * field.evaluations + 50'000) + perLevel * levels.size();
    auto lines = std::make_shared<const LevelLines>(
        followLevels(field, levels, field.tooDear ? nullptr : fieldOf(drawn)->program.get(), frame.map, effort, true));
    const std::scoped_lock lock(guard);
    known.push_front({samples, std::move(levels), frame.map, frame.tolerance, lines});
    if (known.size() > most) known.pop_back();
    return lines;
}

} // namespace

std::shared_ptr<const LevelLines> levelLinesOf(const Drawn& drawn, const Frame& frame) {
    return followed(drawn, frame, levelsOf(drawn, frame.colour));
}
std::shared_ptr<const LevelLines> contentLinesOf(const Drawn& drawn, const Frame& frame) {
    constexpr std::size_t leastOfLevel = 20'000, mostOfLevel = 400'000, mostOfAll = 8'000'000;
    Frame fine = frame;
    fine.tolerance /= 1000;
    std::vector<double> levels = levelsOf(drawn, frame.colour);
    const std::size_t perLevel =
        std::clamp(mostOfAll / std::max<std::size_t>(1, levels.size()), leastOfLevel, mostOfLevel);
    return followed(drawn, fine, std::move(levels), perLevel);
}
std::shared_ptr<const LevelLines> zeroLinesOf(const Drawn& drawn, const Frame& frame) {
    return followed(drawn, frame, {0});
}

void traceZero(const Drawn& drawn, const Limits& x, const Limits& y, bool isArea, std::vector<double>& xs,
               std::vector<double>& ys) {
    const Field& field = *fieldOf(drawn);
    constexpr int parts = 40;
    std::array<std::vector<double>, 2> points;
    for (std::size_t k = 0; k < 2; ++k) {
        const Limits& limits = k == 0 ? x : y;
        const double low = std::max(limits.low, field.intervals[k].low),
                     high = std::min(limits.high, field.intervals[k].high);
        for (int i = 0; i <= parts; ++i) points[k].push_back(low + (high - low) * i / parts);
    }
    const FieldSamples grid = sampleMeshgrid(*field.program, points[0], points[1]);
    for (std::size_t i = 0; isArea && i < grid.pointCount(); ++i) {
        if (!(grid.values[0][i] >= 0)) continue;
        xs.push_back(grid.xAt(i));
        ys.push_back(grid.yAt(i));
    }
    const PanelMap map{{ScaleKind::Linear, x.low, x.high, 100}, {ScaleKind::Linear, y.low, y.high, 100}};
    for (const Isoline& line : followLevels(grid, {0}, nullptr, map, {}).lines) {
        xs.insert(xs.end(), line.path.x.begin(), line.path.x.end());
        ys.insert(ys.end(), line.path.y.begin(), line.path.y.end());
    }
}

std::vector<std::string> levelTexts(const std::vector<double>& levels) {
    std::vector<std::string> texts;
    for (int decimals = 0; decimals <= 5; ++decimals) {
        const double unit = std::pow(10, decimals);
        if (!std::ranges::all_of(levels, [&](double level) {
                const double scaled = level * unit;
                return std::abs(level) < 1e5 && std::abs(scaled - std::round(scaled)) < 1e-6;
            }))
            continue;
        for (const double level : levels) {
            std::string digits = fmt::format("{:.{}f}", std::abs(level), decimals);
            texts.push_back((level < 0 ? "\u2212" : "") + digits);
        }
        return texts;
    }
    for (const double level : levels) texts.push_back(printedNumber(level, 6));
    return texts;
}

std::vector<Point> onSheet(const Path& path, const Frame& frame) { return onSheet(frame, path.x, path.y); }

Polylines linesOnSheet(const LevelLines& found, const Frame& frame) {
    Polylines lines;
    for (const Isoline& line : found.lines) {
        lines.push_back(onSheet(line.path, frame));
        if (line.closed && !lines.back().empty()) lines.back().push_back(lines.back().front());
    }
    return lines;
}

LinePassed lineAt(const LevelLines& found, const Frame& frame, Point mm, double reach) {
    LinePassed passed;
    const Polylines lines = linesOnSheet(found, frame);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const double away = distanceTo(lines[i], mm);
        if (!(away < reach)) continue;
        reach = away;
        passed = {&found.lines[i], away};
    }
    return passed;
}

Polylines ringsOnSheet(const std::vector<Path>& rings, const Frame& frame) {
    Polylines all;
    for (const Path& ring : rings) all.push_back(onSheet(ring, frame));
    return all;
}

} // namespace coulter
