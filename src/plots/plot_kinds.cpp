#include "plots/plot_kind.h"

#include "figure/scale_settings.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/page/free_names.h"
#include "plots/common_settings.h"
#include "plots/curve_programs.h"
#include "plots/dashes.h"
#include "plots/reading.h"
#include "plots/sampling.h"

#include <algorithm>
#include <cmath>

namespace coulter {

extern const PlotKind lineKind, markersKind, pointsKind, stepsKind, stemsKind, areaKind, barsKind, histogramKind,
    errorBarsKind, referenceLineKind, tangentKind, polarKind, heatmapKind, contoursKind, filledContoursKind,
    surfaceKind, implicitCurveKind, regionKind, arrowsKind, streamlinesKind;

namespace {

constexpr const PlotKind* kinds[] = {
    &lineKind,           &markersKind,   &pointsKind,        &stepsKind,   &stemsKind,  &areaKind,       &barsKind,
    &histogramKind,      &errorBarsKind, &referenceLineKind, &tangentKind, &polarKind,  &heatmapKind,    &contoursKind,
    &filledContoursKind, &surfaceKind,   &implicitCurveKind, &regionKind,  &arrowsKind, &streamlinesKind};

} // namespace

std::span<const PlotKind* const> plotKinds() { return kinds; }

const PlotKind* findPlotKind(std::string_view name) {
    const auto at = std::ranges::find_if(kinds, [&](const PlotKind* kind) { return name == kind->name; });
    return at == std::end(kinds) ? nullptr : *at;
}

namespace {

std::string namesOf(bool (*wanted)(const PlotKind&)) {
    std::string names;
    for (const PlotKind* kind : kinds) {
        if (wanted(*kind)) names += (names.empty() ? "" : ", ") + std::string(kind->name);
    }
    return names;
}

} // namespace

bool showsByColours(const Drawn& drawn) { return drawn.caseValue.has_value() || showsValuesByColours(drawn); }

bool showsValuesByColours(const Drawn& drawn) {
    return fieldOf(drawn) && (!drawn.kind->usesColours || drawn.kind->usesColours(drawn));
}

std::string plotKindNames() {
    return namesOf([](const PlotKind&) { return true; });
}

namespace {

/// Takes away what a kind does not have; of a plot also what is usual for the kind.
void fitTo(Settings& settings, const PlotKind& kind, bool ofMember) {
    std::erase_if(settings, [&](const auto& set) {
        return std::ranges::none_of(kind.settings, [&](const Setting* each) {
            if (set.first != each->key) return false;
            const std::string* word = std::get_if<std::string>(&set.second);
            return each->type != SettingType::Word ||
                   (word && std::ranges::find(each->words, *word) != each->words.end());
        });
    });
    if (ofMember) return;
    for (const Setting* each : kind.settings) {
        if (const auto at = settings.find(each->key); at != settings.end())
            set(settings, *each, SettingValue(at->second));
    }
}

} // namespace

Plot inKind(Plot plot, const PlotKind& kind) {
    plot.kind = kind.name;
    fitTo(plot.settings, kind, false);
    for (Member& member : plot.members) fitTo(member.settings, kind, true);
    trimMembers(plot);
    return plot;
}

PanelShape shapeFor(const Source& source) {
    const Curve* curve = std::get_if<Curve>(&source);
    const Field* field = std::get_if<Field>(&source);
    if (field && field->inSpace) return PanelShape::Space;
    return curve && curve->inSpace ? PanelShape::Space : curve && curve->radius ? PanelShape::Polar : PanelShape::Plane;
}

namespace {

/// A scale is what it was set to; else that of a variable that is sampled by its logarithm.
void decideScales(const ReadingContext& context, const std::vector<Plotted>& plots, PanelReading& reading) {
    for (std::size_t p = 0; p < plots.size(); ++p) {
        if (!plots[p].expression) continue;
        const Plot& plot = context.panel.plots[p];
        const auto kind = [&](const std::string& name) {
            const Line& line = *context.page.find(name, LineKind::Variable);
            const bool shown = line.grid.logarithmic && line.interval.low > 0; // a scale has no place below zero
            return shown ? ScaleKind::Logarithmic : ScaleKind::Linear;
        };
        const Runs runs = findPlotKind(plot.kind)->runs;
        if (plots[p].isColumn) continue; // numbers of a page have no scale of their own
        if (runs == Runs::Over) {
            const auto order = acrossAndUp(plot, plots[p]);
            reading.xScale = kind(order[0]);
            if (plot.scale == 0) reading.yScale = kind(order[1]);
        } else if (runs == Runs::Along && componentCount(context.page, plots[p]) == 1) {
            reading.xScale = kind(plots[p].variables[0]);
        }
    }
    if (context.panel.x.scale) reading.xScale = *context.panel.x.scale;
    if (context.panel.y.scale) reading.yScale = *context.panel.y.scale;
}

/// Grids that cannot be made are problems of the plots that run along them.
void checkGrids(Reading& reading) {
    for (const Drawn& drawn : reading.drawn) {
        Problems problems = gridProblems(*drawn.parts[0].source);
        if (problems.empty()) continue;
        if (reading.problems.empty()) reading.problems = std::move(problems);
        reading.drawn.clear();
        return;
    }
}

/// What members of a family say by a scale of colours.
void readMembers(Reading& reading, const ReadingContext& context, const Plot& plot, const Plotted& plotted) {
    const auto by = static_cast<MembersBy>(word(plot.settings, runSetting));
    if (by != MembersBy::Scale || plotted.cases.size() < 2) return;
    for (Drawn& drawn : reading.drawn) {
        const bool isChosen = colour(drawn.settings, colourSetting).has_value(); // then it says nothing
        if (!isChosen && drawn.path.part < plotted.cases.size()) drawn.caseValue = plotted.cases[drawn.path.part][0];
    }
    reading.words.colour = quantityWord(context.page, plotted.caseNames[0]);
}

/// Dashes of their own.
void readOwnDashes(Reading& reading, const ReadingContext& context) {
    for (Drawn& drawn : reading.drawn) {
        std::optional<Problem> problem;
        drawn.dashes = readDashes(context.page, drawn.settings, problem);
        if (problem && reading.problems.empty()) reading.problems = {*problem};
    }
}

/// Shapes do not mix: the first plot decides.
void checkShape(Reading& reading, const Plotted& plotted, std::optional<PanelShape>& panelShape) {
    if (reading.drawn.empty()) return;
    const PanelShape shape = shapeFor(*reading.drawn[0].parts[0].source);
    if (!panelShape) panelShape = shape;
    if (*panelShape == shape) return;
    static constexpr const char* words[] = {"lies in the plane", "runs in space", "is a radius over an angle"};
    refuse(reading, plotted,
           "This " + std::string(words[static_cast<std::size_t>(shape)]) + ", and what is drawn before it " +
               words[static_cast<std::size_t>(*panelShape)] + ".",
           "draw the two in figures of their own");
    reading.drawn.clear();
}

} // namespace

PanelReading readPlots(const Page& page, const Panel& panel, std::size_t panelIndex, const FormatRules& format,
                       const Page* leftOut) {
    const ReadingContext context{page, panel, format, leftOut};
    std::vector<Plotted> plots;
    for (const Plot& plot : panel.plots) {
        const PlotKind* kind = findPlotKind(plot.kind);
        plots.push_back(kind ? readPlotted(page, plot.of, variablesOf(*kind)) : Plotted{});
        if (!kind)
            plots.back().problems.push_back(
                {-1, 1, 1, "The kind of plot “" + plot.kind + "” is not known.", "known are: " + plotKindNames()});
    }
    PanelReading all;
    all.format = format;
    decideScales(context, plots, all);
    std::optional<PanelShape> shape;
    for (std::size_t p = 0; p < plots.size(); ++p) {
        Reading reading;
        const PlotKind* kind = findPlotKind(panel.plots[p].kind);
        if (plots[p].expression && plots[p].isColumn && !kind->takesColumns) {
            refuse(reading, plots[p],
                   "This is a column of numbers, and the kind “" + panel.plots[p].kind + "” draws a formula.",
                   "draw it as one of: " + namesOf([](const PlotKind& each) { return each.takesColumns; }));
        } else if (plots[p].condition && !kind->takesConditions) {
            refuse(reading, plots[p],
                   "A condition is no number, and the kind “" + panel.plots[p].kind + "” draws numbers.",
                   "draw it as one of: " + namesOf([](const PlotKind& each) { return each.takesConditions; }) +
                       "; or write it in square brackets: [a < b] is 1 where it holds and 0 elsewhere");
        } else if (plots[p].expression)
            reading = findPlotKind(panel.plots[p].kind)
                          ->read(context, panel.plots[p], plots[p], {ItemKind::Plot, panelIndex, p, 0});
        else
            reading.problems = plots[p].problems;
        checkGrids(reading);
        readMembers(reading, context, panel.plots[p], plots[p]);
        readOwnDashes(reading, context);
        checkShape(reading, plots[p], shape);
        std::ranges::move(reading.drawn, std::back_inserter(all.drawn));
        all.words.push_back(std::move(reading.words));
        all.problems.push_back(std::move(reading.problems));
    }
    if (const std::string middle = text(panel.colour.settings, symmetricSetting); !middle.empty()) {
        const ColumnAnswer found = columnsOf(page, middle);
        if (found.columns.size() == 1 && found.columns[0]->size() == 1 && std::isfinite((*found.columns[0])[0]))
            all.colourMiddle = (*found.columns[0])[0];
    }
    all.shape = shape.value_or(PanelShape::Plane);
    if (all.shape == PanelShape::Polar) all.xScale = ScaleKind::Linear; // an angle has no other
    return all;
}

PanelReading readingOnScale(const PanelReading& reading, const Panel& panel, std::size_t number) {
    PanelReading some = reading;
    std::erase_if(some.drawn, [&](const Drawn& drawn) { return drawn.scale != number; });
    for (std::size_t p = 0; p < some.words.size() && p < panel.plots.size(); ++p) {
        if (std::min(panel.plots[p].scale, panel.further.size()) == number) continue;
        some.words[p].up = {}; // the horizontal scale is everyone's
        some.words[p].upNames = {};
    }
    if (number > 0) some.yScale = panel.further[number - 1].scale.value_or(ScaleKind::Linear);
    return some;
}

namespace {

bool isConstant(const Page& page, const Plotted& plotted) {
    std::vector<std::string> free = freeVariables(page, plotted.expression);
    std::erase_if(free, [&](const std::string& name) {
        return std::ranges::find(plotted.caseNames, name) != plotted.caseNames.end();
    });
    return !plotted.isColumn && free.empty();
}

} // namespace

std::optional<Signature> signatureOf(const Page& page, const Plot& plot) {
    const PlotKind* kind = findPlotKind(plot.kind);
    const Plotted plotted = readPlotted(page, plot.of, kind ? variablesOf(*kind) : 1);
    if (!plotted.expression) return std::nullopt;
    return Signature{plotted.variables.size(), componentCount(page, plotted), plotted.isColumn,
                     isConstant(page, plotted), plotted.condition != nullptr};
}

std::vector<const PlotKind*> kindsThatFit(const Page& page, const Plot& plot) {
    const std::optional<Signature> signature = signatureOf(page, plot);
    std::vector<const PlotKind*> fitting;
    for (const PlotKind* kind : kinds) {
        const bool takes = signature && (!signature->condition || kind->takesConditions);
        if (plot.kind == kind->name || (takes && kind->fits(*signature))) fitting.push_back(kind);
    }
    return fitting;
}

std::vector<WayToDraw> waysToDraw(const Page& page, const Plot& plot) {
    std::vector<WayToDraw> ways;
    for (const PlotKind* kind : kindsThatFit(page, plot)) {
        WayToDraw way{inKind(plot, *kind), kind->name, false};
        if (!kind->ways) {
            way.isNow = way.plot == plot;
            ways.push_back(std::move(way));
            continue;
        }
        for (const char* each : kind->ways->words) {
            WayToDraw one = way;
            set(one.plot.settings, *kind->ways, std::string(each));
            one.name += std::string(", ") + each;
            one.isNow = one.plot == plot;
            ways.push_back(std::move(one));
        }
    }
    return ways;
}

std::optional<Signature> signatureOf(const Page& page, const Line& function) {
    if (function.kind != LineKind::Function || !function.good()) return std::nullopt;
    if (function.points) return Signature{};
    if (!function.body) return std::nullopt;
    const Compiled compiled = compile(page, function.body, function.parameters);
    Signature signature;
    signature.variables = function.parameters.size();
    if (compiled.program) signature.components = compiled.program->outputs.size();
    return signature;
}

} // namespace coulter
