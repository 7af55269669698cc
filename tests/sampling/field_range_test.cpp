// What is proven of the least and the greatest value of fields, and what is found between the points of a mesh.
#include "field_program.h"
#include "formula/bounds/bounds_arithmetic.h"
#include "sampling/field.h"
#include "sampling/field_range.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

const PanelMap map{{ScaleKind::Linear, -2, 2, 120}, {ScaleKind::Linear, -2, 2, 120}};
const std::array<Interval, 2> square{Interval{-2, 2, true, true}, Interval{-2, 2, true, true}};

FieldRange rangeOf(const std::string& formula, double tolerance, std::size_t most = 10'000) {
    const auto f = field(formula);
    JetEvaluator<2> jets(*f);
    return rangeOver(jets, {Bounds{-2, 2}, Bounds{-2, 2}}, {.tolerance = tolerance, .mostEvaluations = most});
}

FieldSamples meshOf(const std::string& formula, double low, double high, bool looksForPeaks,
                    std::vector<double> levels = {}) {
    return sampleMesh(*field(formula), square, map, {0.02, low, high, std::move(levels), looksForPeaks});
}

double highest(const FieldSamples& samples) { return std::ranges::max(samples.values[0]); }

} // namespace

TEST_CASE("the greatest and the least value over a rectangle are between bounds, with the places") {
    struct Known {
        const char* formula;
        double least, greatest;
    };
    for (const Known& known : std::vector<Known>{{"x y", -4, 4},
                                                 {"sin(x) cos(y)", -1, 1},
                                                 {"x^2 + y^2", 0, 8},
                                                 {"1/((x - 0.31)^2 + (y + 0.47)^2 + 1e-4)", 1 / 11.4371, 1e4},
                                                 {"exp(-1e8 ((x - 0.3)^2 + (y - 1)^2))", 0, 1},
                                                 {"exp(-400 (sqrt(x^2 + y^2) - 1)^2)", 0, 1}}) {
        INFO(known.formula);
        const double tolerance = 1e-6 * (known.greatest - known.least);
        const FieldRange range = rangeOf(known.formula, tolerance, 100'000);
        CHECK(range.greatest.low <= known.greatest * (1 + 1e-12));
        CHECK(range.greatest.high >= known.greatest * (1 - 1e-12));
        CHECK(width(range.greatest) <= tolerance * 1.001);
        CHECK(range.least.low <= known.least + 1e-6);
        CHECK(range.least.high >= known.least - 1e-6);
        CHECK(width(range.least) <= tolerance * 1.001);
        REQUIRE(range.highest);
    }
}

TEST_CASE("of what has no bounds nothing is claimed, and work is bounded") {
    const FieldRange pole = rangeOf("1/(x^2 + y^2)", 1e-6, 500);
    CHECK(pole.greatest.high == HUGE_VAL);
    CHECK(pole.evaluations <= 1100);
    CHECK(rangeOf("sqrt(-1 - x^2 - y^2)", 1e-6).isUndefined);
    const FieldRange part = rangeOf("sqrt(1 - x^2 - y^2)", 1e-6, 50'000);
    CHECK(part.greatest.low <= 1);
    CHECK(part.greatest.high >= 1);
}

TEST_CASE("values of random fields lie within their proven range, and come near to both of its ends") {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> number(-2, 2);
    for (int i = 0; i < 60; ++i) {
        const std::string formula = "sin(" + std::to_string(number(random)) + "x y + " +
                                    std::to_string(number(random)) + ") + " + std::to_string(number(random)) +
                                    " x^2 - cos(" + std::to_string(3 * number(random)) + " y)";
        INFO(formula);
        const auto f = field(formula);
        const FieldRange range = rangeOf(formula, 1e-3, 50'000);
        double low = HUGE_VAL, high = -HUGE_VAL;
        std::vector<double> x, y;
        for (int k = 0; k <= 300; ++k) {
            for (int l = 0; l <= 300; ++l) x.push_back(-2 + k / 75.0), y.push_back(-2 + l / 75.0);
        }
        std::vector<double> z(x.size());
        const double* const in[] = {x.data(), y.data()};
        double* const out[] = {z.data()};
        Evaluator evaluator(*f);
        evaluator(in, out, z.size());
        for (const double value : z) low = std::min(low, value), high = std::max(high, value);
        CHECK(high <= range.greatest.high);
        CHECK(low >= range.least.low);
        CHECK(high >= range.greatest.low - 0.02);
        CHECK(low <= range.least.high + 0.02);
    }
}

TEST_CASE("needles between the points of a mesh are found") {
    const std::string needle = "exp(-40000 ((x - 0.317)^2 + (y + 0.473)^2)) + 0.1 sin(x)";
    CHECK(highest(meshOf(needle, -0.1, 1, false)) < 0.2); // else this test shows nothing
    CHECK(highest(meshOf(needle, -0.1, 1, true)) > 0.97);
    std::string forest = "0.1 cos(y)";
    for (const char* place : {"(x - 0.317)^2 + (y + 0.473)^2", "(x + 1.12)^2 + (y - 0.76)^2",
                              "(x - 1.9)^2 + (y - 1.93)^2", "(x - 0.35)^2 + (y + 0.44)^2"})
        forest += " + exp(-90000 (" + std::string(place) + "))";
    const FieldSamples found = meshOf(forest, -0.1, 1, true);
    for (const auto& [x, y] : {std::pair{0.317, -0.473}, {-1.12, 0.76}, {1.9, 1.93}, {0.35, -0.44}}) {
        double there = 0;
        for (std::size_t i = 0; i < found.pointCount(); ++i) {
            if (std::hypot(found.x[i] - x, found.y[i] - y) < 0.02) there = std::max(there, found.values[0][i]);
        }
        INFO(x << " " << y);
        CHECK(there > 0.9);
    }
}

TEST_CASE("a peak far beyond what is shown is followed where a level asks for it") {
    const std::string peak = "1/((x - 0.31)^2 + (y + 0.47)^2 + 1e-4)";
    CHECK(highest(meshOf(peak, 0, 5, true)) < 9000);
    const FieldSamples levelled = meshOf(peak, 0, 5, true, {3000});
    CHECK(highest(levelled) > 9000);
    CHECK(levelled.finished);
}

TEST_CASE("a field without peaks between its points has the same mesh, looked for or not") {
    for (const char* formula : {"sin(3x) cos(2y)", "x^2 - y^3", "exp(-x^2 - y^2)", "sqrt(1 - x^2 - y^2)"}) {
        INFO(formula);
        const FieldSamples plain = meshOf(formula, -1, 1, false), looked = meshOf(formula, -1, 1, true);
        CHECK(plain.x == looked.x);
        CHECK(plain.triangles == looked.triangles);
    }
}
