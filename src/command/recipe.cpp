#include "files/recipe.h"
#include "command/commands.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/look_file.h"
#include "notes/document_look.h"

#include <CLI/CLI.hpp>
#include <memory>

namespace coulter {
namespace {

struct RecipeArguments {
    std::string figure, output, look;
};

int run(const RecipeArguments& arguments) {
    const FileRead file = readFile(arguments.figure);
    if (!file.bytes) return say("", file.problem);
    const RecipeFound found = findRecipe(*file.bytes);
    if (!found.recipe) return say(arguments.figure, found.problem);
    // Only what can be read again is worth handing out.
    const RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) return say(arguments.figure, read.problem);
    if (arguments.look.empty()) return deliver(arguments.output, *found.recipe);
    const LookRead look = findLook(arguments.look);
    if (!look.look) return say("", look.problem);
    Document document = *read.document;
    setLook(document, *look.look);
    return deliver(arguments.output, writeRecipe(document));
}

} // namespace

void addRecipe(CLI::App& app, int& status) {
    auto arguments = std::make_shared<RecipeArguments>();
    CLI::App* command = app.add_subcommand("recipe", "takes the recipe out of an exported figure");
    command->add_option("FIGURE", arguments->figure, "exported figure")->required();
    command->add_option("-o,--output", arguments->output, "file; - for standard output")->type_name("FILE")->required();
    addLook(*command, arguments->look);
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
