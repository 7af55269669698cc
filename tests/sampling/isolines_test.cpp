#include "field_program.h"
#include "sampling/field.h"
#include "sampling/grid.h"
#include "sampling/isolines.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <numbers>
#include <tbb/global_control.h>

using namespace coulter;

namespace {

constexpr double pi = std::numbers::pi;

const PanelMap map{{ScaleKind::Linear, -3, 3, 120}, {ScaleKind::Linear, -2, 2, 80}}; // 20 mm a unit
const std::array<Interval, 2> whole{Interval{-3, 3, true, true}, Interval{-2, 2, true, true}};

FieldSamples mesh(const Program& f, double low, double high) { return sampleMesh(f, whole, map, {0.02, low, high}); }

FieldSamples grid(const Program& f, int columns, int rows) {
    const auto points = [](double low, double high, int count) {
        std::vector<double> some;
        for (int i = 0; i < count; ++i) some.push_back(low + (high - low) * i / (count - 1));
        return some;
    };
    return sampleMeshgrid(f, points(-3, 3, columns), points(-2, 2, rows));
}

double lengthOf(const Path& path, bool closed) {
    double length = 0;
    const std::size_t n = path.size();
    for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i)
        length += std::hypot(path.x[(i + 1) % n] - path.x[i], path.y[(i + 1) % n] - path.y[i]);
    return length;
}

double areaOf(const std::vector<Path>& rings) { // with its sign: what is above is to the left
    double area = 0;
    for (const Path& ring : rings) {
        for (std::size_t i = 0, n = ring.size(); i < n; ++i)
            area += (ring.x[i] * ring.y[(i + 1) % n] - ring.x[(i + 1) % n] * ring.y[i]) / 2;
    }
    return area;
}

struct Case {
    const char* formula;
    double level;
    std::size_t closed, open;
    double length; ///< of all lines together, in the panel; NaN: not known
    /// Distance from the true line, in the user's units.
    std::function<double(double, double)> away;
};

/// First-order distance from the line of a smooth function, by its value and its slope.
std::function<double(double, double)> bySlope(const std::string& formula, double level) {
    return [f = field(formula), level](double x, double y) {
        const auto at = [&](double p, double q) {
            double z = 0;
            const double* const in[] = {&p, &q};
            double* const out[] = {&z};
            Evaluator evaluator(*f);
            evaluator(in, out, 1);
            return z;
        };
        const double h = 1e-5, slope = std::hypot(at(x + h, y) - at(x - h, y), at(x, y + h) - at(x, y - h)) / (2 * h);
        return std::abs(at(x, y) - level) / slope;
    };
}

std::vector<Case> cases() {
    const auto circle = [](double r) { return [r](double x, double y) { return std::abs(std::hypot(x, y) - r); }; };
    return {
        {"x^2 + y^2", 1, 1, 0, 2 * pi, circle(1)},
        {"x^2 + y^2", 1e-4, 1, 0, 2 * pi * 0.01, circle(0.01)},
        {"-(x^2 + y^2)", -2.25, 1, 0, 3 * pi, circle(1.5)},
        {"x^2/4 + y^2", 1, 1, 0, 9.6884482205476761984, bySlope("x^2/4 + y^2", 1)},
        {"(x^2 + y^2)^2 - 2(x^2 - y^2)", -0.19, 2, 0, NAN, bySlope("(x^2 + y^2)^2 - 2(x^2 - y^2)", -0.19)},
        {"(x^2 + y^2)^2 - 2(x^2 - y^2)", 0.44, 1, 0, NAN, bySlope("(x^2 + y^2)^2 - 2(x^2 - y^2)", 0.44)},
        {"x^2 - y^2", 1, 0, 2, NAN, bySlope("x^2 - y^2", 1)},
        {"x y", 0.0001, 0, 2, NAN, bySlope("x y", 0.0001)},
        {"y - sin(5x)", 0, 0, 1, NAN, bySlope("y - sin(5x)", 0)},
        {"exp(-20 ((x - 1)^2 + (y - 0.5)^2))", 0.99, 1, 0, 2 * pi * std::sqrt(-std::log(0.99) / 20),
         [](double x, double y) { return std::abs(std::hypot(x - 1, y - 0.5) - std::sqrt(-std::log(0.99) / 20)); }},
        {"sqrt(4 - x^2 - y^2)", 1, 1, 0, 2 * pi * std::sqrt(3), circle(std::sqrt(3))},
        {"|x| + |y|", 1, 1, 0, 4 * std::sqrt(2),
         [](double x, double y) { return std::abs(std::abs(x) + std::abs(y) - 1) / std::sqrt(2); }},
    };
}

/// Looks at places all along the pieces of lines, not at their ends alone.
double worstAway(const LevelLines& found, const std::function<double(double, double)>& away) {
    double worst = 0;
    for (const Isoline& line : found.lines) {
        const std::size_t n = line.path.size();
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
            for (int k = 0; k < 10; ++k) {
                const std::size_t j = (i + 1) % n;
                worst = std::max(worst, away(line.path.x[i] + (line.path.x[j] - line.path.x[i]) * k / 10,
                                             line.path.y[i] + (line.path.y[j] - line.path.y[i]) * k / 10));
            }
        }
    }
    return worst;
}

} // namespace

TEST_CASE("lines of a level lie on the true line, and are all of it") {
    for (const Case& c : cases()) {
        const auto f = field(c.formula);
        for (const bool adaptive : {true, false}) {
            CAPTURE(c.formula, c.level, adaptive);
            const FieldSamples samples = adaptive ? mesh(*f, c.level - 1, c.level + 1) : grid(*f, 241, 161);
            const LevelLines found = followLevels(samples, {c.level}, f.get(), map, {});
            CHECK(found.finished);
            const auto closed = std::ranges::count_if(found.lines, &Isoline::closed);
            if (!adaptive && c.level == 1e-4) continue; // smaller than a cell: the meshgrid cannot know of it
            CHECK(static_cast<std::size_t>(closed) == c.closed);
            CHECK(found.lines.size() - static_cast<std::size_t>(closed) == c.open);
            CHECK(worstAway(found, c.away) * 20 <= 0.02);
            double length = 0;
            for (const Isoline& line : found.lines) length += lengthOf(line.path, line.closed);
            if (!std::isnan(c.length)) CHECK(length == Approx(c.length).epsilon(1e-3).margin(1e-3));
        }
    }
}

TEST_CASE("open lines end at the edge of the panel") {
    const auto f = field("sin(x y)");
    for (const bool adaptive : {true, false}) {
        const FieldSamples samples = adaptive ? mesh(*f, -1, 1) : grid(*f, 121, 81);
        const LevelLines found = followLevels(samples, {-0.5, 0.3}, f.get(), map, {});
        REQUIRE(found.lines.size() == 16); // two branches of x y = c, for each c that is reached in the four corners
        CHECK(worstAway({{found.lines.begin(), found.lines.end()}, {}, {}},
                        [](double x, double y) {
                            return std::min(std::abs(std::sin(x * y) + 0.5), std::abs(std::sin(x * y) - 0.3)) /
                                   (std::abs(std::cos(x * y)) * std::hypot(x, y));
                        }) *
                  20 <=
              0.02);
        for (const Isoline& line : found.lines) {
            CHECK_FALSE(line.closed);
            for (const std::size_t i : {std::size_t{0}, line.path.size() - 1})
                CHECK((std::abs(line.path.x[i]) == 3 || std::abs(line.path.y[i]) == 2));
        }
    }
}

TEST_CASE("lines end where the field does, at its jumps, and round plateaus") {
    SECTION("an edge of what is defined") {
        const auto f = field("x + 0 sqrt(1 - x^2 - y^2)");
        const LevelLines found = followLevels(mesh(*f, -1, 1), {0.5}, f.get(), map, {});
        REQUIRE(found.lines.size() == 1);
        const Path& path = found.lines[0].path;
        CHECK(lengthOf(path, false) * 20 == Approx(20 * std::sqrt(3)).margin(0.04));
        for (const double y : {path.y.front(), path.y.back()})
            CHECK(std::abs(y) == Approx(std::sqrt(0.75)).margin(1e-3));
    }
    SECTION("a jump") {
        const auto f = field("y + floor(x)");
        const LevelLines found = followLevels(mesh(*f, -4, 4), {0.25}, f.get(), map, {});
        REQUIRE(found.lines.size() == 4); // y = 0.25 − floor(x) within the panel, between whole numbers
        for (const Isoline& line : found.lines) {
            CHECK_FALSE(line.closed);
            CHECK(lengthOf(line.path, false) * 20 == Approx(20).margin(0.05));
            for (const double y : line.path.y) CHECK(y == Approx(line.path.y.front()).margin(1e-4));
        }
    }
    SECTION("a plateau below all else, and one above") {
        for (const char* formula : {"max(0, x^2 + y^2 - 1)", "min(0, 1 - x^2 - y^2)"}) {
            CAPTURE(formula);
            const auto f = field(formula);
            const LevelLines found = followLevels(mesh(*f, -1, 1), {0}, f.get(), map, {});
            REQUIRE(found.lines.size() == 1);
            CHECK(found.lines[0].closed);
            CHECK(lengthOf(found.lines[0].path, true) == Approx(2 * pi).epsilon(2e-3));
        }
    }
}

TEST_CASE("levels closer to each other than a cell are kept apart") {
    const auto f = field("x^2 + y^2");
    const FieldSamples samples = mesh(*f, 0, 4);
    std::vector<double> levels;
    for (int i = 0; i < 50; ++i) levels.push_back(1 + 1e-3 * i);
    const LevelLines found = followLevels(samples, levels, f.get(), map, {});
    REQUIRE(found.lines.size() == 50);
    for (std::size_t k = 0; k < 50; ++k) {
        CHECK(found.lines[k].level == k);
        for (std::size_t i = 0; i < found.lines[k].path.size(); ++i)
            CHECK(std::hypot(found.lines[k].path.x[i], found.lines[k].path.y[i]) ==
                  Approx(std::sqrt(levels[k])).margin(1e-5));
    }
}

TEST_CASE("saddles are decided by the field") {
    // Corners high and low by turns; the middle decides, and a level between it and the corners parts the others.
    const auto f = field("x y");
    const FieldSamples samples = sampleMeshgrid(*f, {-1, 1}, {-1, 1});
    // Whether a line cuts off a corner that is high: x y is positive there.
    const auto cutsOffHigh = [](const Isoline& line) {
        const double x = line.path.x.front() + line.path.x.back(), y = line.path.y.front() + line.path.y.back();
        return x * y > 0;
    };
    // Bilinear: at its saddle the value is 0 < 0.1, so each high corner is by itself; the field says the same.
    for (const Program* known : {static_cast<const Program*>(nullptr), f.get()}) {
        const LevelLines alone = followLevels(samples, {0.1}, known, map, {});
        REQUIRE(alone.lines.size() == 2);
        CHECK(std::ranges::all_of(alone.lines, cutsOffHigh));
    }
    // A field with the same corners and a high middle: low corners are by themselves.
    const auto high = field("x y + 0.5 (1 - x^2)");
    const FieldSamples same = sampleMeshgrid(*high, {-1, 1}, {-1, 1});
    REQUIRE(same.values == samples.values);
    const LevelLines joined = followLevels(same, {0.1}, high.get(), map, {});
    REQUIRE(joined.lines.size() == 2);
    CHECK(std::ranges::none_of(joined.lines, cutsOffHigh));
}

TEST_CASE("areas above levels are closed along the edge, and add up") {
    const auto f = field("x^2 + y^2");
    for (const bool adaptive : {true, false}) {
        const FieldSamples samples = adaptive ? mesh(*f, 0, 4) : grid(*f, 121, 81);
        const LevelLines found = followLevels(samples, {0.25, 1, 6.25}, f.get(), map, {}, true);
        CHECK(areaOf(found.domain) == Approx(24).epsilon(1e-12));
        REQUIRE(found.above.size() == 3);
        CHECK(areaOf(found.above[0]) == Approx(24 - pi / 4).margin(2e-3));
        CHECK(areaOf(found.above[1]) == Approx(24 - pi).margin(4e-3));
        CHECK(found.above[0].size() == 2); // the edge, and a hole
        // Beyond a circle of radius 2.5 that the panel cuts above and below.
        const double within = 2 * (2 * std::sqrt(6.25 - 4) + 6.25 * std::asin(2 / 2.5));
        CHECK(areaOf(found.above[2]) == Approx(24 - within).margin(6e-3));
        CHECK(found.above[2].size() == 2);
    }
    SECTION("with a hole in what is defined") {
        const auto ring = field("x + 0 sqrt(x^2 + y^2 - 1)");
        const LevelLines found = followLevels(mesh(*ring, -3, 3), {0}, ring.get(), map, {}, true);
        CHECK(areaOf(found.domain) == Approx(24 - pi).margin(0.01));
        CHECK(areaOf(found.above[0]) == Approx(12 - pi / 2).margin(0.01));
    }
    SECTION("with undefined points of a meshgrid") {
        FieldSamples holes = grid(*f, 13, 9); // steps of a half
        holes.values[0][4 * 13 + 6] = NAN;
        const LevelLines found = followLevels(holes, {1}, nullptr, map, {}, true);
        CHECK(areaOf(found.domain) == Approx(24 - 4 * 0.125)); // half of each cell round it
    }
}

TEST_CASE("lines are the same with any number of threads") {
    const auto f = field("sin(3x) cos(2y) + exp(-x^2 - y^2)");
    const FieldSamples samples = mesh(*f, -1, 2);
    const auto follow = [&](std::size_t threads) {
        const tbb::global_control control(tbb::global_control::max_allowed_parallelism, threads);
        return followLevels(samples, {-0.5, 0, 0.25, 1}, f.get(), map, {}, true);
    };
    const LevelLines one = follow(1), two = follow(2), eight = follow(8);
    for (const LevelLines* other : {&two, &eight}) {
        REQUIRE(other->lines.size() == one.lines.size());
        for (std::size_t i = 0; i < one.lines.size(); ++i) {
            CHECK(other->lines[i].path.x == one.lines[i].path.x);
            CHECK(other->lines[i].path.y == one.lines[i].path.y);
        }
        for (std::size_t k = 0; k < 4; ++k) {
            REQUIRE(other->above[k].size() == one.above[k].size());
            for (std::size_t i = 0; i < one.above[k].size(); ++i) CHECK(other->above[k][i].x == one.above[k][i].x);
        }
    }
}

TEST_CASE("lines on logarithmic scales keep their tolerance there") {
    const auto f = field("ln(x) + ln(y)^2");
    const PanelMap logarithmic{{ScaleKind::Logarithmic, 0.01, 100, 100}, {ScaleKind::Logarithmic, 0.1, 10, 80}};
    const FieldSamples samples =
        sampleMesh(*f, {Interval{0.01, 100, true, true}, Interval{0.1, 10, true, true}}, logarithmic, {0.02, -5, 10});
    const LevelLines found = followLevels(samples, {1}, f.get(), logarithmic, {});
    REQUIRE(found.lines.size() == 1);
    double worst = 0;
    const Path& path = found.lines[0].path;
    for (std::size_t i = 0; i + 1 < path.size(); ++i) {
        for (int k = 0; k <= 10; ++k) {
            const auto on = [&](const AxisMap& scale, const std::vector<double>& at) {
                return scale.toSheet(at[i]) + (scale.toSheet(at[i + 1]) - scale.toSheet(at[i])) * k / 10;
            };
            const double u = on(logarithmic.x, path.x), v = on(logarithmic.y, path.y);
            const double p = u / 100 * std::log(1e4), q = (v / 80 - 0.5) * std::log(100.0); // log x + log 100, log y
            const double off = p - std::log(100.0) + q * q - 1;
            const double slope = std::hypot(std::log(1e4) / 100, 2 * q * std::log(100.0) / 80);
            worst = std::max(worst, std::abs(off) / slope);
        }
    }
    CHECK(worst <= 0.02);
}

TEST_CASE("following stops when it was evaluated enough, or asked to") {
    const auto f = field("sin(9x) cos(7y)");
    const FieldSamples samples = grid(*f, 61, 41);
    CHECK_FALSE(followLevels(samples, {0.5}, f.get(), map, {0.001, 50, {}}).finished);
    std::stop_source stop;
    stop.request_stop();
    const LevelLines stopped = followLevels(samples, {0.5}, f.get(), map, {0.02, 100'000, stop.get_token()});
    CHECK_FALSE(stopped.finished);
    CHECK(followLevels({}, {0.5}, f.get(), map, {}).lines.empty());
}
