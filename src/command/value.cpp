#include "command/commands.h"
#include "formula/algebra/unit_inference.h"
#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/typed_line.h"
#include "formula/page/line_parser.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <iostream>
#include <memory>

namespace coulter {
namespace {

struct ValueArguments {
    std::vector<std::string> expressions, lines;
    std::string recipe;
    bool errors = false;
};

/// An answer, and the unit that it was asked for in.
struct Answered {
    Answer answer;
    std::string unit = {};
};

/// The answer to an expression; where it is none in the notation, to what the page would make of it.
Answered answered(const Page& page, const std::string& expression) {
    Answer result = evaluate(page, expression);
    if (result.problems.empty()) return {std::move(result)};
    std::string text = readTyped(page, expression).text;
    const Line line = outlineLine(text).line;
    if (const std::size_t end = text.find(" = ?"); end != std::string::npos) text.resize(end);
    Answer meant = evaluate(page, text);
    if (meant.problems.empty()) return {std::move(meant), line.unit};
    const bool isDrawn = line.kind == LineKind::Function || line.kind == LineKind::Drawn;
    if (isDrawn && line.problems.empty())
        result.problems = {saying("“" + expression + "” is a function, and has no single value.",
                                  "draw it: coulter draw '" + expression + "' -o figure.pdf")};
    return {std::move(result)};
}

/// One answer on one line; whether it is one.
bool answer(const Page& page, const std::string& expression, bool withError) {
    const auto [result, unit] = answered(page, expression);
    if (!result.problems.empty()) {
        fmt::print("problem: {}\n", describe(result.problems.front()));
        return false;
    }
    fmt::print("{}{}{}\n", answerText(result, withError), unit.empty() ? "" : " ", unit);
    for (const Problem& problem : unitsOfText(page, expression).problems) say(expression, problem);
    return true;
}

int run(const ValueArguments& arguments) {
    const auto loaded = loadPage(arguments.recipe, arguments.lines);
    if (!loaded) return statusProblem;
    const Page& page = *loaded;
    int status = sayErrors("page", page);
    for (const std::string& expression : arguments.expressions) {
        if (expression != "-") {
            if (!answer(page, expression, arguments.errors)) status = statusProblem;
            continue;
        }
        std::string line;
        while (std::getline(std::cin, line)) {
            if (line.ends_with('\r')) line.pop_back();
            if (!answer(page, line, arguments.errors)) status = statusProblem;
        }
    }
    return status;
}

} // namespace

void addValue(CLI::App& app, int& status) {
    auto arguments = std::make_shared<ValueArguments>();
    CLI::App* command = app.add_subcommand(
        "value",
        "values of expressions, one answer a line; and where an equation holds: 'sin(x) = 0 for x in [1, 10]'");
    command->add_option("EXPR", arguments->expressions, "expressions; - reads one a line from standard input")
        ->required();
    command->add_option("--recipe", arguments->recipe, "recipe or figure whose page defines names")->type_name("FILE");
    addLines(*command, arguments->lines);
    command->add_flag("--error", arguments->errors,
                      "say a bound of each answer's error, and its exact form where it has one");
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
