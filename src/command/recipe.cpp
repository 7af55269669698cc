#include "files/recipe.h"
#include "command/commands.h"
#include "files/export.h"
#include "files/file_access.h"

#include <CLI/CLI.hpp>
#include <memory>

namespace coulter {
namespace {

struct Settings {
    std::string figure, output;
};

int run(const Settings& settings) {
    const FileRead file = readFile(settings.figure);
    if (!file.bytes) return say("", file.problem);
    const RecipeFound found = findRecipe(*file.bytes);
    if (!found.recipe) return say(settings.figure, found.problem);
    // Only what can be read again is worth handing out.
    const RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) return say(settings.figure, read.problem);
    return deliver(settings.output, *found.recipe);
}

} // namespace

void addRecipe(CLI::App& app, int& status) {
    auto settings = std::make_shared<Settings>();
    CLI::App* command = app.add_subcommand("recipe", "takes the recipe out of an exported figure");
    command->add_option("FIGURE", settings->figure, "exported figure")->required();
    command->add_option("-o,--output", settings->output, "file; - for standard output")->required();
    command->callback([settings, &status] { status = run(*settings); });
}

} // namespace coulter
