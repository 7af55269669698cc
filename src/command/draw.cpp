#include "command/commands.h"
#include "command/figure_options.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "files/export.h"
#include "formula/base/text.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/read_page.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct DrawArguments : FigureOptions {
    std::vector<std::string> formulas;
    std::string kind;
};

/// The kinds that a plot can be drawn in, as a sentence lists them.
std::string namesOf(const std::vector<const PlotKind*>& kinds) {
    std::string names;
    for (const PlotKind* each : kinds) names += (names.empty() ? "" : ", ") + std::string(each->name);
    return names;
}

/// Draws all that is drawn in one kind; whether that can be.
bool drawAs(Document& document, const std::string& name) {
    const PlotKind* kind = findPlotKind(name);
    if (!kind) {
        usage("The kind “" + name + "” is not known; known are: " + plotKindNames() + ".");
        return false;
    }
    const Page page = readPage(document);
    for (Plot& plot : document.panels[0].plots) {
        const std::vector<const PlotKind*> kinds = kindsThatFit(page, plot);
        if (std::ranges::find(kinds, kind) == kinds.end()) {
            usage("“" + plot.of + "” cannot be drawn as “" + name + "”, but as: " + namesOf(kinds) + ".");
            return false;
        }
        plot = inKind(std::move(plot), *kind);
    }
    return true;
}

int draw(DrawArguments arguments) {
    if (const int wrong = checkFigureOptions(arguments); wrong != statusGood) return wrong;
    const ExportFormat* format = formatOf(arguments, false);
    if (!format) return statusUsage;
    Document document;
    for (const std::string& formula : arguments.formulas) {
        document = withLine(document, document.page.size(), formula);
        addLinesTo(document, {}, "");
    }
    const Page page = readPage(document);
    if (const int wrong = sayErrors("", page); wrong != statusGood) return wrong;
    if (document.panels[0].plots.empty())
        return say("", saying("Nothing is drawn by what is said here.",
                              "write a curve such as y = sin(x), or ask for values with “coulter value”"));
    if (!arguments.kind.empty() && !drawAs(document, arguments.kind)) return statusUsage;
    const auto set = withOptions(std::move(document), arguments, arguments.settings, "");
    if (!set) return statusProblem;
    const Interruption interruption;
    const Exported exported = [&] {
        Progress progress(arguments.output);
        return exportFigure(*set, *format, interruption.token(), {arguments.patient, progress.watch(), {}, false});
    }();
    if (interruption.happened()) return interrupted(arguments.output);
    if (!exported.bytes) return say("", exported.problem);
    if (exported.unfinished) sayUnfinished("", *exported.unfinished, exported.tooDear);
    const int delivered = deliver(arguments.output, *exported.bytes);
    if (delivered == statusGood && arguments.output != "-") fmt::print("{}\n", arguments.output);
    return delivered;
}

} // namespace

void addDraw(CLI::App& app, int& status) {
    auto arguments = std::make_shared<DrawArguments>();
    CLI::App* command = app.add_subcommand(
        "draw", "a figure of formulas, without a recipe: 'y = sin x / x for x in [-20, 20]', 'x^2 + y^2 = 1'");
    command->add_option("FORMULA", arguments->formulas, "lines as they are typed in the window, one after the other")
        ->required();
    command->add_option("--as", arguments->kind, "kind of plot, in place of the one that is usual for the formula")
        ->type_name("KIND");
    addFigureOptions(*command, *arguments, "file; - for standard output",
                     "NAME=VALUE: a value for a quantity, or a setting by its path: line.width, sheet.width, "
                     "colour.map; may be given several times");
    command->callback([arguments, &status] { status = draw(*arguments); });
}

} // namespace coulter
