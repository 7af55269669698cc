// What is found over two variables: all places, named for what they are, and nothing but them.
#include "formula/lines/places_text.h"
#include "formula/lines/read_page.h"
#include "formula/lines/searches.h"

#include "formula/base/text.h"
#include "rounds.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <complex>
#include <fmt/format.h>
#include <random>

using namespace coulter;

namespace {

SearchAnswer searchedFor(const std::string& text, std::vector<std::string> page = {}) {
    const auto found = searchText(readPage(page), text);
    INFO(text);
    REQUIRE(found);
    return *found;
}

Places placesOf(const std::string& text, std::vector<std::string> page = {}) {
    const SearchAnswer found = searchedFor(text, std::move(page));
    INFO(text << (found.problems.empty() ? "" : found.problems[0].sentence));
    REQUIRE(found.problems.empty());
    CHECK(found.places.inPlane);
    return found.places;
}

bool holds(const FoundPlace& place, double x, double y) {
    return place.within.low <= x && x <= place.within.high && place.withinAcross.low <= y &&
           y <= place.withinAcross.high;
}

bool isOpenAt(const Places& places, double x, double y) {
    return std::ranges::any_of(places.unsettledParts, [&](const PlanePart& part) {
        return part.x.low <= x && x <= part.x.high && part.y.low <= y && y <= part.y.high;
    });
}

std::string textOf(const std::string& text, Sought sought, int digits = 6) {
    return describe(placesOf(text), sought, digits);
}

const std::string over = " for x in [-2, 2], y in [-2, 2]";

} // namespace

TEST_CASE("two equations hold at all places where both do, proven") {
    CHECK(textOf("x^2 + y^2 = 1 and y = x" + over, Sought::Zeros) ==
          "{(-0.707107, -0.707107), (0.707107, 0.707107)}: all, proven");
    CHECK(textOf("x^2 + y^2 = 1 and y = x + 2" + over, Sought::Zeros) == "{}: none, proven");
    CHECK(textOf("zeros of (sin(3x), y - x^2)" + over, Sought::Zeros) ==
          "{(-1.0472, 1.09662), (0, 0), (1.0472, 1.09662)}: all, proven");
    CHECK(textOf("tan(x) = y and y = x for x in [4, 4.6], y in [4, 4.6]", Sought::Zeros) ==
          "{(4.49341, 4.49341)}: all, proven");
}

TEST_CASE("extrema and saddles are told apart") {
    CHECK(textOf("extrema of x^3 - 3x + y^2" + over, Sought::Extrema) ==
          "{(-1, 0, 2) saddle, (1, 0, -2) minimum}: all, proven");
    CHECK(textOf("extrema of 1/((x - 0.31)^2 + (y + 0.47)^2 + 1e-4)" + over, Sought::Extrema) ==
          "{(0.31, -0.47, 10000) maximum}: all, proven");
    CHECK(textOf("extrema of x + 2y" + over, Sought::Extrema) == "{}: none, proven");
    // Himmelblau's function, D. M. Himmelblau, "Applied Nonlinear Programming" (1972): four minima, four saddles.
    const Places four = placesOf("extrema of (x^2 + y - 11)^2 + (x + y^2 - 7)^2 for x in [-5, 5], y in [-5, 5]");
    CHECK(four.areAll());
    std::array<int, 3> counts{};
    for (const FoundPlace& each : four.found) ++counts[each.word == "minimum" ? 0 : each.word == "saddle" ? 1 : 2];
    CHECK(counts == std::array<int, 3>{4, 4, 1});
}

TEST_CASE("edges of the rectangle count to within their rounding, and are named") {
    const Places places = placesOf("extrema of sin(x) sin(y) for x in [0, 2pi], y in [0, 2pi]");
    CHECK(places.areAll());
    CHECK(places.found.size() == 13);
    CHECK(std::ranges::count(places.found, std::string("saddle at the edge"), &FoundPlace::word) == 8);
    CHECK(textOf("x = 1 and y = 2 for x in [0, 1], y in [2, 3]", Sought::Zeros) == "{(1, 2) at the edge}: all, proven");
}

TEST_CASE("where it is largest is looked for at the edges and corners, too") {
    CHECK(textOf("maximum of x y for x in [-1, 1], y in [0, 2]", Sought::Maximum) ==
          "{(1, 2, 2) at the corner}: all, proven");
    CHECK(textOf("maximum of sin(x) cos(y) for x in [0, 6], y in [0, 6]", Sought::Maximum) ==
          "{(1.5708, 0, 1) at the edge, (4.71239, 3.14159, 1)}: all, proven");
    CHECK(textOf("minimum of (1 - x)^2 + 100 (y - x^2)^2" + over, Sought::Minimum) == "{(1, 1, 0)}: all, proven");
}

TEST_CASE("where a function ends it may have an extremum without a slope, and that is left open") {
    const std::string dome = "sqrt(1 - x^2 - y^2)" + over;
    const Places extrema = placesOf("extrema of " + dome);
    REQUIRE(extrema.found.size() == 1);
    CHECK(extrema.found[0].isProven);
    CHECK(extrema.why == "it ends, jumps or has a corner there");
    CHECK(isOpenAt(extrema, 0.6, 0.8));
    // The least value is at the end, and nothing else may be called it; the greatest is far above all that is open.
    for (const std::string& least : {"minimum of " + dome, "minimum of arccos(x^2 + y^2)" + over}) {
        const Places found = placesOf(least);
        INFO(least << describe(found, Sought::Minimum));
        CHECK_FALSE(found.areAll());
        CHECK(isOpenAt(found, 0.6, 0.8));
        REQUIRE(!found.found.empty());
        CHECK(found.found[0].value < 0.3);
        CHECK_FALSE(found.found[0].isProven);
    }
    CHECK(textOf("maximum of " + dome, Sought::Maximum) == "{(0, 0, 1)}: all, proven");
}

TEST_CASE("ends that do not belong to their interval have no places") {
    CHECK(textOf("extrema of x^2 + y^2 for x in [0, 1], y in [0, 1]", Sought::Extrema) ==
          "{(0, 0, 0) minimum at the edge}: all, proven");
    CHECK(textOf("extrema of x^2 + y^2 for x in (0, 1], y in [0, 1]", Sought::Extrema) == "{}: none, proven");
    CHECK(textOf("extrema of x^2 + y^2 for x in [0, 1], y in (0, 1]", Sought::Extrema) == "{}: none, proven");
    CHECK(textOf("maximum of x y for x in [0, 1), y in [0, 1]", Sought::Maximum) ==
          "{(1, 1, 1) towards the edge, not reached}: all, proven");
}

TEST_CASE("multiple places are said to exist, and to be one or more") {
    CHECK(textOf("extrema of x^4 + y^4" + over, Sought::Extrema) ==
          "{(0, 0, 0) minimum one or more}: not all settled; several may lie so close together");
    CHECK(textOf("extrema of x^3 - 3x y^2" + over, Sought::Extrema) ==
          "{(0, 0, 0) saddle one or more}: not all settled; several may lie so close together");
    CHECK(textOf("extrema of |x| + |y|" + over, Sought::Extrema) ==
          "{(0, 0, 0) minimum one or more}: not all settled; several may lie so close together");
    const Places touching = placesOf("x^2 + y^2 = 1 and x = 1" + over);
    REQUIRE(touching.found.size() == 1);
    CHECK_FALSE(touching.found[0].isProven);
    CHECK(touching.found[0].word == "touching");
    CHECK_FALSE(touching.areAll());
}

TEST_CASE("whole lines of places, poles and jumps are left open where they are") {
    const Places ring = placesOf("extrema of exp(-40 (sqrt(x^2 + y^2) - 1)^2)" + over);
    CHECK_FALSE(ring.areAll());
    CHECK(ring.why == "they may form a line");
    for (const double angle : {0.1, 1.0, 2.5, 4.0}) CHECK(isOpenAt(ring, std::cos(angle), std::sin(angle)));
    const Places pole = placesOf("extrema of 1/(x^2 + y^2)" + over);
    CHECK(isOpenAt(pole, 0, 0));
    const Places jump = placesOf("extrema of floor(x) - (x - 0.2)^2 - y^2 for x in [-1, 1], y in [-1, 1]");
    CHECK_FALSE(jump.areAll()); // its greatest value is at the jump
}

TEST_CASE("places of systems that are made of their solutions are all found") {
    std::mt19937 chance(20261202);
    std::uniform_real_distribution<double> in(-1.9, 1.9), slant(-1, 1);
    for (int round = 0; round < rounds(60); ++round) {
        // (x − a)(x − b)(x − c) = 0 and y = p x + q x², turned together by a linear map of full rank.
        std::array<double, 3> roots{};
        for (double& each : roots) each = std::round(in(chance)*1000) / 1000;
        const double p = std::round(slant(chance) * 100) / 100, q = std::round(slant(chance) * 10) / 100,
                     m = std::round(slant(chance) * 40) / 100;
        const std::string product = fmt::format("(x - ({})) (x - ({})) (x - ({}))", roots[0], roots[1], roots[2]),
                          parabola = fmt::format("(y - ({}) x - ({}) x^2)", p, q);
        const std::string text = product + " + (" + fmt::format("{}", m) + ") " + parabola + " = 0 and " + parabola +
                                 " - (" + fmt::format("{}", m / 2) + ") " + product +
                                 " = 0 for x in [-2, 2], y in [-4, 4]";
        const Places places = placesOf(text);
        INFO(text << "\n" << describe(places, Sought::Zeros));
        for (const double x : roots) {
            const double y = p * x + q * x * x;
            const auto isThere = [&](const FoundPlace& each) {
                return std::abs(each.at - x) < 1e-12 && std::abs(each.across - y) < 1e-12;
            };
            CHECK((std::ranges::count_if(places.found, isThere) == 1 || isOpenAt(places, x, y)));
        }
        std::ranges::sort(roots);
        const std::size_t different = static_cast<std::size_t>(std::unique(roots.begin(), roots.end()) - roots.begin());
        CHECK(places.found.size() == different);
        if (different == 3) CHECK(places.areAll());
    }
}

TEST_CASE("level places of sums of waves are those that steps of Newton's method from everywhere end at") {
    std::mt19937 chance(7);
    std::uniform_real_distribution<double> size(-1, 1), wave(-3, 3), phase(0, 6);
    for (int round = 0; round < rounds(15); ++round) {
        struct Wave {
            double a, k, l, p;
        };
        std::array<Wave, 3> waves{};
        std::string text;
        for (Wave& w : waves) {
            const auto rounded = [](double x) { return std::round(x * 100) / 100; };
            w = {rounded(size(chance)) + 0.3, rounded(wave(chance)), rounded(wave(chance)), rounded(phase(chance))};
            text += (text.empty() ? "" : " + ") + fmt::format("({}) cos(({}) x + ({}) y + {})", w.a, w.k, w.l, w.p);
        }
        const Places places = placesOf("extrema of " + text + over);
        INFO(text << "\n" << describe(places, Sought::Extrema));
        for (int i = 0; i < 40; ++i) {
            for (int j = 0; j < 40; ++j) {
                double x = -2 + 0.1 * (i + 0.5), y = -2 + 0.1 * (j + 0.5), moved = 1;
                for (int step = 0; step < 30 && moved > 1e-13; ++step) {
                    double gx = 0, gy = 0, xx = 0, xy = 0, yy = 0;
                    for (const Wave& w : waves) {
                        const double at = w.k * x + w.l * y + w.p, s = -w.a * std::sin(at), c = -w.a * std::cos(at);
                        gx += s * w.k, gy += s * w.l;
                        xx += c * w.k * w.k, xy += c * w.k * w.l, yy += c * w.l * w.l;
                    }
                    const double d = xx * yy - xy * xy, dx = (gx * yy - gy * xy) / d, dy = (gy * xx - gx * xy) / d;
                    x -= dx, y -= dy;
                    moved = std::hypot(dx, dy);
                }
                if (!(moved <= 1e-12) || std::abs(x) > 1.999 || std::abs(y) > 1.999) continue;
                const bool isThere = std::ranges::any_of(places.found, [&](const FoundPlace& each) {
                    return std::hypot(each.at - x, each.across - y) < 1e-7;
                });
                REQUIRE((isThere || isOpenAt(places, x, y)));
            }
        }
        for (std::size_t i = 1; i < places.found.size(); ++i)
            CHECK_FALSE(holds(places.found[i], places.found[i - 1].at, places.found[i - 1].across));
    }
}

TEST_CASE("the sides of a rectangle may be those of the page's variables, and places are columns") {
    const std::vector<std::string> lines{"h(x, y) = x^3 - 3x + y^2",
                                         "x in [-2, 2]",
                                         "y in [-1, 1]",
                                         "(a, b, c) = extrema of h(x, y) for x, y",
                                         "m = mean(c)",
                                         "(p, q) = zeros of (h(x, y), x - y) for x, y"};
    const Page page = readPage(lines);
    for (const Line& line : page.lines) {
        INFO(line.source);
        REQUIRE(line.good());
    }
    CHECK(*page.columnOf("a") == std::vector<double>{-1, 1});
    CHECK(*page.columnOf("b") == std::vector<double>{0, 0});
    CHECK(*page.columnOf("c") == std::vector<double>{2, -2});
    REQUIRE(page.columnOf("p"));
    CHECK(page.columnOf("p")->size() == 1);
    // Along one variable, places and what the function is worth there.
    const Page along = readPage(std::vector<std::string>{"(a, b) = extrema of x^3 - 3x for x in [-2, 2]"});
    REQUIRE(along.lines[0].good());
    CHECK(*along.columnOf("b") == std::vector<double>{2, -2});
}

TEST_CASE("what cannot be asked over two variables is said") {
    const auto problemOf = [](const std::string& text) {
        const Page page = readPage(std::vector<std::string>{text});
        INFO(text);
        REQUIRE(!page.lines[0].problems.empty());
        CHECK(!page.lines[0].problems[0].suggestion.empty());
        return page.lines[0].problems[0].sentence;
    };
    CHECK(problemOf("x^2 + y^2 = 1" + over) == "One equation over two variables holds along a curve.");
    CHECK(problemOf("x = 1 and y = 1 and x = y" + over) == "Two equations decide where two variables are.");
    CHECK(problemOf("inflections of x y" + over) == "This is looked for along one variable.");
    CHECK(problemOf("a = extrema of x y" + over) == "Places over two variables are two columns.");
    CHECK(problemOf("(a, b, c) = zeros of (x, y)" + over) == "Places over two variables are two columns.");
    CHECK(problemOf("zeros of x y" + over) ==
          "Over two variables two functions are zero at single places, and here is one.");
    CHECK(problemOf("extrema of (x, y)" + over) == "A vector has no extrema of its own.");
    CHECK(problemOf("extrema of x y for x in [0, 1], y") == "Of two variables both intervals are said, or neither.");
    CHECK(problemOf("extrema of x y for x in [0, 1], y in [1, 0]") ==
          "The interval has no extent: it starts at 1 and ends at 0.");
}
