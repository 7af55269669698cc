// What is set behind the formulas of a page.
#include "formula/lines/read_page.h"
#include "formula/lines/value_bounds.h"
#include "typeset/answer_math.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

std::string lettersOf(const Math& math) {
    std::string letters = math.text;
    for (const MathPtr& child : math.children) letters += child ? lettersOf(*child) : "";
    return letters;
}

/// Letters of what is set behind the last of some lines, in their order; empty if nothing is.
std::string worthOf(const std::vector<std::string>& lines) {
    const Page page = readPage(lines);
    const Line& line = page.lines.back();
    INFO(line.source);
    REQUIRE(line.good());
    const MathPtr math = worthMath(line, errorOfQuantity(page, line));
    return math ? lettersOf(*math) : "";
}

} // namespace

TEST_CASE("a quantity with a formula shows its value with its unit") {
    CHECK(worthOf({"kappa = 0.5", "omega = 0.17", "d = sqrt(2 kappa/omega)"}) == "=2.425");
    CHECK(worthOf({"s = 12, unit m", "t = 4, unit s", "v = s/t"}).starts_with("=3m"));
    CHECK(worthOf({"a = 1/3"}) == "=0.3333");
    CHECK(worthOf({"a = int_0^1 x^2 dx"}) == "=0.3333");
}

TEST_CASE("what says its value itself shows none") {
    for (const char* line : {"a = 2.5", "a = -3", "a = 6.02 * 10^23", "a = {1, 2, 3}"}) {
        INFO(line);
        CHECK(worthOf({line}).empty());
    }
}

TEST_CASE("digits that are not certain are left out") {
    CHECK(worthOf({"a = (1e16 + 3) - 1e16"}).size() <= std::string("=4").size());
}

TEST_CASE("a column that is computed says how many numbers it holds, and between which") {
    const auto extentOf = [](const std::vector<std::string>& lines) {
        const Page page = readPage(lines);
        const MathPtr math = extentMath(page.lines.back());
        return math ? lettersOf(*math) : "";
    };
    CHECK(extentOf({"a = {0, 0.5, ..., 10}", "b = a^2"}) == "21numbersfrom0to100");
    CHECK(extentOf({"a = {0, 0.5, ..., 10}"}) == "21numbersfrom0to10");
    CHECK(extentOf({"a = {1, 2, 5}"}).empty());
    CHECK(extentOf({"a = 2 + 3"}).empty());
}
