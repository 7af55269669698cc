// Figures of formulas, without a recipe.
#include "files/file_access.h"
#include "run_program.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

Ran run(const std::string& arguments) { return shell(std::string(std::getenv("COULTER_PROGRAM")) + " " + arguments); }

struct Folder {
    fs::path path = fs::temp_directory_path() / "coulter-draw-test";
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
    std::string file(const char* name) const { return (path / name).string(); }
};

} // namespace

TEST_CASE("coulter draw makes a figure of a formula, with its recipe inside") {
    const Folder folder;
    const std::string pdf = folder.file("wave.pdf");
    const Ran drawn = run("draw 'y = sin x / x for x in [-20, 20]' -o " + pdf);
    CHECK(drawn.status == 0);
    CHECK(drawn.out == pdf + "\n");
    CHECK(run("verify " + pdf).out.find("every byte is the same") != std::string::npos);
    const std::string recipe = run("recipe " + pdf + " -o -").out;
    CHECK(recipe.find("\"y(x) = sin x / x\"") != std::string::npos);
    CHECK(recipe.find("\"x in [-20, 20]\"") != std::string::npos);
}

TEST_CASE("coulter draw takes several lines, a kind, settings, and standard output") {
    const Folder folder;
    const std::string svg = folder.file("circle.svg");
    CHECK(run("draw 'x^2 + y^2 = R^2' 'R = 2' 'y = x^2' --set R=3 -o " + svg).status == 0);
    const std::string recipe = run("recipe " + svg + " -o -").out;
    CHECK(recipe.find("\"R = 3\"") != std::string::npos);
    CHECK(recipe.find("implicit curve") != std::string::npos);
    const std::string contours = folder.file("field.svg");
    CHECK(run("draw 'z = sin(x) cos(y)' --as contours -o " + contours).status == 0);
    CHECK(run("recipe " + contours + " -o -").out.find("\"kind\": \"contours\"") != std::string::npos);
    CHECK(run("draw 'y = x' --format svg -o -").out.starts_with("<?xml"));
    // A minus sign at the front is no option.
    CHECK(run("draw '-x^2' --format svg -o -").status == 0);
}

TEST_CASE("what coulter draw cannot draw is said in one sentence, with a way out, and nothing is written") {
    const Folder folder;
    const std::string file = folder.file("none.pdf");
    const auto refused = [&](const std::string& arguments, const std::string& said) {
        const Ran ran = run("draw " + arguments + " -o " + file + " 2>&1");
        INFO(arguments << ": " << ran.out);
        CHECK(ran.status != 0);
        CHECK(ran.out.find(said) != std::string::npos);
        CHECK(std::count(ran.out.begin(), ran.out.end(), '\n') == 1);
        CHECK_FALSE(fs::exists(file));
    };
    refused("'2 + 3'", "coulter value");
    refused("'y = sin(x'", "never closed");
    refused("'y = log x'", "needs its base");
    refused("'y = x^2' --as heatmap", "cannot be drawn as “heatmap”, but as: line");
    refused("'y = x^2' --as star", "The kind “star” is not known");
    refused("'y = x^2' --set colour", "NAME=VALUE");
    refused("'y = x^2' --format gif", "“gif” is not known");
}

TEST_CASE("coulter value reads what the page reads") {
    CHECK(run("value 'sin 0'").out == "0\n");
    CHECK(run("value '\\frac{1}{2} + \\frac{1}{4}'").out == "0.75\n");
    CHECK(run("value 'x^2 = 9'").out == "{-3, 3}: all, proven\n");
    CHECK(run("value 'd/dx x^3'").out == run("value 'd/dx(x^3)'").out);
    CHECK(run("value '2**3'").out == "8\n");
}
