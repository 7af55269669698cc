#include "command/sample_tile.h"

#include "command/commands.h"
#include "command/progress.h"
#include "data/digest.h"
#include "data/tile_file.h"
#include "formula/compile/compile.h"
#include "plots/reading.h"
#include "sampling/grid.h"

#include <fmt/format.h>

namespace coulter {
namespace {

namespace fs = std::filesystem;

Problem refused(std::string sentence, std::string suggestion) {
    Problem problem;
    problem.sentence = std::move(sentence);
    problem.suggestion = std::move(suggestion);
    return problem;
}

/// Words that are the same for all parts of a field, and for nothing else: its page, and the numbers that went in.
std::string wholeOf(const TileOrder& order, const Program& program) {
    Digest digest;
    const auto addNumbers = [&](std::span<const double> numbers) {
        digest.add({reinterpret_cast<const char*>(numbers.data()), numbers.size_bytes()});
    };
    for (const Line& line : order.page.lines) digest.add(line.source + "\n");
    digest.add(order.of + "\n");
    addNumbers(program.constants);
    for (const auto& table : program.tables) addNumbers(table->x), addNumbers(table->y);
    for (const auto& field : program.fields) field->eachPart(addNumbers);
    return digest.text();
}

} // namespace

int sampleTile(const TileOrder& order, const Interruption& interruption) {
    const Plotted plotted = readPlotted(order.page, order.of, 2);
    if (!plotted.problems.empty()) {
        sayErrors("page", order.page);
        return say("--of", plotted.problems.front());
    }
    if (plotted.cases.size() > 1) return say("--of", refused("This is a family of several.", "name one case"));
    const std::array<std::string, 2> variables = acrossAndUp({}, plotted);
    const Compiled compiled = compile(order.page, plotted.expression, variables);
    if (!compiled.program) return say("--of", compiled.problems.front());
    const Program& program = *compiled.program;
    if (program.outputs.size() != 1)
        return say("--of", refused("A part is one of a number over two variables, and this is a vector.",
                                   "name one of its components"));
    TiledField tiled;
    for (std::size_t k = 0; k < 2; ++k) {
        const Line* line = order.page.find(variables[k], LineKind::Variable);
        if (!line)
            return say("--of", refused("A part is one of a field, over two variables of the page.",
                                       "name a function of two variables"));
        GridPoints grid = gridPoints(line->interval, line->grid, variables[k]);
        if (!grid.problems.empty()) return say("--of", grid.problems.front());
        if (isAdaptive(line->grid))
            return say("--of", refused("The parts of a field have a grid, and " + variables[k] + " has none.",
                                       "give it a count or a step: " + variables[k] + " ∈ [0, 1], count 20001"));
        (k == 0 ? tiled.columns : tiled.rows) = std::move(grid.points);
        tiled.variables[k] = variables[k];
        tiled.units[k] = line->unit;
    }
    if (order.parts > tiled.rows.size())
        return say("--of", refused(fmt::format("{} rows cannot be in {} parts.", tiled.rows.size(), order.parts),
                                   "make fewer parts"));
    tiled.name = order.of;
    tiled.unit = functionWord(order.page, plotted.expression, ScaleWord::Rank::Function).unit;
    tiled.whole = wholeOf(order, program);
    std::error_code error;
    fs::create_directories(order.folder, error);
    const fs::path file = fs::path(order.folder) / tileName(order.part, order.parts);
    if (isTileThere(file, tiled, order.part, order.parts)) {
        fmt::print("{}: there already\n", file.string());
        return statusGood;
    }
    Progress progress(file.string());
    const auto [first, end] = rowsOfTile(tiled.rows.size(), order.part, order.parts);
    const std::size_t width = tiled.columns.size();
    const auto rowsAt = [&, first = first, end = end](std::size_t row, std::span<double> into) {
        progress.show("sampling", row - first, end - first);
        std::vector<double> x(into.size()), y(into.size());
        for (std::size_t i = 0; i < into.size(); ++i)
            x[i] = tiled.columns[i % width], y[i] = tiled.rows[row + i / width];
        const double* const in[] = {x.data(), y.data()};
        double* const out[] = {into.data()};
        evaluateInParallel(program, in, out, into.size(), interruption.token());
        return !interruption.happened();
    };
    const std::string trouble = writeTile(file, tiled, order.part, order.parts, rowsAt);
    if (interruption.happened()) return interrupted(file.string());
    if (!trouble.empty())
        return say("", refused(trouble, "choose a folder that can be written to, or free some space"));
    fmt::print("{}\n", file.string());
    return statusGood;
}

} // namespace coulter
