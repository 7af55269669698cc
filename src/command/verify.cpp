#include "command/commands.h"
#include "files/export.h"
#include "files/file_access.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

int run(const std::vector<std::string>& figures) {
    int status = statusGood;
    for (const std::string& figure : figures) {
        const FileRead file = readFile(figure);
        if (!file.bytes) {
            status = say("", file.problem);
        } else if (const auto problem = verifyFigure(*file.bytes)) {
            status = say(figure, *problem);
        } else {
            fmt::print("{}: rebuilt, every byte is the same\n", figure);
        }
    }
    return status;
}

} // namespace

void addVerify(CLI::App& app, int& status) {
    auto figures = std::make_shared<std::vector<std::string>>();
    CLI::App* command =
        app.add_subcommand("verify", "rebuilds figures from the recipes inside and compares every byte");
    command->add_option("FIGURE", *figures, "exported figures")->required();
    command->callback([figures, &status] { status = run(*figures); });
}

} // namespace coulter
