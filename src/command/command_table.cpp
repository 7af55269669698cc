#include "command/command_table.h"

#include <CLI/CLI.hpp>
#include <algorithm>

namespace coulter {
namespace {

OptionRow rowOf(const CLI::Option& option) {
    OptionRow row;
    for (const std::string& name : option.get_snames()) row.names.push_back("-" + name);
    for (const std::string& name : option.get_lnames()) row.names.push_back("--" + name);
    row.meaning = option.get_description();
    if (option.get_items_expected_max() == 0) return row;
    row.argument = row.names.empty() ? option.get_single_name() : option.get_type_name();
    std::ranges::transform(row.argument, row.argument.begin(), [](char c) { return c == ':' ? ' ' : c; });
    // A choice is printed as "TEXT:{a,b}".
    const auto open = row.argument.find('{'), close = row.argument.find('}');
    if (open != std::string::npos && close != std::string::npos) {
        std::string word;
        for (std::size_t i = open + 1; i <= close; ++i) {
            if (row.argument[i] != ',' && i != close) {
                word += row.argument[i];
                continue;
            }
            row.choices.push_back(word);
            word.clear();
        }
        row.argument = row.argument.substr(open);
    }
    row.takesFile = row.argument.starts_with("FILE") || row.argument.starts_with("FOLDER");
    return row;
}

CommandRow rowOf(const CLI::App& app, const std::string& name) {
    CommandRow row{name, app.get_description(), {}};
    for (const CLI::Option* option : app.get_options()) row.options.push_back(rowOf(*option));
    return row;
}

} // namespace

std::vector<CommandRow> commandTable(const CLI::App& app) {
    std::vector<CommandRow> rows{rowOf(app, "")};
    for (const CLI::App* command : app.get_subcommands([](const CLI::App*) { return true; }))
        rows.push_back(rowOf(*command, command->get_name()));
    return rows;
}

} // namespace coulter
