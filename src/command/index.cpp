#include "command/commands.h"
#include "command/sweep_index.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct IndexArguments {
    std::string folder, output;
};

int run(const IndexArguments& arguments) {
    const MergedIndex merged = mergedIndex(arguments.folder);
    if (merged.problem) return say("", *merged.problem);
    constexpr std::size_t most = 10;
    for (std::size_t i = 0; i < std::min(most, merged.wrong.size()); ++i) say("", merged.wrong[i]);
    if (merged.wrong.size() > most) fmt::print(stderr, "… and {} further ones.\n", merged.wrong.size() - most);
    const int delivered = deliver(arguments.output, merged.csv);
    return delivered != statusGood ? delivered : merged.wrong.empty() ? statusGood : statusProblem;
}

} // namespace

void addIndex(CLI::App& app, int& status) {
    auto arguments = std::make_shared<IndexArguments>();
    CLI::App* command =
        app.add_subcommand("index", "list the figures of a sweep that was made in parts, and check that all are there");
    command->add_option("FOLDER", arguments->folder, "where the figures are")->required();
    command->add_option("-o,--output", arguments->output, "file; - for standard output")
        ->type_name("FILE")
        ->default_val("-");
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
