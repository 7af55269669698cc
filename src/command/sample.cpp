#include "command/commands.h"
#include "drawing/figure_scene.h"
#include "figure/curves.h"
#include "files/sample_table.h"
#include "files/samples_report.h"
#include "formula/page.h"
#include "formula/text.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <charconv>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct Settings {
    std::string recipe, of, kind = "line", box = "120x80", limits, output;
    std::vector<std::string> lines;
    double tolerance = 0.02;
    bool report = false;
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

int run(const Settings& settings) {
    const auto box = twoNumbers(settings.box, 'x');
    if (!box || !(box->first > 0 && box->first <= 1e5 && box->second > 0 && box->second <= 1e5))
        return usage("--box needs WIDTHxHEIGHT in mm, such as 120x80.");
    const auto limits = twoNumbers(settings.limits, ',');
    if (!settings.limits.empty() && (!limits || !(limits->first < limits->second)))
        return usage("--limits needs LOW,HIGH, such as -1,1.");
    if (!(settings.tolerance > 0 && settings.tolerance <= 1000))
        return usage("--tolerance needs a positive number of mm.");
    const auto loaded = loadPage(settings.recipe, settings.lines);
    if (!loaded) return statusProblem;
    const Page& page = *loaded;
    Panel panel;
    const auto kind = std::ranges::find(plotKindNames, settings.kind);
    if (kind == plotKindNames.end()) return usage("--kind needs line, polar or heatmap.");
    panel.plots.push_back(plotOf(settings.of, static_cast<PlotKind>(kind - plotKindNames.begin())));
    if (limits) panel.y.limits = Limits{limits->first, limits->second};
    const PanelCurves curves = readCurves(page, panel);
    if (!curves.problems[0].empty()) {
        sayErrors("page", page);
        return say("--of", curves.problems[0].front());
    }
    if (curves.curves.size() + curves.fields.size() != 1)
        return say("--of", {-1, 0, 0,
                            "This is a family of " + std::to_string(curves.curves.size()) +
                                " curves; one curve is sampled at a time.",
                            "name one case"});
    PanelLimits shown = panelLimits(panel, curves, coarseCurves(curves, panel), 6);
    PanelLayout layout;
    layout.map = shown.map(box->first, box->second);
    if (!curves.fields.empty()) {
        const Field& field = curves.fields[0];
        if (const Problems problems = gridProblems(field); !problems.empty()) return say("page", problems.front());
        const Limits range = colourLimits(panel, curves, shown);
        layout.colours.map = {ScaleKind::Linear, range.low, range.high, box->second};
        const FieldSamples samples = sampleFieldForPanel(field, layout, settings.tolerance, {});
        return deliver(settings.output, settings.report ? samplesReport(samples, settings.tolerance)
                                                        : tableCsv(sampleTable(field, samples)));
    }
    const Curve& curve = curves.curves[0];
    if (const Problems problems = gridProblems(curve); !problems.empty()) return say("page", problems.front());
    const CurveSamples samples = sampleForPanel(curve, layout.map, settings.tolerance, {});
    return deliver(settings.output, settings.report ? samplesReport(samples, settings.tolerance)
                                                    : tableCsv(sampleTable(curve, samples)));
}

} // namespace

void addSample(CLI::App& app, int& status) {
    auto settings = std::make_shared<Settings>();
    CLI::App* command = app.add_subcommand(
        "sample", "the points that a curve or a field is drawn with, as CSV: stretch,x,y,state, or x,y,z");
    command->add_option("RECIPE", settings->recipe, "recipe or figure whose page defines names");
    command->add_option("--line", settings->lines, "a line of a formula page; may be given several times")
        ->expected(1)
        ->take_all();
    command->add_option("--of", settings->of, "what is sampled, such as 'f(x)'")->required();
    command->add_option("--kind", settings->kind,
                        "line (a curve), polar (a radius over an angle) or heatmap (a field)");
    command->add_option("--box", settings->box, "width and height of the panel in mm, such as 120x80");
    command->add_option("--limits", settings->limits, "vertical range, LOW,HIGH; else automatic");
    command->add_option("--tolerance", settings->tolerance, "largest distance from the curve on the sheet, mm");
    command->add_flag("--report", settings->report, "instead of the points: counts, what is proven, gaps, as JSON");
    command->add_option("-o,--output", settings->output, "file; - for standard output")->required();
    command->callback([settings, &status] { status = run(*settings); });
}

} // namespace coulter
