#include "plots/special_places.h"

#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

Curve curve(const std::string& formula) {
    const Page page = readPage(std::vector<std::string>{"f(x) = " + formula});
    Curve made;
    made.program = compile(page, page.lines[0].body, std::vector<std::string>{"x"}).program;
    REQUIRE(made.program);
    made.variable = "x";
    made.interval = {-10, 10, true, true};
    return made;
}

std::optional<SpecialPlace> near(const Curve& of, double place, double reach = 0.3,
                                 std::vector<const Curve*> others = {}) {
    return specialPlaceNear(of, others, place - reach, place + reach, place);
}

} // namespace

TEST_CASE("zeros, extrema and crossings near a place are found, the nearest one first") {
    const Curve sine = curve("sin(x)");
    const auto zero = near(sine, 3.0);
    REQUIRE(zero);
    CHECK(zero->word == "zero");
    CHECK(zero->x == Approx(std::numbers::pi).epsilon(1e-15));
    const auto top = near(sine, 1.5);
    REQUIRE(top);
    CHECK(top->word == "maximum");
    CHECK(top->x == Approx(std::numbers::pi / 2).epsilon(1e-7));
    CHECK(top->y == Approx(1));
    CHECK(near(sine, -1.5)->word == "minimum");
    CHECK_FALSE(near(sine, 0.8));
    CHECK(near(sine, 1.3, 1.5)->word == "maximum");
    CHECK(near(sine, 0.4, 1.5)->word == "zero");
    CHECK(near(curve("|x - 2|"), 2.1)->x == Approx(2).margin(1e-6));
    const Curve square = curve("x^2"), line = curve("x + 1");
    const auto crossing = near(square, 1.5, 0.3, {&square, &line});
    REQUIRE(crossing);
    CHECK(crossing->word == "crossing");
    CHECK(crossing->x == Approx((1 + std::sqrt(5.0)) / 2).epsilon(1e-14));
    CHECK(near(curve("x - 3"), 3.0)->x == 3);
}

TEST_CASE("poles, jumps, constants, edges and what is undefined are nothing to snap to") {
    CHECK_FALSE(near(curve("1/x"), 0.05));
    CHECK_FALSE(near(curve("1/x^2"), 0.05));
    CHECK_FALSE(near(curve("floor(x) + 1/2"), 0.1));
    CHECK_FALSE(near(curve("2 + 0 x"), 1));
    CHECK_FALSE(near(curve("0 x"), 1));
    CHECK_FALSE(near(curve("sqrt(x) + 1"), 0.1));
    CHECK_FALSE(near(curve("x"), 30));
    const Curve steep = curve("x"), other = curve("x + 1");
    CHECK_FALSE(near(steep, 5, 0.3, {&steep, &other}));
}
