#pragma once
#include "figure/document.h"
#include "formula/page/page.h"

#include <optional>
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace coulter {

/// Exit statuses of the program.
inline constexpr int statusGood = 0;
inline constexpr int statusProblem = 1;       ///< a problem in the input, said in one line
inline constexpr int statusUsage = 2;         ///< the command line itself is wrong
inline constexpr int statusInterrupted = 130; ///< Ctrl+C, as shells have it

/// The program `coulter`: reads the arguments, runs one command, returns the exit status.
int runCommandLine(int argc, char** argv);

// One file for each command: it adds its arguments to the application, and sets `status` when it runs.
void addRender(CLI::App& app, int& status);
void addDraw(CLI::App& app, int& status);
void addAnimate(CLI::App& app, int& status);
void addValue(CLI::App& app, int& status);
void addSample(CLI::App& app, int& status);
void addRecipe(CLI::App& app, int& status);
void addLookOf(CLI::App& app, int& status);
void addVerify(CLI::App& app, int& status);
void addCompare(CLI::App& app, int& status);
void addFunctions(CLI::App& app, int& status);
void addKinds(CLI::App& app, int& status);
void addRemarks(CLI::App& app, int& status);
void addIndex(CLI::App& app, int& status);
void addThumbnail(CLI::App& app, int& status);
void addCompletion(CLI::App& app, int& status);
void addManualPage(CLI::App& app, int& status);

/// Text for a cell of a table in Markdown, in which bars would end it.
std::string cell(std::string text);

/// The option --line, of one value, which may be given several times.
void addLines(CLI::App& command, std::vector<std::string>& lines);

/// Replaces this program by the window's, which stands beside it. Returns only if that fails.
int openWindow(const std::vector<std::string>& files);

/// Text that may come from strangers' files, with its control characters made visible: a terminal obeys none of them.
std::string inOneLine(const std::string& text);
/// Says a problem on standard error, after the name of what it is about; returns statusProblem.
int say(const std::string& about, const Problem& problem);

/// The document in a recipe or in an exported figure; says the problem if there is none.
std::optional<Document> loadDocument(const std::string& path);

/// The page of a recipe or figure (if one is named) followed by further lines; says the problem if it cannot be had.
std::optional<Page> loadPage(const std::string& recipe, const std::vector<std::string>& lines);

/// Adds lines to a document's page, and the tables that they name: from the recipe's folder, or where the program runs.
void addLinesTo(Document& document, const std::vector<std::string>& lines, const std::string& recipe);

/// Says each error of a page; returns statusProblem if there is one.
int sayErrors(const std::string& about, const Page& page);

/// Says what is wrong with the command line itself; returns statusUsage.
int usage(const std::string& sentence);

/// The option --patient.
void addPatient(CLI::App& command, bool& patient);

/// Adds --look.
void addLook(CLI::App& command, std::string& look);

/// Says what is unfinished, and that patience would finish it.
int sayUnfinished(const std::string& about, Problem problem, bool tooDear);

/// Says that a command was stopped; returns statusInterrupted.
int interrupted(const std::string& about);

/// Writes to a file, or to standard output for "-"; says the problem and returns its status.
int deliver(const std::string& path, const std::string& bytes);

} // namespace coulter
