#include "command/commands.h"
#include "command/interruption.h"
#include "composition/draw_figure.h"
#include "composition/referee.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>
#include <nlohmann/json.hpp>

namespace coulter {
namespace {

struct RemarksArguments {
    std::vector<std::string> recipes;
    bool json = false, strict = false, list = false, markdown = false;
};

/// "panels[0].plots[1]": where in the recipe a finding's item is; empty: the sheet.
std::string pathOf(const ItemPath& path) {
    const std::string panel = "panels[" + std::to_string(path.panel) + "]",
                      index = "[" + std::to_string(path.index) + "]";
    switch (path.kind) {
    case ItemKind::Sheet:
    case ItemKind::SheetLegend: return "sheet";
    case ItemKind::SheetTitle: return "sheet.title";
    case ItemKind::Panel: return panel;
    case ItemKind::Title: return panel + ".title";
    case ItemKind::Legend: return panel + ".legend";
    case ItemKind::Plot: return panel + ".plots" + index;
    case ItemKind::Note: return panel + ".notes" + index;
    case ItemKind::Scale:
    case ItemKind::ScaleLabel: break;
    }
    if (path.index >= furtherScale) return panel + ".further[" + std::to_string(path.index - furtherScale) + "]";
    static constexpr const char* names[] = {".x", ".y", ".colour", ".z"};
    return panel + names[path.index];
}

std::string placeOf(const Finding& finding) {
    return finding.said.line >= 0 ? "page[" + std::to_string(finding.said.line) + "]" : pathOf(finding.where);
}

void listChecks(bool markdown) {
    if (markdown) fmt::print("| remark | what is found |\n|---|---|\n");
    for (const Check* check : refereeChecks()) {
        if (markdown)
            fmt::print("| {} | {} |\n", check->name, cell(check->meaning));
        else
            fmt::print("{}\n    {}\n", check->name, check->meaning);
    }
}

int run(const RemarksArguments& arguments) {
    if (arguments.list || arguments.markdown) {
        listChecks(arguments.markdown);
        return statusGood;
    }
    if (arguments.recipes.empty()) return usage("Which recipes? — name them, or --list what is looked for.");
    const Interruption interruption;
    nlohmann::ordered_json all = nlohmann::ordered_json::array();
    bool any = false;
    int status = statusGood;
    for (const std::string& recipe : arguments.recipes) {
        const auto document = loadDocument(recipe);
        if (!document) {
            status = statusProblem;
            continue;
        }
        const Figure figure = drawFigure(*document, interruption.token());
        if (interruption.happened()) return interrupted(recipe);
        for (const Finding& finding : findingsOf(figure)) {
            any = true;
            const bool error = finding.said.severity == Problem::Severity::Error;
            if (arguments.json) {
                all.push_back({{"recipe", recipe},
                               {"place", placeOf(finding)},
                               {"says", finding.said.sentence},
                               {"remedy", finding.remedy.empty() ? finding.said.suggestion : finding.remedy},
                               {"problem", error}});
                continue;
            }
            const std::string remedy = finding.remedy.empty() ? finding.said.suggestion : finding.remedy;
            fmt::print("{}: {}: {}{}\n", recipe, placeOf(finding), finding.said.sentence,
                       remedy.empty() ? "" : " — " + remedy);
        }
    }
    if (arguments.json) fmt::print("{}\n", all.dump(2));
    if (status == statusGood && arguments.strict && any) return statusProblem;
    return status;
}

} // namespace

void addRemarks(CLI::App& app, int& status) {
    auto arguments = std::make_shared<RemarksArguments>();
    CLI::App* command = app.add_subcommand("remarks", "what a careful referee would point out of figures");
    command->add_option("RECIPE", arguments->recipes, "recipes or exported figures");
    command->add_flag("--json", arguments->json, "as JSON: recipe, place, sentence, remedy");
    command->add_flag("--strict", arguments->strict, "exit status 1 if there is anything to remark");
    command->add_flag("--list", arguments->list, "what is looked for");
    command->add_flag("--markdown", arguments->markdown, "the same as a table");
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
