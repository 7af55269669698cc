#include "command/commands.h"

#include "coulter_version.h"
#include "data/attach_tables.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/look_file.h"
#include "files/recipe.h"
#include "formula/lines/read_page.h"

#include <CLI/CLI.hpp>
#include <filesystem>
#include <fmt/format.h>
#include <unistd.h>

namespace coulter {
namespace {

/// An expression may start with a minus sign, which the argument reader would take for an option: the printed minus
/// sign means the same in the notation and is no option. It may stand in square brackets, which the reader would take
/// off as those of a list: a space behind them means nothing and prevents it.
std::vector<std::string> asExpressions(int argc, char** argv) {
    std::vector<std::string> arguments(argv + 1, argv + argc);
    if (arguments.empty() || (arguments[0] != "value" && arguments[0] != "draw")) return arguments;
    for (std::string& argument : arguments) {
        if (argument.starts_with('[')) argument += ' ';
        if (argument.size() >= 2 && argument[0] == '-' && argument[1] != '-' && argument != "-h" && argument != "-o")
            argument.replace(0, 1, "−");
    }
    return arguments;
}

/// Folders besides a recipe's own in which its tables may lie, as the option --allow-folder names them.
std::vector<std::filesystem::path> allowedFolders;

std::filesystem::path folderOf(const std::string& path) {
    const std::filesystem::path folder = std::filesystem::path(path).parent_path();
    return folder.empty() ? "." : folder;
}

} // namespace

std::string inOneLine(const std::string& text) {
    std::string line;
    for (const char c : text) {
        const auto code = static_cast<unsigned char>(c);
        if (code < 0x20)
            line += {'\xe2', '\x90', static_cast<char>(0x80 + code)}; // U+2400 …: pictures of control characters
        else
            line += code == 0x7f ? std::string("\xe2\x90\xa1") : std::string(1, c);
    }
    return line;
}

int say(const std::string& about, const Problem& problem) {
    fmt::print(stderr, "{}{}{}\n", inOneLine(about), about.empty() ? "" : ": ", inOneLine(describe(problem)));
    return statusProblem;
}

std::optional<Document> loadDocument(const std::string& path) {
    const FileRead file = readFile(path);
    if (!file.bytes) {
        say("", file.problem);
        return std::nullopt;
    }
    const RecipeFound found = findRecipe(*file.bytes);
    if (!found.recipe) {
        say(path, found.problem);
        return std::nullopt;
    }
    RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) {
        say(path, read.problem);
        return std::nullopt;
    }
    attachTables(*read.document, folderOf(path), allowedFolders);
    for (const ChangedTable& each : changedTables(*read.document, folderOf(path))) say(path, each.note);
    return read.document;
}

std::optional<Page> loadPage(const std::string& recipe, const std::vector<std::string>& lines) {
    Document document;
    if (!recipe.empty()) {
        auto loaded = loadDocument(recipe);
        if (!loaded) return std::nullopt;
        document = std::move(*loaded);
    }
    addLinesTo(document, lines, recipe);
    return readPage(document);
}

void addLinesTo(Document& document, const std::vector<std::string>& lines, const std::string& recipe) {
    document.page.insert(document.page.end(), lines.begin(), lines.end());
    attachTables(document, recipe.empty() ? "." : folderOf(recipe), allowedFolders);
}

int sayErrors(const std::string& about, const Page& page) {
    int status = statusGood;
    for (const Problem& problem : page.problems()) {
        if (problem.severity == Problem::Severity::Error) status = say(about, problem);
    }
    return status;
}

void addLines(CLI::App& command, std::vector<std::string>& lines) {
    command.add_option("--line", lines, "a line of a formula page; may be given several times")
        ->type_size(1)
        ->allow_extra_args(false);
}

std::string cell(std::string text) {
    for (std::size_t at = 0; (at = text.find('|', at)) != std::string::npos; at += 2) text.insert(at, "\\");
    return text;
}

void addPatient(CLI::App& command, bool& patient) {
    command.add_flag("--patient", patient, "however long it takes; else what is very dear is left unfinished");
}

void addLook(CLI::App& command, std::string& look) {
    command
        .add_option("--look", look,
                    "how the figure looks, in place of the recipe's: " + lookNames() +
                        ", or a file: a look that was saved, or a figure that has it")
        ->type_name("LOOK");
}

int sayUnfinished(const std::string& about, Problem problem, bool tooDear) {
    if (tooDear) problem.suggestion += ", or wait for it with --patient";
    return say(about, problem);
}

int interrupted(const std::string& about) {
    Problem problem;
    problem.sentence = "Stopped; nothing was written.";
    say(about, problem);
    return statusInterrupted;
}

int usage(const std::string& sentence) {
    fmt::print(stderr, "{}\n", sentence);
    return statusUsage;
}

int deliver(const std::string& path, const std::string& bytes) {
    if (path == "-") {
        const bool good =
            std::fwrite(bytes.data(), 1, bytes.size(), stdout) == bytes.size() && std::fflush(stdout) == 0;
        if (good) return statusGood;
        Problem problem;
        problem.sentence = "Standard output could not be written.";
        return say("", problem);
    }
    if (const auto problem = writeFile(path, bytes)) return say("", *problem);
    return statusGood;
}

int openWindow(const std::vector<std::string>& files) {
    std::error_code error;
    const auto self = std::filesystem::read_symlink("/proc/self/exe", error);
    const std::string window = (self.parent_path() / "coulter-window").string();
    std::vector<char*> arguments{const_cast<char*>(window.c_str())};
    for (const std::string& file : files) arguments.push_back(const_cast<char*>(file.c_str()));
    arguments.push_back(nullptr);
    ::execv(window.c_str(), arguments.data());
    Problem problem;
    problem.sentence = "The window program " + window + " could not be started.";
    problem.suggestion = "build it with Qt 6, or use one of the commands: coulter --help";
    return say("", problem);
}

int runCommandLine(int argc, char** argv) {
    CLI::App app{"Coulter draws formulas: figures that can be rebuilt byte for byte.", "coulter"};
    app.set_version_flag("--version", std::string("coulter ") + COULTER_VERSION);
    std::vector<std::string> files;
    app.add_option("FILE", files, "recipes or exported figures to open in windows")->expected(0, -1);
    app.add_option("--allow-folder", allowedFolders,
                   "a folder besides the recipe's own in which tables may lie that its page names")
        ->type_name("FOLDER")
        ->type_size(1)
        ->allow_extra_args(false);
    app.fallthrough();
    int status = statusGood;
    addRender(app, status);
    addDraw(app, status);
    addAnimate(app, status);
    addValue(app, status);
    addSample(app, status);
    addRecipe(app, status);
    addLookOf(app, status);
    addVerify(app, status);
    addCompare(app, status);
    addFunctions(app, status);
    addKinds(app, status);
    addRemarks(app, status);
    addIndex(app, status);
    addThumbnail(app, status);
    addCompletion(app, status);
    addManualPage(app, status);
    app.require_subcommand(0, 1);
    try {
        std::vector<std::string> arguments = asExpressions(argc, argv);
        std::reverse(arguments.begin(), arguments.end()); // the reader takes them from the back
        app.parse(arguments);
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? statusGood : statusUsage;
    }
    if (!app.get_subcommands().empty()) return status;
    // Neither command nor file: a slip of the pen, which no window should open for.
    for (const std::string& file : files) {
        std::error_code error;
        if (!std::filesystem::exists(file, error))
            return usage("“" + file + "” is neither a command nor a file; “coulter --help” lists the commands.");
    }
    return openWindow(files);
}

} // namespace coulter
