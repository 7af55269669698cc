// Zeros, extrema and inflections: all of them, and nothing but them.
#include "formula/lines/places_text.h"
#include "formula/lines/searches.h"

#include "formula/base/text.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>
#include <random>

using namespace coulter;

namespace {

Places placesOf(const std::string& text, std::vector<std::string> page = {}) {
    const auto found = searchText(readPage(page), text);
    REQUIRE(found);
    INFO(text);
    REQUIRE(found->problems.empty());
    return found->places;
}

std::vector<double> at(const Places& places) {
    std::vector<double> all;
    for (const FoundPlace& each : places.found) all.push_back(each.at);
    return all;
}

std::string problemOf(const std::string& text, std::vector<std::string> page = {}) {
    const auto found = searchText(readPage(page), text);
    REQUIRE(found);
    REQUIRE(!found->problems.empty());
    return found->problems[0].sentence;
}

} // namespace

TEST_CASE("an equation has all its solutions") {
    const Places sine = placesOf("sin(x) = 0 for x in [1, 10]");
    CHECK(sine.areAll());
    CHECK(at(sine) == std::vector<double>{3.141592653589793, 6.283185307179586, 9.42477796076938});
    CHECK(describe(sine, Sought::Zeros) == "{3.141592653589793, 6.283185307179586, 9.42477796076938}: all, proven");
    CHECK(at(placesOf("e^x = 3x for x in [0, 3]")).size() == 2);
    CHECK(describe(placesOf("x^2 + 1 = 0 for x in [-5, 5]"), Sought::Zeros) == "{}: none, proven");
    const Places page = placesOf("f(x) = 1 for x", {"f(x) = a x^2", "a = 4", "x in [-2, 2]"});
    CHECK(page.areAll());
    CHECK(at(page) == std::vector<double>{-0.5, 0.5});
}

TEST_CASE("ends of the interval count when they are closed, to within their rounding") {
    const Places closed = placesOf("sin(x) = 0 for x in [0, 2pi]");
    CHECK(closed.areAll());
    CHECK(at(closed) == std::vector<double>{0, 3.141592653589793, 2 * M_PI});
    CHECK(closed.found[0].word == "at the edge");
    CHECK(closed.found[2].word == "at the edge");
    CHECK(at(placesOf("sin(x) = 0 for x in (0, 2pi)")) == std::vector<double>{3.141592653589793});
    CHECK(at(placesOf("x - 1 = 0 for x in [0, 1)")).empty());
    CHECK(at(placesOf("x - 1 = 0 for x in (1, 2]")).empty());
    CHECK(at(placesOf("sqrt(x) = 0 for x in [0, 1]")) == std::vector<double>{0});
}

TEST_CASE("multiple zeros are named so, near ones are told apart, poles are none") {
    const Places square = placesOf("(x - 1)^2 = 0 for x in [0, 3]");
    CHECK(square.areAll());
    REQUIRE(square.found.size() == 1);
    CHECK(square.found[0].word == "multiple");
    CHECK(at(placesOf("x^3 = 0 for x in [-1, 2]")) == std::vector<double>{0});
    CHECK(at(placesOf("(x - 1)(x - 1.000001) = 0 for x in [0, 3]")) == std::vector<double>{1, 1.000001});
    const Places tangent = placesOf("tan(x) = 0 for x in [-5, 5]");
    CHECK(tangent.areAll());
    CHECK(tangent.found.size() == 3);
    CHECK(placesOf("1/x = 0 for x in [-1, 1]").areAll());
    CHECK(at(placesOf("1/(x - 1) + 1/(x - 2) = 0 for x in [0, 3]")) == std::vector<double>{1.5});
    CHECK(placesOf("|sin(x)| = 0 for x in [1, 10]").found.size() == 3);
    CHECK(describe(placesOf("(x - 0.3)^4 (x - 2) = 0 for x in [0, 3]"), Sought::Zeros) ==
          "{0.3 multiple, 2}: all, proven");
    CHECK(describe(placesOf("x (x - 1)(x^2 - 1) = 0 for x in [-2, 2]"), Sought::Zeros) ==
          "{-1, 0, 1 multiple}: all, proven");
    // Where the function is not defined a factor's zero is none.
    CHECK(describe(placesOf("x ln(x) = 0 for x in [0, 2]"), Sought::Zeros) == "{1}: all, proven");
    CHECK(at(placesOf("sin(x)/x = 0 for x in [-4, 4]")) == std::vector<double>{-M_PI, M_PI});
    CHECK(at(placesOf("(x^2 - 1)/(x - 1) = 0 for x in [-2, 2]")) == std::vector<double>{-1});
    CHECK(placesOf("0 x = 0 for x in [0, 1]").found[0].word == "all along");
    CHECK(placesOf("f(x) = 0 for x in [0, 2]", {"f(x) = (x - 1)^2"}).areAll());
}

TEST_CASE("what cannot be settled is said, never guessed") {
    // Touching at a place that no double is: the sign of rounding says nothing.
    const Places touching = placesOf("x^2 - 2pi x + pi^2 = 0 for x in [0, 5]");
    CHECK(!touching.areAll());
    REQUIRE(touching.unsettled.size() == 1);
    CHECK(touching.unsettled[0].low <= M_PI);
    CHECK(touching.unsettled[0].high >= M_PI);
    CHECK(touching.unsettled[0].high - touching.unsettled[0].low < 1e-6);
    CHECK(placesOf("(x - pi)^2 = 0 for x in [0, 5]").areAll()); // its factor tells
    // Infinitely many.
    const Places dense = placesOf("sin(1/x) = 0 for x in [0, 1]");
    CHECK(!dense.areAll());
    CHECK(dense.unsettled.front().low == 0);
    for (const FoundPlace& each : dense.found) {
        const double k = std::round(1 / (M_PI * each.at));
        CHECK(std::abs(each.at * k * M_PI - 1) < 1e-9);
    }
    // A jump over zero.
    const Places jump = placesOf("[x > 1] - 0.5 = 0 for x in [0, 2]");
    CHECK(jump.found.empty());
    CHECK(!jump.areAll());
    // A series of which no growth is known has an error estimate, which proves nothing; an integral has proven bounds.
    CHECK(!placesOf("sum_{n=0}^{inf} (-1)^n x^(2n + 1)/(2n + 1)! J_0(n - n) = 0.5 for x in [0, 2]").areAll());
    const Places integral = placesOf("int_0^x cos(t) dt = 0.5 for x in [0, 2]");
    CHECK(integral.areAll());
    REQUIRE(integral.found.size() == 1);
    CHECK(integral.found[0].at == Approx(M_PI / 6).epsilon(1e-14));
}

TEST_CASE("extrema, inflections, and where a function is largest") {
    const Places waves = placesOf("extrema of sin(x) for x in [0, 10]");
    CHECK(waves.areAll());
    REQUIRE(waves.found.size() == 3);
    CHECK(waves.found[0].word == "maximum");
    CHECK(waves.found[1].word == "minimum");
    CHECK(waves.found[1].value == -1);
    CHECK(placesOf("extrema of x^3 for x in [-1, 1]").found.empty());
    const Places flat = placesOf("extrema of x^4 for x in [-1, 1]");
    REQUIRE(flat.found.size() == 1);
    CHECK(flat.found[0].word == "minimum");
    CHECK(describe(placesOf("extrema of x^2 e^(-x) for x in [-1, 5]"), Sought::Extrema) ==
          "{(0, 0) minimum, (2, 0.5413411329464508) maximum}: all, proven");
    CHECK(placesOf("extrema of sqrt(x) for x in [0, 2]").found.empty());
    const Places bell = placesOf("inflections of e^(-x^2) for x in [-3, 3]");
    REQUIRE(bell.found.size() == 2);
    CHECK(bell.found[1].at == Approx(std::sqrt(0.5)).epsilon(1e-15));
    const Places largest = placesOf("maximum of x sin(x) for x in [0, 10]");
    CHECK(largest.areAll());
    REQUIRE(largest.found.size() == 1);
    CHECK(largest.found[0].at == Approx(7.978665712413241).epsilon(1e-14));
    const Places atEdge = placesOf("minimum of x^2 for x in [1, 3]");
    CHECK(atEdge.areAll());
    REQUIRE(atEdge.found.size() == 1);
    CHECK(atEdge.found[0].at == 1);
    CHECK(placesOf("maximum of sin(x) for x in [0, 20]").found.size() == 3); // all that are equal
    const Places corner = placesOf("extrema of |x| for x in [-1, 2]");
    REQUIRE(corner.found.size() == 1);
    CHECK(corner.found[0].word == "minimum");
    CHECK(corner.areAll());
    CHECK(!placesOf("maximum of mod(x, 1) for x in [0, 2.5]").areAll()); // it is never taken
}

TEST_CASE("corners are proven to be extrema or none, and jumps are not") {
    const auto said = [](const std::string& text) {
        const Answer found = evaluate(Page{}, text);
        INFO(text);
        REQUIRE(found.places);
        return describe(*found.places, found.sought, 12);
    };
    CHECK(said("minimum of |x - 1/3| + x^2 for x in [-1, 1]") == "{(0.333333333333, 0.111111111111)}: all, proven");
    CHECK(said("extrema of max(sin(x), cos(x)) for x in [0.5, 2]") ==
          "{(0.785398163397, 0.707106781187) minimum, (1.57079632679, 1) maximum}: all, proven");
    CHECK(said("extrema of ||x| - 1| for x in [-2, 2]") ==
          "{(-1, 0) minimum, (0, 1) maximum, (1, 0) minimum}: all, proven");
    CHECK(said("extrema of x + |x - 1|/2 for x in [0, 3]") == "{}: none, proven");
    CHECK(said("extrema of min(x, 1 - x, 0.4) for x in [0, 1]") == "{}: none, proven"); // level on top
    // Pieces that meet are told from such that do not by exact arithmetic.
    CHECK(said("extrema of { x for x < 1/3; 2/3 - x otherwise } for x in [0, 1]") ==
          "{(0.333333333333, 0.333333333333) maximum}: all, proven");
    CHECK(said("extrema of { x for x < 1/3; 2/3 - x + 1e-15 otherwise } for x in [0, 1]").find("not settled") !=
          std::string::npos);
    // Two corners in one place, a cusp: what cannot be decided is said.
    CHECK(said("extrema of |x| + |2x| for x in [-1, 1]").find("not settled") != std::string::npos);
    CHECK(said("extrema of sqrt(|x|) for x in [-1, 1]").find("not settled") != std::string::npos);
}

TEST_CASE("corners of random polygons are all found, and none is invented") {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> slope(0.2, 3);
    for (int round = 0; round < 40; ++round) {
        // Σ c_k |x − x_k| changes its slope by 2 c_k at each x_k: where the sign of the slope changes is an extremum.
        std::string formula = "0";
        std::vector<std::pair<double, double>> corners; // place, half the change of slope
        for (int k = 1; k <= 5; ++k) {
            const double at = k + 0.1 * static_cast<double>(random() % 9),
                         c = (random() % 2 == 0 ? 1 : -1) * slope(random);
            formula += fmt::format(" + ({:.6f}) |x - {:.6f}|", c, at);
            corners.emplace_back(at, c);
        }
        double now = 0;
        for (const auto& corner : corners) now -= corner.second;
        std::vector<double> extrema;
        bool isNear = false; // a slope that is all but level is not this test's
        for (const auto& [at, c] : corners) {
            const double next = now + 2 * c;
            if (now * next < 0) extrema.push_back(at);
            isNear = isNear || std::abs(next) < 1e-3;
            now = next;
        }
        if (isNear) continue;
        const Answer found = evaluate(Page{}, "extrema of " + formula + " for x in [0, 7]");
        INFO(formula);
        REQUIRE(found.places);
        CHECK(found.places->areAll());
        REQUIRE(found.places->found.size() == extrema.size());
        for (std::size_t i = 0; i < extrema.size(); ++i) CHECK(found.places->found[i].at == Approx(extrema[i]));
    }
}

TEST_CASE("a search that makes no sense is refused with its place") {
    CHECK(problemOf("f(x) = 0 for x in [3, 1]", {"f(x) = x"}).find("no extent") != std::string::npos);
    CHECK(problemOf("x = 0 for x").find("interval of x") != std::string::npos);
    CHECK(problemOf("(x, x) = 0 for x in [0, 1]").size() > 0);
    CHECK(problemOf("x for x in [0, 1]").find("not said") != std::string::npos);
    CHECK(problemOf("zeros f(x) for x in [0, 1]", {"f(x) = x"}).find("“of”") != std::string::npos);
    CHECK(problemOf("q(x) = 0 for x in [0, 1]").find("q") != std::string::npos);
    CHECK(problemOf("x = 0 for x in [0, inf]").find("finite") != std::string::npos);
    CHECK(!searchText(readPage(std::vector<std::string>{}), "f(2)"));
}

TEST_CASE("a search is a line of the page") {
    const Page page = readPage(
        std::vector<std::string>{"f(x) = x^2 - 2", "f(x) = 0 for x in [0, 2]", "maximum of f(x) for x in [0, 2] = ?"});
    CHECK(page.problems().empty());
    REQUIRE(page.lines[1].places);
    CHECK(page.lines[1].places->found[0].at == Approx(std::sqrt(2)).epsilon(1e-15));
    REQUIRE(page.lines[2].places);
    CHECK(page.lines[2].places->found[0].value == 2);
}

TEST_CASE("places that are found are a column, if they have a name") {
    const Page page = readPage(std::vector<std::string>{"z = zeros of cos(x) for x", "m = mean(z)", "f(x) = x cos(x)",
                                                        "u = extrema of f(x) for x in [0, 6]", "x in [0, 10]"});
    CHECK(page.problems().empty());
    REQUIRE(page.columnOf("z"));
    CHECK(*page.columnOf("z") == std::vector<double>{M_PI / 2, 3 * M_PI / 2, 5 * M_PI / 2});
    CHECK(*page.valueOf("m") == Approx(3 * M_PI / 2));
    CHECK(page.columnOf("u")->size() == 2);
    CHECK(evaluate(page, "f(u)").columns[0]->size() == 2);
}

TEST_CASE("zeros of random products of known roots are found and none is invented", "[thorough]") {
    std::mt19937_64 random(11);
    std::uniform_real_distribution<double> unit(-3, 3);
    std::size_t settled = 0, all = 0;
    for (int round = 0; round < 200; ++round) {
        std::vector<double> roots;
        const int count = 1 + static_cast<int>(random() % 6);
        for (int i = 0; i < count; ++i) roots.push_back(std::round(unit(random) * 1000) / 1000);
        if (round % 5 == 0) roots.push_back(roots[0] + 1e-6); // near ones
        std::ranges::sort(roots);
        const bool different = std::ranges::adjacent_find(roots) == roots.end();
        if (!different) continue;
        // Written out, so that no factor gives its zero away; by one of several envelopes without zeros.
        std::string text;
        for (const double root : roots) text += "(x - (" + shortestNumber(root) + "))";
        const char* envelopes[] = {"", " e^(-x^2)", "/(1 + x^2)", " (2 + sin(5x))"};
        text += envelopes[random() % 4];
        INFO(text);
        const Places places = placesOf("zeros of " + text + " for x in [-4, 4]");
        ++all;
        settled += places.areAll() ? 1 : 0;
        // Every root lies in what was found or what is unsettled; everything that is proven holds a root.
        for (const double root : roots) {
            const auto holds = [&](const Bounds& each) { return each.low <= root && root <= each.high; };
            CHECK((std::ranges::any_of(places.found, [&](const FoundPlace& each) { return holds(each.within); }) ||
                   std::ranges::any_of(places.unsettled, holds)));
        }
        for (const FoundPlace& each : places.found) {
            CHECK(std::ranges::count_if(
                      roots, [&](double root) { return each.within.low <= root && root <= each.within.high; }) == 1);
        }
    }
    CHECK(settled >= 0.9 * static_cast<double>(all));
}

TEST_CASE("of what has no bounds the zeros that its values show are found, and not called proven") {
    // cos(x), and with a factor 1 that no growth is known of
    for (const char* factor : {"", " J_0(n - n)"}) {
        const bool isProven = factor[0] == 0;
        const Places series =
            placesOf("sum_{n=0}^{inf} (-1)^n x^(2n)/(2n)!" + std::string(factor) + " = 0 for x in [0, 8]");
        CHECK(series.areAll() == isProven);
        REQUIRE(series.found.size() == 3);
        for (std::size_t i = 0; i < 3; ++i) {
            CHECK(series.found[i].at == Approx((static_cast<double>(i) + 0.5) * M_PI).epsilon(1e-12));
            CHECK(series.found[i].isProven == isProven);
        }
    }
    CHECK(placesOf("sum_{n=1}^{inf} [x > n]/2^n - 0.6 = 0 for x in [0, 8]").found.empty()); // it jumps
}

TEST_CASE("an end that does not belong to the interval is no largest value, and none is listed twice") {
    const auto said = [](const std::string& text) {
        const auto found = searchText(Page{}, text);
        REQUIRE(found);
        return describe(found->places, found->sought);
    };
    CHECK(said("minimum of x^2 for x in (0, 1)").starts_with("{(0, 0) towards the edge, not reached}"));
    CHECK(said("minimum of x^2 for x in [0, 1)").starts_with("{(0, 0)"));
    CHECK(said("minimum of x^2 for x in [0, 1)").find("not reached") == std::string::npos);
    CHECK(at(placesOf("maximum of cos(x) for x in [0, 2pi]")).size() == 2);
    CHECK(at(placesOf("maximum of x^2 for x in (-1, 1)")).size() == 2);
    CHECK(placesOf("maximum of x^2 for x in (-1, 1)").found[0].word == "towards the edge, not reached");
}
