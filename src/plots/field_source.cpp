#include "plots/field_source.h"

#include "formula/compile/compile.h"
#include "plots/measured_places.h"
#include "plots/reading.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {

constexpr Setting acrossSetting{.key = "across",
                                .label = "to the right",
                                .meaning = "the variable that runs to the right; left out: the first",
                                .type = SettingType::Variable,
                                .isStyle = false};

namespace {

/// One case of a field, with the words of its scales.
void readCase(Reading& reading, const ReadingContext& context, const Plot& plot, const Plotted& plotted,
              const ItemPath& path, std::size_t caseIndex, bool isMargin) {
    Field field;
    field.isMargin = isMargin;
    field.looksForPeaks = context.format.findsPeaks;
    field.knowsPieces = context.format.followsPieces;
    field.followsLevels = context.format.followsLevels;
    if (isMargin && field.followsLevels) field.levels = {0};
    field.variables = acrossAndUp(plot, plotted);
    Compiled compiled = compile(context.page, plotted.expression, field.variables,
                                plotted.cases.empty() ? FixedValues{} : caseValues(plotted, caseIndex));
    if (!compiled.program) {
        reading.problems = compiled.problems;
        reading.drawn.clear();
        return;
    }
    field.program = std::move(compiled.program);
    for (std::size_t k = 0; k < 2; ++k) {
        const Line& line = *context.page.find(field.variables[k], LineKind::Variable);
        field.intervals[k] = line.interval;
        field.grids[k] = line.grid;
    }
    lookWhereMeasured(field, context.panel);
    reading.words.across = variableWord(context.page, field.variables[0], ScaleWord::Rank::FieldVariable);
    reading.words.up = variableWord(context.page, field.variables[1], ScaleWord::Rank::FieldVariable);
    if (!isMargin) reading.words.colour = functionWord(context.page, plotted.expression, ScaleWord::Rank::Function);
    // A vector is shown by its length.
    const ScaleWord& colour = reading.words.colour;
    if (field.program->outputs.size() > 1 && !colour.symbol.empty() && colour.label.empty())
        reading.words.colour.symbol = "|" + reading.words.colour.symbol + "|";
    Drawn drawn = drawnOf(context, plot, path, caseIndex, std::max<std::size_t>(1, plotted.cases.size()));
    drawn.parts.push_back({std::make_shared<const Source>(std::move(field)), nullptr});
    drawn.entry = plotted.condition && plotted.cases.size() < 2 ? formulaMath(*plotted.condition)
                                                                : entryOf(context.page, plotted, caseIndex);
    reading.drawn.push_back(std::move(drawn));
}

} // namespace

Reading readField(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    if (plotted.cases.size() > 1)
        refuse(reading, plotted, "A field shows one case; several would cover each other.",
               "leave one case in the list");
    else
        readCase(reading, context, plot, plotted, path, 0, false);
    return reading;
}

Reading readZeroOf(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    for (std::size_t c = 0; c < std::max<std::size_t>(1, plotted.cases.size()) && reading.problems.empty(); ++c)
        readCase(reading, context, plot, plotted, path, c, true);
    return reading;
}

bool readTint(Reading& reading, const ReadingContext& context, const Plot& plot, const Setting& setting, Field& field) {
    const std::string by = text(plot.settings, setting);
    if (by.empty()) return true;
    const Plotted tint = readPlotted(context.page, by, 2);
    const Compiled compiled = tint.expression ? compile(context.page, tint.expression, field.variables) : Compiled{};
    if (!compiled.program || compiled.program->outputs.size() != 1) {
        Problem problem = !tint.problems.empty()       ? tint.problems.front()
                          : !compiled.problems.empty() ? compiled.problems.front()
                                                       : Problem{-1, 1, 1, "This is a vector.", "write one number"};
        problem.line = -1;
        problem.sentence = "“" + std::string(setting.key) + "”: " + problem.sentence;
        reading.problems = {problem};
        reading.drawn.clear();
        return false;
    }
    field.tint = compiled.program;
    reading.words.colour = functionWord(context.page, tint.expression, ScaleWord::Rank::Function);
    return true;
}

PanelMap samplingMap(const Field& field, const Frame& frame) {
    if (!field.inSpace || !frame.space) return frame.map;
    const double length = 0.7 * std::min(frame.rect.width, frame.rect.height);
    if (field.isParametric())
        return {{ScaleKind::Linear, field.intervals[0].low, field.intervals[0].high, 2 * length},
                {ScaleKind::Linear, field.intervals[1].low, field.intervals[1].high, 2 * length}};
    PanelMap map{frame.space->maps[0], frame.space->maps[1]};
    map.x.length = map.y.length = length;
    return map;
}

double samplingTolerance(const Field& field, double tolerance) {
    constexpr double ofSurfaces = 0.05;
    return field.inSpace ? std::max(tolerance, ofSurfaces) : tolerance;
}

Limits samplingRange(const Field& field, const Frame& frame) {
    if (field.isMargin) { // near zero, by a tenth of what it ranges over
        const double reach = std::max(std::abs(frame.colour.low), std::abs(frame.colour.high)) / 10;
        return reach > 0 && std::isfinite(reach) ? Limits{-reach, reach} : Limits{-1, 1};
    }
    if (!field.inSpace || !frame.space) return {frame.colour.low, frame.colour.high};
    const auto& maps = frame.space->maps;
    if (!field.isParametric()) return {maps[2].low, maps[2].high};
    double most = 0; // of the longest side: places are as far from the true ones either way
    for (const AxisMap& map : maps) most = std::max(most, map.high - map.low);
    return {-most / 2, most / 2};
}

std::vector<double> levelsBeyond(const Field& field, const Limits& range) {
    std::vector<double> beyond;
    std::ranges::copy_if(field.levels, std::back_inserter(beyond),
                         [&](double level) { return level < range.low || level > range.high; });
    return beyond;
}

Place placeOf(const Field& field, const FieldSamples& samples, std::size_t point) {
    if (field.isParametric()) return {samples.values[0][point], samples.values[1][point], samples.values[2][point]};
    return {samples.xAt(point), samples.yAt(point), samples.values[0][point]};
}

} // namespace coulter
