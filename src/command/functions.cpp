#include "command/commands.h"
#include "formula/notation/parser.h"
#include "special/catalogue.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct FunctionsArguments {
    std::string name;
    bool markdown = false;
};

std::string derivativesOf(const FunctionEntry& entry) {
    std::vector<std::string> names = entry.below;
    names.insert(names.end(), entry.above.begin(), entry.above.end());
    names.insert(names.end(), entry.inside.begin(), entry.inside.end());
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (entry.derivatives[i].empty()) continue;
        text += (text.empty() ? "" : ", ") + (names.size() > 1 ? "by " + names[i] + ": " : std::string());
        text += "`" + entry.derivatives[i] + "`";
    }
    return text.empty() ? "—" : text;
}

void table() {
    fmt::print("| written | meaning | defined for | derivative | source |\n|---|---|---|---|---|\n");
    for (const FunctionEntry& entry : catalogue())
        fmt::print("| `{}` | {} | {} | {} | {} |\n", entry.form, cell(std::string(entry.meaning)),
                   cell(std::string(entry.domain)), cell(derivativesOf(entry)), entry.source);
}

/// Those of this name, or else those known by this word; all without one.
std::vector<const FunctionEntry*> functionsAsked(const std::string& name) {
    std::vector<const FunctionEntry*> found;
    for (const FunctionEntry& entry : catalogue()) {
        if (name.empty() || entry.name == canonicalWord(name)) found.push_back(&entry);
    }
    return found.empty() ? functionsAbout(name) : found;
}

int run(const FunctionsArguments& arguments) {
    if (arguments.markdown) {
        table();
        return statusGood;
    }
    const std::vector<const FunctionEntry*> asked = functionsAsked(arguments.name);
    for (const FunctionEntry* entry : asked) {
        fmt::print("{}\n    {}; {}\n", entry->form, entry->meaning, entry->domain);
        if (!arguments.name.empty())
            fmt::print("    derivative: {}\n    source: {}\n", derivativesOf(*entry), entry->source);
    }
    if (!asked.empty()) return statusGood;
    fmt::print(stderr, "coulter: There is no function “{}” — “coulter functions” lists all.\n", arguments.name);
    return statusProblem;
}

} // namespace

void addFunctions(CLI::App& app, int& status) {
    auto arguments = std::make_shared<FunctionsArguments>();
    CLI::App* command = app.add_subcommand("functions", "the functions of the catalogue, with domains and derivatives");
    command->add_option("NAME", arguments->name,
                        "only the functions of this name, such as J, or about this word, such as Bessel");
    command->add_flag("--markdown", arguments->markdown, "as a table");
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
