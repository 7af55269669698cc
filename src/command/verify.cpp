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

struct VerifyArguments {
    std::vector<std::string> figures;
    bool patient = false;
    std::string difference;
};

/// Writes the picture of a difference; the status.
int show(const std::string& figure, const std::string& picture, const std::string& path) {
    if (picture.empty())
        return say(figure,
                   saying("There is no picture of the difference: only a PNG of the size that its recipe gives is "
                          "compared dot by dot.",
                          "leave out --difference"));
    if (const auto problem = writeFile(path, picture)) return say(path, *problem);
    fmt::print("{}\n", path);
    return statusProblem;
}

int run(const VerifyArguments& arguments) {
    const Interruption interruption;
    int status = statusGood;
    for (const std::string& figure : arguments.figures) {
        const FileRead file = readFile(figure);
        if (!file.bytes) {
            status = say("", file.problem);
            continue;
        }
        Progress progress(figure);
        std::string difference;
        const auto problem = verifyFigure(
            *file.bytes, interruption.token(),
            {arguments.patient, progress.watch(), std::filesystem::absolute(figure).parent_path()}, &difference);
        if (interruption.happened()) return interrupted(figure);
        if (problem) {
            status = say(figure, *problem);
            if (!arguments.difference.empty()) status = show(figure, difference, arguments.difference);
        } else {
            fmt::print("{}: rebuilt, every byte is the same\n", figure);
        }
    }
    return status;
}

} // namespace

void addVerify(CLI::App& app, int& status) {
    auto arguments = std::make_shared<VerifyArguments>();
    CLI::App* command =
        app.add_subcommand("verify", "rebuilds figures from the recipes inside and compares every byte");
    command->add_option("FIGURE", arguments->figures, "exported figures")->required();
    command
        ->add_option("--difference", arguments->difference,
                     "where to write a picture of what differs in a PNG: the dots that do in red")
        ->type_name("FILE");
    addPatient(*command, arguments->patient);
    command->callback([arguments, &status] {
        if (!arguments->difference.empty() && arguments->figures.size() != 1)
            status = say("--difference",
                         saying("A picture of the difference is made of one figure at a time.", "name one figure"));
        else
            status = run(*arguments);
    });
}

} // namespace coulter
