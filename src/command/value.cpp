#include "command/commands.h"
#include "formula/expr_build.h"
#include "formula/page.h"
#include "formula/text.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <iostream>
#include <memory>

namespace coulter {
namespace {

struct Settings {
    std::vector<std::string> expressions, lines;
    std::string recipe;
};

std::string answerText(const Answer& result) {
    if (result.formula) return spelled(*result.formula);
    std::string text;
    for (const double value : result.values) text += (text.empty() ? "" : ", ") + shortestNumber(value);
    return result.values.size() > 1 ? "(" + text + ")" : text;
}

/// One answer on one line; whether it is one.
bool answer(const Page& page, const std::string& expression) {
    const Answer result = evaluate(page, expression);
    if (!result.problems.empty()) {
        fmt::print("problem: {}\n", describe(result.problems.front()));
        return false;
    }
    fmt::print("{}\n", answerText(result));
    return true;
}

int run(const Settings& settings) {
    const auto loaded = loadPage(settings.recipe, settings.lines);
    if (!loaded) return statusProblem;
    const Page& page = *loaded;
    int status = sayErrors("page", page);
    for (const std::string& expression : settings.expressions) {
        if (expression != "-") {
            if (!answer(page, expression)) status = statusProblem;
            continue;
        }
        std::string line;
        while (std::getline(std::cin, line)) {
            if (line.ends_with('\r')) line.pop_back();
            if (!answer(page, line)) status = statusProblem;
        }
    }
    return status;
}

} // namespace

void addValue(CLI::App& app, int& status) {
    auto settings = std::make_shared<Settings>();
    CLI::App* command = app.add_subcommand("value", "values of expressions, one answer a line");
    command->add_option("EXPR", settings->expressions, "expressions; - reads one a line from standard input")
        ->required();
    command->add_option("--recipe", settings->recipe, "recipe or figure whose page defines names");
    command->add_option("--line", settings->lines, "a line of a formula page; may be given several times")
        ->expected(1)
        ->take_all();
    command->callback([settings, &status] { status = run(*settings); });
}

} // namespace coulter
