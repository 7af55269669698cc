// What shells and `man` know of the program: made from the table that --help prints.
#include "command/command_table.h"
#include "command/commands.h"
#include "coulter_version.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

/// All that is offered behind a command, with words for it.
std::vector<std::pair<std::string, std::string>> offered(const CommandRow& command) {
    std::vector<std::pair<std::string, std::string>> all;
    for (const OptionRow& option : command.options) {
        for (const std::string& name : option.names) all.emplace_back(name, option.meaning);
    }
    return all;
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
    for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size())
        text.replace(at, from.size(), to);
    return text;
}

/// Within single quotes of a shell.
std::string quoted(const std::string& text) { return "'" + replaced(text, "'", "'\\''") + "'"; }

std::string joined(const std::vector<std::string>& words, const char* between = " ") {
    return fmt::format("{}", fmt::join(words, between));
}

std::string bash(const std::vector<CommandRow>& table) {
    std::string cases, choices;
    std::vector<std::string> commands;
    for (const CommandRow& command : table) {
        std::vector<std::string> names;
        for (const auto& [name, meaning] : offered(command)) names.push_back(name);
        if (!command.name.empty()) commands.push_back(command.name);
        cases +=
            fmt::format("        {}) options='{}' ;;\n", command.name.empty() ? "''" : command.name, joined(names));
        for (const OptionRow& option : command.options) {
            for (const std::string& name : option.names) {
                if (!option.choices.empty())
                    choices += fmt::format("        '{} {}') COMPREPLY=($(compgen -W '{}' -- \"$word\")); return ;;\n",
                                           command.name, name, joined(option.choices));
            }
        }
    }
    return "# Completion of coulter for bash.\n"
           "_coulter() {\n"
           "    local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]} command='' options='' each\n"
           "    for each in \"${COMP_WORDS[@]:1:COMP_CWORD-1}\"; do\n"
           "        case $each in " +
           joined(commands, "|") +
           ") command=$each; break ;; esac\n"
           "    done\n"
           "    case \"$command $before\" in\n" +
           choices +
           "    esac\n"
           "    case $command in\n" +
           cases +
           "    esac\n"
           "    if [[ $word == -* ]]; then\n"
           "        COMPREPLY=($(compgen -W \"$options\" -- \"$word\"))\n"
           "    else\n"
           "        COMPREPLY=($(compgen -f -- \"$word\"))\n"
           "        [[ -z $command ]] && COMPREPLY+=($(compgen -W '" +
           joined(commands) +
           "' -- \"$word\"))\n"
           "    fi\n"
           "}\n"
           "complete -o filenames -F _coulter coulter\n";
}

std::string zsh(const std::vector<CommandRow>& table) {
    // In a specification of _arguments colons and brackets have a meaning.
    const auto words = [](const std::string& text) {
        return replaced(replaced(replaced(text, "[", "("), "]", ")"), ":", "\\:");
    };
    const auto specifications = [&](const CommandRow& command) {
        std::string all;
        for (const OptionRow& option : command.options) {
            const std::string action = option.argument.empty()   ? ""
                                       : !option.choices.empty() ? ":value:(" + joined(option.choices) + ")"
                                       : option.takesFile        ? ":file:_files"
                                                                 : ":value: ";
            for (const std::string& name : option.names)
                all += " \\\n                " + quoted(name + "[" + words(option.meaning) + "]" + action);
        }
        return all + " \\\n                '*:file:_files'";
    };
    std::string list, cases;
    for (const CommandRow& command : table) {
        if (command.name.empty()) continue;
        list += "        " + quoted(command.name + ":" + words(command.meaning)) + "\n";
        cases += "        " + command.name + ")\n            _arguments" + specifications(command) + " ;;\n";
    }
    return "#compdef coulter\n"
           "# Completion of coulter for zsh.\n"
           "_coulter() {\n"
           "    local -a commands=(\n" +
           list +
           "    )\n"
           "    if (( CURRENT == 2 )); then\n"
           "        _describe command commands\n"
           "        _arguments" +
           specifications(table.front()) +
           "\n"
           "        return\n"
           "    fi\n"
           "    local command=$words[2]\n"
           "    shift words\n"
           "    (( CURRENT-- ))\n"
           "    case $command in\n" +
           cases +
           "        *) _files ;;\n"
           "    esac\n"
           "}\n"
           "_coulter \"$@\"\n";
}

std::string fish(const std::vector<CommandRow>& table) {
    std::vector<std::string> commands;
    for (const CommandRow& command : table) {
        if (!command.name.empty()) commands.push_back(command.name);
    }
    const std::string none = "not __fish_seen_subcommand_from " + joined(commands);
    std::string text = "# Completion of coulter for fish.\n";
    for (const CommandRow& command : table) {
        const std::string when = command.name.empty() ? none : "__fish_seen_subcommand_from " + command.name;
        if (!command.name.empty())
            text += fmt::format("complete -c coulter -n {} -a {} -d {}\n", quoted(none), command.name,
                                quoted(command.meaning));
        for (const OptionRow& option : command.options) {
            if (option.names.empty()) continue;
            text += "complete -c coulter -n " + quoted(when);
            for (const std::string& name : option.names)
                text += name.starts_with("--") ? " -l " + name.substr(2) : " -s " + name.substr(1);
            if (!option.argument.empty()) text += option.takesFile ? " -r" : " -x";
            if (!option.choices.empty()) text += " -a " + quoted(joined(option.choices));
            text += " -d " + quoted(option.meaning) + "\n";
        }
    }
    return text;
}

/// Text of a manual page: a backslash, a hyphen that is typed, and what begins a line have a meaning there.
std::string roff(const std::string& text) {
    std::string out = replaced(replaced(text, "\\", "\\e"), "-", "\\-");
    if (out.starts_with('.') || out.starts_with('\'')) out.insert(0, "\\&");
    return out;
}

void describeOptions(std::string& page, const CommandRow& command) {
    for (const OptionRow& option : command.options) {
        page += ".TP\n";
        std::vector<std::string> names;
        for (const std::string& name : option.names) names.push_back("\\fB" + roff(name) + "\\fR");
        page += joined(names, ", ");
        if (!option.argument.empty()) page += (names.empty() ? "" : " ") + ("\\fI" + roff(option.argument) + "\\fR");
        page += "\n" + roff(option.meaning) + "\n";
    }
}

/// A page for `man` (the macros of man(7)): of the program, or of one command.
std::string manualPage(const std::vector<CommandRow>& table, const CommandRow& command) {
    const bool whole = command.name.empty();
    const std::string name = whole ? "coulter" : "coulter-" + command.name;
    std::string upper = name;
    std::ranges::transform(upper, upper.begin(), [](char c) { return c >= 'a' && c <= 'z' ? char(c - 'a' + 'A') : c; });
    std::string summary = command.meaning.substr(0, command.meaning.find_first_of(".;:"));
    std::string page = fmt::format(".TH {} 1 \"\" \"coulter {}\" \"Coulter\"\n.SH NAME\n{} \\- {}\n", roff(upper),
                                   COULTER_VERSION, roff(name), roff(summary));
    page += ".SH SYNOPSIS\n";
    if (whole) page += ".B coulter\n[\\fIFILE\\fR ...]\n.br\n.B coulter\n\\fICOMMAND\\fR [\\fIoptions\\fR]\n";
    if (!whole) {
        page += ".B coulter " + roff(command.name) + "\n[\\fIoptions\\fR]";
        for (const OptionRow& option : command.options) {
            if (option.names.empty()) page += " \\fI" + roff(option.argument) + "\\fR";
        }
        page += "\n";
    }
    page += ".SH DESCRIPTION\n" + roff(command.meaning) + "\n";
    if (whole) page += "Without a command the window opens, with the recipes or exported figures that are named.\n";
    page += ".SH OPTIONS\n";
    describeOptions(page, command);
    if (whole) {
        page += ".SH COMMANDS\n";
        for (const CommandRow& each : table) {
            if (!each.name.empty())
                page += ".TP\n.BR coulter\\-" + roff(each.name) + " (1)\n" + roff(each.meaning) + "\n";
        }
    }
    page += ".SH EXIT STATUS\n.TP\n0\nAll went well.\n.TP\n1\nA problem, said on standard error.\n.TP\n2\nThe command "
            "line itself is wrong.\n.TP\n130\nStopped by the keyboard.\n";
    if (whole)
        page += ".SH FILES\n.TP\n\\fI$XDG_STATE_HOME/coulter/drafts\\fR\nWhat is not saved of figures that are open.\n";
    page += whole ? "" : ".SH SEE ALSO\n.BR coulter (1)\n";
    return page;
}

} // namespace

void addCompletion(CLI::App& app, int& status) {
    auto shell = std::make_shared<std::string>();
    CLI::App* command = app.add_subcommand("completion", "what a shell needs to complete the commands and options");
    command->add_option("SHELL", *shell, "bash, zsh or fish")
        ->required()
        ->check(CLI::IsMember({"bash", "zsh", "fish"}));
    command->callback([&app, shell, &status] {
        const std::vector<CommandRow> table = commandTable(app);
        fmt::print("{}", *shell == "bash" ? bash(table) : *shell == "zsh" ? zsh(table) : fish(table));
        status = statusGood;
    });
}

void addManualPage(CLI::App& app, int& status) {
    struct Arguments {
        std::string name, folder;
    };
    auto arguments = std::make_shared<Arguments>();
    CLI::App* command = app.add_subcommand("manual-page", "a page for man, of the program or of one command");
    command->add_option("COMMAND", arguments->name, "which command; left out: the program");
    command->add_option("--all", arguments->folder, "writes every page there is into a folder")->type_name("FOLDER");
    command->callback([&app, arguments, &status] {
        const std::vector<CommandRow> table = commandTable(app);
        status = statusGood;
        if (!arguments->folder.empty()) {
            for (const CommandRow& each : table) {
                const std::string file = each.name.empty() ? "coulter.1" : "coulter-" + each.name + ".1";
                status = std::max(status, deliver(arguments->folder + "/" + file, manualPage(table, each)));
            }
            return;
        }
        const auto found = std::ranges::find(table, arguments->name, &CommandRow::name);
        if (found == table.end())
            status = usage("coulter: There is no command “" + arguments->name + "”; “coulter --help” lists them.");
        else
            fmt::print("{}", manualPage(table, *found));
    });
}

} // namespace coulter
