#include "command/commands.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "files/export.h"
#include "files/file_access.h"

#include <CLI/CLI.hpp>
#include <filesystem>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

int run(const std::vector<std::string>& figures, bool patient) {
    const Interruption interruption;
    int status = statusGood;
    for (const std::string& figure : figures) {
        const FileRead file = readFile(figure);
        if (!file.bytes) {
            status = say("", file.problem);
            continue;
        }
        Progress progress(figure);
        const auto problem = verifyFigure(*file.bytes, interruption.token(),
                                          {patient, progress.watch(), std::filesystem::absolute(figure).parent_path()});
        if (interruption.happened()) return interrupted(figure);
        if (problem) {
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
    auto patient = std::make_shared<bool>(false);
    CLI::App* command =
        app.add_subcommand("verify", "rebuilds figures from the recipes inside and compares every byte");
    command->add_option("FIGURE", *figures, "exported figures")->required();
    addPatient(*command, *patient);
    command->callback([figures, patient, &status] { status = run(*figures, *patient); });
}

} // namespace coulter
