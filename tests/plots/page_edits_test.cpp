#include "plots/page_edits.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document document(std::vector<std::string> page, std::vector<std::string> plots = {}) {
    Document d;
    d.page = std::move(page);
    for (auto& of : plots) d.panels[0].plots.push_back(plotOf(of));
    return d;
}

} // namespace

TEST_CASE("a new function of one variable is drawn at once, with an interval if there is none") {
    const Document empty;
    const Document one = withLine(empty, 0, "f(x) = sin(x)");
    CHECK(one.page == std::vector<std::string>{"f(x) = sin(x)", "x in [-5, 5], assumed"});
    REQUIRE(one.panels[0].plots.size() == 1);
    CHECK(one.panels[0].plots[0].of == "f(x)");
    const Document two = withLine(one, 2, "g(x) = cos(x)");
    CHECK(two.page.size() == 3);
    CHECK(two.panels[0].plots.size() == 2);
    CHECK(withLine(two, 3, "h(x, y) = x y").panels[0].plots.size() == 2);
    CHECK(withLine(two, 3, "h(x) = ").panels[0].plots.size() == 2);
    CHECK(withLine(two, 0, "f(x) = sin(2x)").panels[0].plots.size() == 2);
}

TEST_CASE("plots follow a function that is renamed, and go with one that is removed") {
    const Document d = document({"f(x) = x", "x in [0, 1]"}, {"f(x)", "2 f(x)"});
    // What draws nothing but the function goes with it, however it does; what draws another one, too, stays.
    const Document several = document({"f(x) = x", "g(x) = x^2", "x in [0, 1]"},
                                      {"f(x)", "f'(x)", "int_0^x f(u) du", "2 f(x)", "f(x) + g(x)", "g(x)"});
    const Document left = withoutLine(several, 0);
    REQUIRE(left.panels[0].plots.size() == 2);
    CHECK(left.panels[0].plots[0].of == "f(x) + g(x)");
    CHECK(left.panels[0].plots[1].of == "g(x)");
    const Document renamed = withLine(d, 0, "h_1(x) = x");
    CHECK(renamed.panels[0].plots[0].of == "h_1(x)");
    CHECK(renamed.panels[0].plots[1].of == "2 h_1(x)");
    CHECK(withoutLine(d, 0).panels[0].plots.empty());
}
