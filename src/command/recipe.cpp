#include "files/recipe.h"
#include "command/commands.h"
#include "files/export.h"
#include "files/file_access.h"

#include <CLI/CLI.hpp>
#include <memory>

namespace coulter {
namespace {

struct Arguments {
    std::string figure, output;
};

int run(const Arguments& arguments) {
    const FileRead file = readFile(arguments.figure);
    if (!file.bytes) return say("", file.problem);
    const RecipeFound found = findRecipe(*file.bytes);
    if (!found.recipe) return say(arguments.figure, found.problem);
    // Only what can be read again is worth handing out.
    const RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) return say(arguments.figure, read.problem);
    return deliver(arguments.output, *found.recipe);
}

} // namespace

void addRecipe(CLI::App& app, int& status) {
    auto arguments = std::make_shared<Arguments>();
    CLI::App* command = app.add_subcommand("recipe", "takes the recipe out of an exported figure");
    command->add_option("FIGURE", arguments->figure, "exported figure")->required();
    command->add_option("-o,--output", arguments->output, "file; - for standard output")->type_name("FILE")->required();
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
