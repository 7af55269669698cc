// A field made in parts by the program itself.
#include "run_program.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <unistd.h>

using namespace coulter;

namespace {

Ran run(const std::string& arguments) { return shell(std::string(std::getenv("COULTER_PROGRAM")) + " " + arguments); }

auto lineCount(const std::string& text) { return std::ranges::count(text, '\n'); }

} // namespace

TEST_CASE("coulter sample writes a field in tiles, which a page reads as the field in one piece") {
    const std::string folder = std::filesystem::temp_directory_path() / ("coulter-tiles-" + std::to_string(::getpid()));
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    const std::string page = "sample --line 'f(x, y) = sin(x y) + y^2, unit m' --line 'x in [0, 3], count 61, unit s' "
                             "--line 'y in [-1, 1], step 0.05' --of 'f(x, y)' ";
    for (const char* part : {"1/3", "3/3"}) CHECK(run(page + "-o " + folder + "/tiles --part " + part).status == 0);
    std::ofstream(folder + "/tiles.coulter")
        << R"json({"coulter": 5, "page": ["x in [0, 3]", "y in [-1, 1]", "h(x, y) from \"tiles\""],
                  "panels": [{"plots": [{"kind": "heatmap", "of": "h(x, y)"}]}]})json";
    const std::string render = "render " + folder + "/tiles.coulter -o " + folder + "/figure.svg";
    CHECK(run("remarks " + folder + "/tiles.coulter").out.find("has a problem") != std::string::npos);
    CHECK(run(page + "-o " + folder + "/tiles --part 2/3").out == folder + "/tiles/2-of-3.nc\n");
    CHECK(run(page + "-o " + folder + "/tiles --part 2/3").out == folder + "/tiles/2-of-3.nc: there already\n");
    CHECK(run(render).status == 0);
    const auto valuesOf = [&] { return run("sample " + folder + "/tiles.coulter --plot 1 -o -").out; };
    const std::string inTiles = valuesOf();
    CHECK(lineCount(inTiles) == 61 * 41 + 1);
    std::filesystem::remove_all(folder + "/tiles");
    CHECK(run(page + "-o " + folder + "/tiles --part 1/1").status == 0);
    CHECK(valuesOf() == inTiles);
    CHECK(run("value 'h(1, 0.5)' --line 'h(x, y) from \"" + folder + "/tiles\"' --allow-folder " + folder).out ==
          run("value 'sin(0.5) + 0.25'").out);
    for (const auto& [arguments, said] : std::vector<std::pair<std::string, std::string>>{
             {page + "--part 2/1 -o " + folder, "--part names one part"},
             {page + "--part 1/100 -o " + folder, "41 rows cannot be in 100 parts"},
             {"sample --line 'x in [0, 1]' --line 'y in [0, 1]' --of 'x y' --part 1/2 -o " + folder, "x has none"},
             {"sample --line 'x in [0, 1], count 5' --of 'x^2' --part 1/2 -o " + folder, "variable"},
             {page + "--part 1/2 -o /proc/none", "could not be written"}}) {
        INFO(arguments);
        const Ran bad = run(arguments);
        CHECK(bad.status != 0);
        CHECK(lineCount(bad.out) == 1);
        CHECK(bad.out.find(said) != std::string::npos);
    }
    std::filesystem::remove_all(folder);
}
