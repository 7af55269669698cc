#include "formula/lines/plotted.h"

#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "sampling/curve.h"
#include "sampling/curve_sampler.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <random>
#include <thread>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

struct Sampled {
    std::shared_ptr<const Program> program;
    PanelMap map;
    CurveSamples samples;
};

Sampled sample(const std::string& formula, Interval interval, double low, double high, double width = 120,
               double height = 80) {
    const std::vector<std::string> lines{"f(x) = " + formula, "x in [0, 1]"};
    const Page page = readPage(lines);
    INFO(formula << (page.problems().empty() ? "" : page.problems()[0].sentence));
    const Plotted plotted = readPlotted(page, "f(x)");
    REQUIRE(plotted.expression);
    Sampled s;
    s.program = compile(page, plotted.expression, std::vector<std::string>{"x"}).program;
    s.map = {{ScaleKind::Linear, interval.low, interval.high, width}, {ScaleKind::Linear, low, high, height}};
    s.samples = sampleCurve(*s.program, interval, s.map, tolerance);
    return s;
}

/// Largest distance in mm between the true curve and the polyline, looked at independently at many points inside the
/// panel: for each point of the curve the distance to the nearest chord of its stretch.
double largestDeviation(const Sampled& s, int perChord = 25) {
    Evaluator f(*s.program);
    double worst = 0;
    for (const Stretch& stretch : s.samples.stretches) {
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
            for (int k = 1; k < perChord; ++k) {
                const double x = stretch.x[i] + (stretch.x[i + 1] - stretch.x[i]) * k / perChord;
                const double y = f(x);
                const double u = s.map.x.toSheet(x), v = s.map.y.toSheet(y);
                if (!std::isfinite(v) || v < 0 || v > s.map.y.length) continue;
                double nearest = INFINITY;
                for (std::size_t j = i > 1 ? i - 2 : 0; j + 1 < std::min(stretch.x.size(), i + 4); ++j) {
                    const double au = s.map.x.toSheet(stretch.x[j]), av = s.map.y.toSheet(stretch.y[j]);
                    const double bu = s.map.x.toSheet(stretch.x[j + 1]), bv = s.map.y.toSheet(stretch.y[j + 1]);
                    const double du = bu - au, dv = bv - av, square = du * du + dv * dv;
                    const double t = square > 0 ? std::clamp(((u - au) * du + (v - av) * dv) / square, 0.0, 1.0) : 0;
                    nearest = std::min(nearest, std::hypot(au + t * du - u, av + t * dv - v));
                }
                worst = std::max(worst, nearest);
            }
        }
    }
    return worst;
}

/// ∫ √(κ/8ε) ds inside the panel, by fine central differences: the least number of interpolating chords.
double leastNumber(const Sampled& s, Interval interval) {
    Evaluator f(*s.program);
    const int n = 200'000;
    double sum = 0, previousU = NAN, previousV = NAN, du1 = NAN, dv1 = NAN;
    for (int i = 0; i <= n; ++i) {
        const double x = interval.low + (interval.high - interval.low) * i / n;
        const double u = s.map.x.toSheet(x), v = s.map.y.toSheet(f(x));
        if (std::isfinite(previousV) && std::isfinite(v) && v > 0 && v < s.map.y.length) {
            const double du = u - previousU, dv = v - previousV;
            if (std::isfinite(du1)) {
                const double length = std::hypot(du, dv),
                             turn = std::abs(std::atan2(du1 * dv - dv1 * du, du1 * du + dv1 * dv));
                if (turn < 0.5) sum += std::sqrt(turn / length / (8 * tolerance)) * length;
            }
            du1 = du;
            dv1 = dv;
        } else {
            du1 = dv1 = NAN;
        }
        previousU = u;
        previousV = v;
    }
    return sum;
}

} // namespace

TEST_CASE("smooth curves stay within the tolerance, with hardly more points than needed") {
    struct Case {
        const char* formula;
        Interval interval;
        double low, high;
    };
    const Case cases[] = {
        {"sin(x)", {0, 6.283185307179586}, -1, 1},
        {"x^2", {-2, 2}, 0, 4},
        {"exp(-x^2)", {-4, 4}, 0, 1},
        {"sin(10x) exp(-x/3)", {0, 6}, -1, 1},
        {"1/(1 + 25x^2)", {-1, 1}, 0, 1},
        {"x^3 - x", {-2, 2}, -6, 6},
        {"sqrt(1 - x^2)", {-1, 1}, 0, 1},
        {"ln(x)", {0, 5, false, true}, -3, 2},
        {"tanh(5x)", {-2, 2}, -1, 1},
        {"cos(x^2)", {0, 6}, -1, 1},
    };
    for (const Case& c : cases) {
        const Sampled s = sample(c.formula, c.interval, c.low, c.high);
        const double least = leastNumber(s, c.interval);
        INFO(c.formula << ": " << s.samples.pointCount() << " points, least " << least << ", " << s.samples.evaluations
                       << " evaluations, deviation " << largestDeviation(s));
        CHECK(largestDeviation(s) <= tolerance);
        CHECK(static_cast<double>(s.samples.pointCount()) <= 1.4 * least + 20);
        CHECK(s.samples.finished);
    }
}

TEST_CASE("a straight line needs its two ends") {
    const Sampled s = sample("3x - 1", {-5, 5}, -16, 14);
    REQUIRE(s.samples.stretches.size() == 1);
    CHECK(s.samples.pointCount() == 2);
}

TEST_CASE("no line crosses a pole, and its place is known") {
    const Sampled s = sample("tan(x)", {-5, 5}, -6, 6);
    REQUIRE(s.samples.stretches.size() == 5);
    REQUIRE(s.samples.gaps.size() == 4);
    const double half = std::acos(-1.0) / 2;
    const double poles[] = {-3 * half, -half, half, 3 * half};
    for (int i = 0; i < 4; ++i) {
        const Gap& gap = s.samples.gaps[static_cast<std::size_t>(i)];
        CHECK(gap.kind == GapKind::Pole);
        CHECK(gap.low <= poles[i] + 1e-15);
        CHECK(gap.high >= poles[i] - 1e-15);
        CHECK(gap.high - gap.low <= 4e-15);
    }
    CHECK(largestDeviation(s) <= tolerance);
    const Sampled simple = sample("1/x", {-4, 4}, -10, 10);
    REQUIRE(simple.samples.gaps.size() == 1);
    CHECK(simple.samples.gaps[0].kind == GapKind::Pole);
    CHECK(simple.samples.gaps[0].low <= 0);
    CHECK(simple.samples.gaps[0].high >= 0);
}

TEST_CASE("jumps are found to the last place, with the values of both sides") {
    const Sampled s = sample("floor(3x) + x", {0, 1}, 0, 4);
    REQUIRE(s.samples.gaps.size() == 3);
    for (int i = 0; i < 2; ++i) {
        const Gap& gap = s.samples.gaps[static_cast<std::size_t>(i)];
        CHECK(gap.kind == GapKind::Jump);
        CHECK(gap.low < (i + 1) / 3.0 + 1e-15);
        CHECK(gap.high >= (i + 1) / 3.0 - 1e-15);
        CHECK(gap.high == std::nextafter(gap.low, 2));
    }
    CHECK(s.samples.stretches[1].y.front() == Approx(1 + 1 / 3.0));
    CHECK(s.samples.stretches[0].y.back() == Approx(1 / 3.0));
    CHECK(s.samples.stretches[0].state.back() == PointState::Jump);
}

TEST_CASE("a curve starts exactly at the edge of its domain") {
    const Sampled s = sample("sqrt(x + 3)", {-10, 10}, 0, 4);
    REQUIRE(s.samples.stretches.size() == 1);
    CHECK(s.samples.stretches[0].x.front() == -3);
    CHECK(s.samples.stretches[0].y.front() == 0);
    CHECK(s.samples.stretches[0].state.front() == PointState::Edge);
    REQUIRE(s.samples.gaps.size() == 1);
    CHECK(s.samples.gaps[0].kind == GapKind::Undefined);
    CHECK(s.samples.gaps[0].low == -10);
    CHECK(largestDeviation(s) <= tolerance);
    const Sampled both = sample("arcsin(x/2) + 1", {-5, 5}, -1, 3);
    REQUIRE(both.samples.stretches.size() == 1);
    CHECK(both.samples.stretches[0].x.front() == -2);
    CHECK(both.samples.stretches[0].x.back() == 2);
    const Sampled none = sample("sqrt(-1 - x^2)", {-5, 5}, -1, 3);
    CHECK(none.samples.stretches.empty());
    CHECK(none.samples.gaps.size() == 1);
}

TEST_CASE("a removable point is filled with the limit") {
    const Sampled s = sample("sin(x)/x", {-10, 10}, -0.5, 1.2);
    REQUIRE(s.samples.stretches.size() == 1);
    CHECK(s.samples.gaps.empty());
    bool filled = false;
    for (std::size_t i = 0; i < s.samples.stretches[0].x.size(); ++i) {
        if (s.samples.stretches[0].state[i] != PointState::Filled) continue;
        filled = true;
        CHECK(s.samples.stretches[0].x[i] == 0);
        CHECK(s.samples.stretches[0].y[i] == Approx(1).margin(1e-9));
    }
    CHECK(filled);
}

TEST_CASE("a removable point is filled although rounding spoils the values beside it") {
    const Sampled s = sample("(1 - cos(x))/x^2", {-3, 3}, 0, 0.6);
    REQUIRE(s.samples.stretches.size() == 1);
    for (const double y : s.samples.stretches[0].y) CHECK((y > 0.2 && y < 0.501));
}

TEST_CASE("narrow features are not missed, steep ones not taken for jumps") {
    const Sampled peak = sample("exp(-(x - 0.37)^2/0.00001)", {-5, 5}, 0, 1);
    double highest = 0;
    for (const double y : peak.samples.stretches[0].y) highest = std::max(highest, y);
    CHECK(highest > 0.999);
    CHECK(largestDeviation(peak) <= tolerance);
    const Sampled steep = sample("tanh(100000 x)", {-5, 5}, -1, 1);
    CHECK(steep.samples.stretches.size() == 1);
    const Sampled upright = sample("cbrt(x)", {-5, 5}, -2, 2);
    CHECK(upright.samples.stretches.size() == 1);
    CHECK(largestDeviation(upright) <= tolerance);
    const Sampled corner = sample("|x - 1/3|", {-5, 5}, 0, 6);
    CHECK(corner.samples.pointCount() <= 8);
    CHECK(largestDeviation(corner) <= tolerance);
}

TEST_CASE("an oscillation without end ends, and is not called a jump") {
    const Sampled s = sample("sin(1/x)", {-1, 1}, -1, 1);
    CHECK(s.samples.evaluations < 200'000);
    for (const Gap& gap : s.samples.gaps) CHECK(gap.kind == GapKind::Undefined);
}

TEST_CASE("what lies outside the panel is not refined") {
    const Sampled all = sample("100 sin(20x)", {0, 10}, -100, 100), little = sample("100 sin(20x)", {0, 10}, 99, 100);
    CHECK(little.samples.pointCount() < all.samples.pointCount() / 2);
}

TEST_CASE("open ends are not evaluated") {
    const Sampled s = sample("x", {0, 1, false, false}, 0, 1);
    CHECK(s.samples.stretches[0].x.front() > 0);
    CHECK(s.samples.stretches[0].x.back() < 1);
}

TEST_CASE("a stopped sampling returns what it has, marked") {
    const std::vector<std::string> lines{"f(x) = sin(1000 x)", "x in [0, 1]"};
    const Page page = readPage(lines);
    const auto program = compile(page, readPlotted(page, "f(x)").expression, std::vector<std::string>{"x"}).program;
    std::stop_source source;
    source.request_stop();
    const CurveSamples samples =
        sampleCurve(*program, {0, 10}, {{ScaleKind::Linear, 0, 10, 120}, {ScaleKind::Linear, -1, 1, 80}}, tolerance,
                    source.get_token());
    CHECK_FALSE(samples.finished);
    CHECK(samples.pointCount() >= 2);
}

TEST_CASE("random smooth curves stay within the tolerance") {
    std::mt19937 random(17);
    const auto number = [&](double low, double high) {
        return std::to_string(std::uniform_real_distribution<double>(low, high)(random));
    };
    for (int i = 0; i < 60; ++i) {
        const std::string formula = number(-2, 2) + " sin(" + number(0.3, 9) + " x + " + number(-3, 3) + ") + " +
                                    number(-1, 1) + " x exp(-x^2/" + number(0.2, 6) + ") + " + number(-0.2, 0.2) +
                                    " x^2 + arctan(" + number(1, 40) + "(x - " + number(-2, 2) + "))";
        const Sampled s = sample(formula, {-5, 5}, -6, 6);
        INFO(formula);
        REQUIRE(largestDeviation(s) <= tolerance);
    }
}

TEST_CASE("the fewest knots keep every point within the tolerance of their chords") {
    std::mt19937 random(23);
    for (int round = 0; round < 50; ++round) {
        std::vector<Knot> knots(300);
        double v = 0;
        for (std::size_t i = 0; i < knots.size(); ++i) {
            v += std::normal_distribution<double>(0, 0.02)(random);
            knots[i].u = 0.1 * static_cast<double>(i);
            knots[i].v = v + std::sin(0.05 * static_cast<double>(i));
        }
        const auto kept = fewestKnots(knots, 0.05);
        REQUIRE(kept.front() == 0);
        REQUIRE(kept.back() == knots.size() - 1);
        for (std::size_t k = 0; k + 1 < kept.size(); ++k) {
            const Knot &a = knots[kept[k]], &b = knots[kept[k + 1]];
            for (std::size_t i = kept[k]; i < kept[k + 1]; ++i) {
                REQUIRE(distanceFromChord(knots[i], a, b) <= 0.05 + 1e-12);
            }
        }
        CHECK(kept.size() < knots.size());
    }
}

TEST_CASE("points of a grid are taken as they are, broken where the function is undefined") {
    const std::vector<std::string> lines{"f(x) = sqrt(x (x - 2))", "x in [-1, 3], count 9"};
    const Page page = readPage(lines);
    const auto program = compile(page, readPlotted(page, "f(x)").expression, std::vector<std::string>{"x"}).program;
    const std::vector<double> xs{-1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5, 3};
    const CurveSamples samples = sampleAtPoints(*program, xs);
    REQUIRE(samples.stretches.size() == 2);
    CHECK(samples.stretches[0].x == std::vector<double>{-1, -0.5, 0});
    CHECK(samples.stretches[1].x == std::vector<double>{2, 2.5, 3});
    CHECK(samples.stretches[0].state[0] == PointState::Grid);
    REQUIRE(samples.gaps.size() == 1);
    CHECK(samples.gaps[0].low == 0.5);
    CHECK(samples.gaps[0].high == 1.5);
}
