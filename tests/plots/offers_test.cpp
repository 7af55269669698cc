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
    CHECK(drawnBy({"f(x) = sin(x)/x", "x in [1, 5]"}) == Formulas{"f'(x)", "int_1^x f(u) du"});
    CHECK(drawnBy({"f(x) = u x", "x in [-1, 5]", "u = 2"}) == Formulas{"f'(x)", "int_{-1}^x f(v) dv"});
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
    REQUIRE(offers.size() == 2);
    std::size_t index = 7;
    const Document changed = withPlot(document, 0, offers[0].plot, index);
    CHECK(index == 0);
    CHECK(changed.panels[0].plots[0].of == "f'(x)");
    CHECK(changed.page == document.page);
    CHECK(offers[0].words == "Curve of the derivative of f(x)");
}
