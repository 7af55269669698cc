#include "files/compare.h"
#include "command/commands.h"
#include "command/interruption.h"
#include "composition/draw_figure.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/png_picture.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct CompareArguments {
    std::string first, second, picture;
    double dotsPerInch = 150;
};

int run(const CompareArguments& arguments) {
    const Interruption interruption;
    const auto a = loadDocument(arguments.first), b = loadDocument(arguments.second);
    if (!a || !b) return statusProblem;
    const Figure first = drawFigure(*a, interruption.token()), second = drawFigure(*b, interruption.token());
    if (interruption.happened()) return interrupted(arguments.first);
    const Comparison comparison = compareFigures(first, second);
    for (const std::string& sentence : describe(comparison)) fmt::print("{}\n", sentence);
    if (!arguments.picture.empty()) {
        const auto bytes = pngPicture(overlaid(first, second, arguments.dotsPerInch / 25.4), arguments.dotsPerInch);
        if (!bytes)
            return say(arguments.picture,
                       {-1, 1, 1, "There is not enough memory for this picture.", "take fewer dots per inch"});
        if (const int status = deliver(arguments.picture, *bytes); status != statusGood) return status;
    }
    return comparison.same() ? statusGood : statusProblem;
}

} // namespace

void addCompare(CLI::App& app, int& status) {
    auto arguments = std::make_shared<CompareArguments>();
    CLI::App* command = app.add_subcommand(
        "compare", "says what differs between two recipes or figures: lines, settings, data, and where curves moved");
    command->add_option("FIRST", arguments->first, "recipe or exported figure")->required();
    command->add_option("SECOND", arguments->second, "recipe or exported figure")->required();
    command->add_option("-o,--output", arguments->picture, "PNG of both, one over the other; - for standard output")
        ->type_name("FILE");
    command->add_option("--dpi", arguments->dotsPerInch, "of the picture, in dots per inch")
        ->check(CLI::Range(10.0, 1200.0))
        ->capture_default_str();
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
