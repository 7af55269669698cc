#include "plots/differences.h"

#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>

using namespace coulter;

TEST_CASE("a panel of differences shows each curve less the first, and readings less the curve") {
    const Page page =
        readPage(std::vector<std::string>{"f(x) = sin(x)", "g(x) = x - x^3/6", "x in [0, 2]", "t = {0, 1, 2}",
                                          "s = {0, 0.8, 0.9}", "h(x, y) = x y", "y in [0, 1]"});
    Panel panel;
    panel.plots = {plotOf("f(x)"), plotOf("g(x)"), plotOf("(t, s)", "points"), plotOf("h(x, y)", "heatmap"),
                   plotOf("f(k x) for k in {1, 2}")};
    const std::vector<Plot> differences = differencesOf(page, panel);
    REQUIRE(differences.size() == 2);
    CHECK(differences[0].of == "(t, s - f(t))");
    CHECK(differences[0].kind == "points");
    CHECK(differences[1].of == "g(x) - f(x)");
    panel.plots = {plotOf("(t, s)", "points")};
    CHECK(differencesOf(page, panel).empty());
}
