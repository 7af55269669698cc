#include "command/commands.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "command/sample_tile.h"
#include "command/sweep_index.h"
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/lay_out_panel.h"
#include "files/samples_report.h"
#include "formula/page/page.h"
#include "plots/seen_in.h"
#include "plots/table.h"
#include "plots/telling.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <charconv>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct SampleArguments {
    std::string recipe, of, kind = "line", box = "120x80", limits, levels, output;
    std::string part;
    std::vector<std::string> lines;
    std::size_t plot = 0, familyCase = 0; ///< counted from 1
    double tolerance = 0;
    bool report = false, patient = false;
};

/// Two numbers with a separator between: "120x80", "-1,1".
std::optional<std::pair<double, double>> twoNumbers(const std::string& text, char separator) {
    const auto middle = text.find(separator, 1);
    if (middle == std::string::npos) return std::nullopt;
    double a = 0, b = 0;
    const char* end = text.data() + text.size();
    const auto first = std::from_chars(text.data(), text.data() + middle, a);
    const auto second = std::from_chars(text.data() + middle + 1, end, b);
    if (first.ec != std::errc{} || second.ec != std::errc{} || first.ptr != text.data() + middle || second.ptr != end)
        return std::nullopt;
    return std::pair{a, b};
}

int write(const SampleArguments& arguments, const Drawn& drawn, const Frame& frame) {
    if (!isFinished(drawn)) sayUnfinished(drawn.of, unfinished(drawn), isTooDear(drawn));
    if (const std::string remark = drawn.kind->remark ? drawn.kind->remark(drawn, frame) : ""; !remark.empty())
        fmt::print(stderr, "{}: {}\n", drawn.of, remark);
    return deliver(arguments.output, arguments.report ? samplesReport(drawn, frame) : tableCsv(tableOf(drawn, frame)));
}

/// A plot of a recipe, sampled as its figure has it.
int samplePlot(const SampleArguments& arguments, const Interruption& interruption) {
    if (arguments.recipe.empty()) return usage("--plot needs a recipe or a figure whose plot is meant.");
    auto document = loadDocument(arguments.recipe);
    if (!document) return statusProblem;
    addLinesTo(*document, arguments.lines, arguments.recipe);
    std::size_t before = 0; // plots are counted through all panels
    ItemPath path{ItemKind::Plot, 0, 0, 0};
    for (; path.panel < document->panels.size(); ++path.panel) {
        const std::size_t count = document->panels[path.panel].plots.size();
        if (arguments.plot <= before + count) break;
        before += count;
    }
    path.index = arguments.plot - 1 - before;
    if (path.panel == document->panels.size())
        return usage(fmt::format("The recipe has {} plot(s); --plot {} is none of them.", before, arguments.plot));
    if (arguments.tolerance > 0) document->sheet.tolerance = arguments.tolerance;
    Effort effort = effortOf(document->sheet);
    if (arguments.patient) effort.operations = HUGE_VAL;
    const Figure figure = [&] {
        Progress progress(arguments.recipe);
        return drawFigure(*document, effort, interruption.token(), nullptr, progress.watch());
    }();
    if (interruption.happened()) return interrupted(arguments.recipe);
    const PanelFigure& panel = figure.panels[path.panel];
    if (!panel.problems[path.index].empty()) {
        sayErrors("page", figure.page);
        return say("--plot", panel.problems[path.index].front());
    }
    std::vector<const Drawn*> cases;
    for (const Drawn& drawn : panel.drawn) {
        if (drawn.path.index == path.index) cases.push_back(&drawn);
    }
    if (arguments.familyCase > cases.size() || (cases.size() > 1 && arguments.familyCase == 0))
        return usage(fmt::format("This plot is a family of {}: --case says which one is meant.", cases.size()));
    const Drawn& wanted = *cases[std::max<std::size_t>(1, arguments.familyCase) - 1];
    return write(arguments, wanted, panel.frameOf(wanted));
}

int run(const SampleArguments& arguments) {
    const auto box = twoNumbers(arguments.box, 'x');
    if (!box || !(box->first > 0 && box->first <= 1e5 && box->second > 0 && box->second <= 1e5))
        return usage("--box needs WIDTHxHEIGHT in mm, such as 120x80.");
    const auto limits = twoNumbers(arguments.limits, ',');
    if (!arguments.limits.empty() && (!limits || !(limits->first < limits->second)))
        return usage("--limits needs LOW,HIGH, such as -1,1.");
    if (!(arguments.tolerance >= 0 && arguments.tolerance <= 1000))
        return usage("--tolerance needs a positive number of mm.");
    if (arguments.of.empty() == (arguments.plot == 0)) return usage("Either --of or --plot says what is sampled.");
    if (!arguments.part.empty() && (arguments.plot > 0 || arguments.report))
        return usage("--part writes a tile of what --of names.");
    const Interruption interruption;
    if (arguments.plot > 0) return samplePlot(arguments, interruption);
    const auto loaded = loadPage(arguments.recipe, arguments.lines);
    if (!loaded) return statusProblem;
    const Page& page = *loaded;
    Panel panel;
    if (!arguments.part.empty()) {
        const std::optional<Part> part = partOf(arguments.part);
        if (!part) return usage("--part names one part of several, such as 2/4, not “" + arguments.part + "”.");
        return sampleTile({page, arguments.of, arguments.output, part->number, part->of}, interruption);
    }
    if (!findPlotKind(arguments.kind)) return usage("--kind needs one of: " + plotKindNames() + ".");
    panel.plots.push_back(plotOf(arguments.of, arguments.kind));
    if (!arguments.levels.empty()) {
        const auto takesLevels = [](const Setting* setting) { return std::string_view(setting->key) == "levels"; };
        if (std::ranges::none_of(findPlotKind(arguments.kind)->settings, takesLevels))
            return usage("--levels is for kinds that have levels, and “" + arguments.kind + "” has none.");
        panel.plots.back().settings["levels"] = "{" + arguments.levels + "}";
    }
    if (limits) panel.y.limits = AxisLimits({limits->first, limits->second});
    PanelReading reading = readPlots(page, panel);
    if (!reading.problems[0].empty()) {
        sayErrors("page", page);
        return say("--of", reading.problems[0].front());
    }
    if (reading.drawn.size() != 1)
        return say("--of", {-1, 0, 0,
                            "This is a family of " + std::to_string(reading.drawn.size()) +
                                " curves; one curve is sampled at a time.",
                            "name one case"});
    Effort effort;
    if (arguments.patient) effort.operations = HUGE_VAL;
    if (arguments.tolerance > 0) effort.tolerance = arguments.tolerance;
    Progress progress(arguments.of);
    progress.show("looking", 0, 0);
    const PanelLook look = lookAtPanel(panel, reading, effort.operations, interruption.token());
    Frame frame = bareFrame(panel, reading, look, box->first, box->second);
    Drawn& drawn = reading.drawn[0];
    drawn.parts[0].source = seenIn(drawn.parts[0].source, frame);
    frame.tolerance = effort.tolerance;
    if (!drawn.kind->table) drawn.parts.resize(1); // the edge of an area is not what is asked for
    progress.show("sampling", 0, 0);
    SampleWatch watch;
    watch.proving = [&](const CurveSamples& soFar) {
        progress.show("proving", static_cast<std::size_t>(100 * soFar.certificate.share()), 100);
    };
    watch.sampling = [&](std::size_t done, std::size_t all) { progress.show("sampling", done, all); };
    for (Sampled& part : drawn.parts)
        part.samples =
            std::make_shared<const Samples>(sampleSource(*part.source, {}, frame, effort, interruption.token(), watch));
    if (interruption.happened()) return interrupted(arguments.of);
    return write(arguments, drawn, frame);
}

} // namespace

void addSample(CLI::App& app, int& status) {
    auto arguments = std::make_shared<SampleArguments>();
    CLI::App* command = app.add_subcommand(
        "sample", "the points that a curve or a field is drawn with, as CSV: stretch,x,y,state, or x,y,z");
    command->add_option("RECIPE", arguments->recipe, "recipe or figure whose page defines names");
    addLines(*command, arguments->lines);
    command->add_option("--of", arguments->of, "what is sampled, such as 'f(x)'");
    command->add_option("--plot", arguments->plot,
                        "instead: the plot of the recipe with this number, from 1, as its figure has it");
    command->add_option("--case", arguments->familyCase,
                        "of a plot that is a family: the case with this number, from 1");
    command->add_option("--kind", arguments->kind, "kind of plot that it is sampled for; “coulter kinds” lists them");
    command->add_option("--box", arguments->box, "width and height of the panel in mm, such as 120x80");
    command->add_option("--limits", arguments->limits, "vertical range, LOW,HIGH; else automatic");
    command->add_option("--levels", arguments->levels, "of contours: levels such as 0,0.5,1; else round ones");
    command->add_option("--tolerance", arguments->tolerance,
                        "largest distance from the curve on the sheet, mm; usually 0.02, or the recipe's");
    command
        ->add_option("--part", arguments->part,
                     "K/N: of a field on a grid with counts or steps the K-th of N parts of its rows, as a netCDF file "
                     "in the folder that --output names; what is there already is not made again")
        ->type_name("K/N");
    command->add_flag("--report", arguments->report, "instead of the points: counts, what is proven, gaps, as JSON");
    addPatient(*command, arguments->patient);
    command->add_option("-o,--output", arguments->output, "file; - for standard output; with --part a folder")
        ->type_name("FILE")
        ->required();
    command->callback([arguments, &status] {
        const std::string several = arguments->kind + "s"; // “contour” is understood, too
        if (!findPlotKind(arguments->kind) && findPlotKind(several)) arguments->kind = several;
        status = run(*arguments);
    });
}

} // namespace coulter
