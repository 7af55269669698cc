#include "command/commands.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "figure/edits.h"
#include "files/export.h"
#include "files/recipe.h"

#include <CLI/CLI.hpp>
#include <filesystem>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct Arguments {
    std::vector<std::string> recipes;
    std::string output, format;
    double dpi = 0;
    std::vector<std::string> quantities;
    bool strict = false, patient = false;
};

std::optional<Document> withSettings(Document document, const Arguments& arguments, const std::string& about) {
    if (arguments.dpi > 0) document.sheet.resolution = arguments.dpi;
    for (const std::string& quantity : arguments.quantities) {
        const auto equals = quantity.find('=');
        const std::string name = quantity.substr(0, equals), value = quantity.substr(equals + 1);
        if (const auto changed = withQuantity(document, name, value)) {
            document = *changed;
            continue;
        }
        // What is no quantity may be a setting: of the view by its name, any other by its path.
        const bool ofView = name == "azimuth" || name == "elevation" || name == "distance" || name == "height";
        if (!ofView && name.find('.') == std::string::npos) {
            Problem problem;
            problem.sentence = "The page has no quantity “" + name + "” that could be set.";
            problem.suggestion = "settings are named by their path, such as view.azimuth or sheet.width";
            say(about, problem);
            return std::nullopt;
        }
        const RecipeRead changed = withValueAt(document, ofView ? "view." + name : name, value);
        if (!changed.document) {
            say(about, changed.problem);
            return std::nullopt;
        }
        document = *changed.document;
    }
    return document;
}

int renderOne(const std::string& recipe, const std::filesystem::path& target, const ExportFormat& format,
              const Arguments& arguments, const Interruption& interruption) {
    auto loaded = loadDocument(recipe);
    if (!loaded) return statusProblem;
    const auto document = withSettings(std::move(*loaded), arguments, recipe);
    if (!document) return statusProblem;
    // A problem on a line that no plot needs does not stop the figure, but it is said, and the status tells.
    const Page page = readPage(document->page);
    const Exported exported = [&] {
        Progress progress(recipe);
        return exportFigure(*document, format, interruption.token(), {arguments.patient, progress.watch()});
    }();
    if (interruption.happened()) return interrupted(recipe);
    if (!exported.bytes) return say(recipe, exported.problem);
    if (exported.unfinished) {
        sayUnfinished(recipe, *exported.unfinished, exported.tooDear);
        if (arguments.strict) return statusProblem;
    }
    const int status = sayErrors(recipe, page);
    const int delivered = deliver(target.string(), *exported.bytes);
    if (delivered == statusGood && target != "-") fmt::print("{}\n", target.string());
    return delivered != statusGood ? delivered : status;
}

int render(const Arguments& arguments) {
    for (const std::string& quantity : arguments.quantities) {
        if (quantity.find('=') == std::string::npos) return usage("--set needs NAME=VALUE, not “" + quantity + "”.");
    }
    if (arguments.dpi != 0 && !(arguments.dpi >= leastResolution && arguments.dpi <= greatestResolution)) {
        return usage(fmt::format("--dpi must be from {} to {}.", leastResolution, greatestResolution));
    }
    std::error_code error;
    const std::filesystem::path output = arguments.output;
    const bool folder =
        arguments.recipes.size() > 1 || std::filesystem::is_directory(output, error) || arguments.output.ends_with("/");
    std::string name = arguments.format;
    if (name.empty() && !folder && output.has_extension()) name = output.extension().string().substr(1);
    if (name.empty()) name = "pdf";
    const ExportFormat* format = findFormat(name);
    if (!format) {
        std::string known;
        for (const ExportFormat& each : exportFormats()) known += (known.empty() ? "" : ", ") + std::string(each.name);
        return usage("The format “" + name + "” is not known; known are: " + known + ".");
    }
    if (folder) std::filesystem::create_directories(output, error);
    int status = statusGood;
    const Interruption interruption;
    for (const std::string& recipe : arguments.recipes) {
        if (interruption.happened()) return statusInterrupted;
        const auto target = folder ? output / std::filesystem::path(recipe).filename().replace_extension(name) : output;
        status = std::max(status, renderOne(recipe, target, *format, arguments, interruption));
    }
    return status;
}

} // namespace

void addRender(CLI::App& app, int& status) {
    auto arguments = std::make_shared<Arguments>();
    CLI::App* command = app.add_subcommand("render", "write figures of recipes");
    command->add_option("RECIPE", arguments->recipes, "recipes, or figures with their recipe inside")->required();
    command->add_option("-o,--output", arguments->output, "file, or folder for several; - for standard output")
        ->required();
    command->add_option("--format", arguments->format, "pdf, svg or png; else taken from the file's ending");
    command->add_option("--dpi", arguments->dpi, "dots per inch of a bitmap, in place of the recipe's");
    command
        ->add_option("--set", arguments->quantities,
                     "NAME=VALUE: another value for a quantity of the page, or for a setting by its path: azimuth, "
                     "sheet.width, colour.map")
        ->type_size(1)
        ->allow_extra_args(false);
    command->add_flag("--strict", arguments->strict,
                      "write no figure in which something could not be sampled finely enough");
    addPatient(*command, arguments->patient);
    command->callback([arguments, &status] { status = render(*arguments); });
}

} // namespace coulter
