#include "sampling/grid.h"
#include "sampling/range.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

std::vector<double> points(Interval interval, Grid grid) {
    const GridPoints result = gridPoints(interval, grid, "x");
    INFO((result.problems.empty() ? "" : result.problems[0].sentence));
    CHECK(result.problems.empty());
    return result.points;
}

std::string refusal(Interval interval, Grid grid) {
    const GridPoints result = gridPoints(interval, grid, "x");
    CHECK(result.points.empty());
    REQUIRE(result.problems.size() == 1);
    return result.problems[0].sentence;
}

} // namespace

TEST_CASE("a count gives points at closed ends and none at open ones") {
    const auto closed = points({0, 1, true, true}, {101, {}, false});
    REQUIRE(closed.size() == 101);
    CHECK(closed.front() == 0);
    CHECK(closed.back() == 1);
    CHECK(closed[7] == 0.07);
    CHECK(closed[30] == 0.3);
    const auto periodic = points({0, 1, true, false}, {100, {}, false});
    REQUIRE(periodic.size() == 100);
    CHECK(std::equal(periodic.begin(), periodic.end(), closed.begin()));
    const auto open = points({0, 1, false, false}, {99, {}, false});
    REQUIRE(open.size() == 99);
    CHECK(std::equal(open.begin(), open.end(), closed.begin() + 1));
    const auto leftOpen = points({0, 1, false, true}, {100, {}, false});
    CHECK(leftOpen.back() == 1);
    CHECK(leftOpen.front() == 0.01);
    CHECK(points({0, 1, true, false}, {1, {}, false}) == std::vector<double>{0});
    CHECK(points({0, 1, false, false}, {1, {}, false}) == std::vector<double>{0.5});
}

TEST_CASE("a step includes the right end only if it is closed and on the grid") {
    CHECK(points({0, 1, true, true}, {{}, 0.25, false}) == std::vector<double>{0, 0.25, 0.5, 0.75, 1});
    CHECK(points({0, 1, true, false}, {{}, 0.25, false}) == std::vector<double>{0, 0.25, 0.5, 0.75});
    CHECK(points({0, 1, false, true}, {{}, 0.25, false}) == std::vector<double>{0.25, 0.5, 0.75, 1});
    CHECK(points({0, 1, true, true}, {{}, 0.4, false}) == std::vector<double>{0, 0.4, 0.8});
    const auto tenths = points({0, 1, true, true}, {{}, 0.1, false}); // 10 × 0.1 is 1 only to rounding
    REQUIRE(tenths.size() == 11);
    CHECK(tenths.back() == 1);
    CHECK(points({0, 1, true, false}, {{}, 0.1, false}).size() == 10);
}

TEST_CASE("a logarithmic grid is even in the logarithm, on either side of zero") {
    const auto up = points({1, 1e6, true, true}, {7, {}, true});
    REQUIRE(up.size() == 7);
    for (int i = 0; i < 7; ++i) CHECK(up[static_cast<std::size_t>(i)] == Approx(std::pow(10, i)).epsilon(1e-14));
    CHECK(up.back() == 1e6);
    const auto down = points({-100, -1, true, true}, {3, {}, true});
    CHECK(down[1] == Approx(-10));
    CHECK(down[0] < down[1]);
    CHECK(down[1] < down[2]);
}

TEST_CASE("grids that cannot be are refused in one sentence") {
    using namespace Catch::Matchers;
    CHECK_THAT(refusal({0, 1, true, true}, {1e12, {}, false}), Contains("10 million"));
    CHECK_THAT(refusal({0, 1, true, true}, {2.5, {}, false}), Contains("whole number"));
    CHECK_THAT(refusal({0, 1, true, true}, {-3, {}, false}), Contains("whole number"));
    CHECK_THAT(refusal({0, 1, true, true}, {NAN, {}, false}), Contains("whole number"));
    CHECK_THAT(refusal({0, 1, true, true}, {1, {}, false}), Contains("both closed ends"));
    CHECK_THAT(refusal({0, 1, true, true}, {{}, 1e-9, false}), Contains("10 million"));
    CHECK_THAT(refusal({0, 1, true, true}, {{}, -1, false}), Contains("positive"));
    CHECK_THAT(refusal({0, 1, false, true}, {{}, 2, false}), Contains("no point"));
    CHECK_THAT(refusal({0, 1, true, true}, {5, {}, true}), Contains("one side of zero"));
    CHECK_THAT(refusal({1, 2, true, true}, {{}, 0.1, true}), Contains("no constant step"));
    CHECK_THAT(refusal({1, 2, true, true}, {3, 0.1, false}), Contains("not both"));
}

TEST_CASE("the range worth showing leaves out what flattens the rest") {
    std::vector<double> values;
    for (int i = 0; i < 1000; ++i) values.push_back(std::sin(0.01 * i));
    CHECK(robustRange(values)->first == Approx(-1).margin(1e-3));
    values[500] = 1e9;
    values[501] = -INFINITY;
    values[502] = NAN;
    CHECK(robustRange(values)->second < 3);
    CHECK(robustRange(values)->first >= -3);
    std::vector<double> growing;
    for (int i = 0; i <= 100; ++i) growing.push_back(std::exp(0.05 * i));
    CHECK(robustRange(growing)->second == growing.back()); // steep, but readable as a whole
    CHECK_FALSE(robustRange(std::vector<double>{NAN, INFINITY}));
    CHECK(robustRange(std::vector<double>{3, 3})->first == 3);
}
