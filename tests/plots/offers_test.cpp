// What is offered to be drawn of a line of the page, and that it can be.
#include "formula/lines/read_page.h"
#include "plots/offers.h"
#include "plots/page_edits.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

std::vector<std::string> drawnBy(const std::vector<std::string>& lines, std::size_t of = 0) {
    const Page page = readPage(lines);
    REQUIRE(page.lines[of].good());
    std::vector<std::string> all;
    for (const Offer& offer : offersOf(page, page.lines[of])) all.push_back(offer.plot.of);
    return all;
}

using Formulas = std::vector<std::string>;

} // namespace

TEST_CASE("a function offers its derivative, and its integral from where its variable begins") {
    CHECK(drawnBy({"f(x) = sin(x)/x", "x in [1, 5]"}) ==
          Formulas{"f'(x)", "int_1^x f(u) du", "(x_e, f_e)", "(x_0, f(x_0))"});
    CHECK(drawnBy({"f(x) = u x", "x in [-1, 5]", "u = 2"}) ==
          Formulas{"f'(x)", "int_{-1}^x f(v) dv", "(x_e, f_e)", "(x_0, f(x_0))"});
    CHECK(drawnBy({"f(x) = x"}) == Formulas{}); // without an interval nothing can be drawn
}

TEST_CASE("a function of two variables offers a family, of whole numbers where one counts") {
    CHECK(drawnBy({"f(x, a) = a x", "x in [0, 1]"}) == Formulas{"f(x, a) for a in {0.5, 1, 2}"});
    CHECK(drawnBy({"S(t, N) = sum_{k=1}^N sin(k t)/k", "t in [0, 6]"}) == Formulas{"S(t, N) for N in {1, 3, 10}"});
    CHECK(drawnBy({"g(n, x) = x^n", "x in [0, 1]"}) == Formulas{"g(n, x) for n in {1, 3, 10}"});
}

TEST_CASE("a fit offers its residuals") {
    CHECK(drawnBy({"(a, b) fits s = a + b t", "t = {0, 1, 2, 3}", "s = {1, 2.9, 5.2, 7}"}) ==
          Formulas{"(t, s - (a + b t))"});
}

TEST_CASE("what is offered is drawn as a further plot") {
    Document document;
    document.page = {"f(x) = sin(x)", "x in [0, 5]"};
    const Page page = readPage(document);
    const auto offers = offersOf(page, page.lines[0]);
    REQUIRE(offers.size() == 4);
    std::size_t index = 7;
    const Document changed = withPlot(document, 0, offers[0].plot, index);
    CHECK(index == 0);
    CHECK(changed.panels[0].plots[0].of == "f'(x)");
    CHECK(changed.page == document.page);
    CHECK(offers[0].words == "Curve of the derivative of f(x)");
}

TEST_CASE("extrema, saddles and common zeros are offered with the lines that find them") {
    Document document;
    document.page = {"h(x, y) = x^3 - 3x + y^2", "g(x, y) = x - y", "x in [-2, 2]", "y in [-2, 2]", "h_e = 3"};
    const Page page = readPage(document);
    const std::vector<Offer> offers = offersOf(page, page.lines[0]);
    const auto extrema = std::ranges::find(offers, "Extrema of h(x, y), marked", &Offer::words);
    REQUIRE(extrema != offers.end());
    CHECK(extrema->plot.of == "(x_e, y_e, h_{e2})"); // h_e means something else
    std::size_t index = 0;
    const Document changed = withOffer(document, 0, *extrema, index);
    CHECK(changed.page.back() == "(x_e, y_e, h_{e2}) = extrema of h(x, y) for x, y");
    const Page after = readPage(changed);
    REQUIRE(after.lines.back().good());
    CHECK(*after.columnOf("h_e2") == std::vector<double>{2, -2});
    const auto both = std::ranges::find(offers, "Where h(x, y) = 0 and g(x, y) = 0", &Offer::words);
    REQUIRE(both != offers.end());
    CHECK(readPage(withOffer(document, 0, *both, index)).lines.back().good());
    // Curves that stand on the page as equations, too.
    document.page = {"x^2 + y^2 = 1", "y - x^3 = 0", "x in [-2, 2]", "y in [-2, 2]"};
    const Page curves = readPage(document);
    const auto crossings = offersOf(curves, curves.lines[1]);
    REQUIRE(crossings.size() == 1);
    CHECK(crossings[0].words == "Where x^2 + y^2 = 1 and y - x^3 = 0");
    const Page crossed = readPage(withOffer(document, 0, crossings[0], index));
    REQUIRE(crossed.lines.back().good());
    CHECK(crossed.columnOf("x_c")->size() == 2);
}
