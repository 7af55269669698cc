#include "command/commands.h"
#include "files/look_file.h"

#include <CLI/CLI.hpp>
#include <memory>

namespace coulter {
namespace {

struct LookArguments {
    std::string figure, output;
};

int run(const LookArguments& arguments) {
    const LookRead read = findLook(arguments.figure);
    if (!read.look) return say("", read.problem);
    return deliver(arguments.output, writeLook(*read.look));
}

} // namespace

void addLookOf(CLI::App& app, int& status) {
    auto arguments = std::make_shared<LookArguments>();
    CLI::App* command = app.add_subcommand("look", "saves the look of a figure, to give it to others with --look");
    command->add_option("FIGURE", arguments->figure, "recipe or exported figure, or one of: " + lookNames())
        ->required();
    command->add_option("-o,--output", arguments->output, "file; - for standard output")->type_name("FILE")->required();
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
