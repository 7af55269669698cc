#pragma once
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace coulter {

/// One option of a command, as `--help` has it.
struct OptionRow {
    std::vector<std::string> names; ///< "-o", "--output"; empty: an argument by its place
    std::string argument;           ///< what it takes: "FILE"; empty: nothing
    std::string meaning;
    std::vector<std::string> choices; ///< what may stand there; empty: anything
    bool takesFile = false;
};

/// A command with its options, read off the very table that `--help` prints.
struct CommandRow {
    std::string name; ///< empty: the program itself
    std::string meaning;
    std::vector<OptionRow> options;
};

/// The program itself, then every command.
std::vector<CommandRow> commandTable(const CLI::App& app);

} // namespace coulter
