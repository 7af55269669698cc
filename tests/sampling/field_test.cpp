#include "field_program.h"
#include "sampling/field.h"
#include "sampling/grid.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <random>

using namespace coulter;

namespace {

double valueOf(const Program& f, double x, double y) {
    double z = 0;
    const double* const in[] = {&x, &y};
    double* const out[] = {&z};
    Evaluator evaluator(f);
    evaluator(in, out, 1);
    return z;
}

const PanelMap map{{ScaleKind::Linear, -3, 3, 120}, {ScaleKind::Linear, -2, 2, 80}};
const std::array<Interval, 2> whole{Interval{-3, 3, true, true}, Interval{-2, 2, true, true}};

/// Area of a triangle in mm², positive when counterclockwise.
double area(const FieldSamples& s, const std::array<std::uint32_t, 3>& t) {
    const auto u = [&](std::size_t k) { return map.x.toSheet(s.x[t[k]]); };
    const auto v = [&](std::size_t k) { return map.y.toSheet(s.y[t[k]]); };
    return ((u(1) - u(0)) * (v(2) - v(0)) - (u(2) - u(0)) * (v(1) - v(0))) / 2;
}

double wholeArea(const FieldSamples& s) {
    double sum = 0;
    for (const auto& t : s.triangles) sum += area(s, t);
    return sum;
}

/// Value of the mesh at random places of its triangles beside the field's own: what an isoline would be moved by, or
/// the share of the range, whichever is the smaller part of what is allowed.
double worstShare(const Program& f, const FieldSamples& s, double range, unsigned seed = 1) {
    std::mt19937 engine(seed);
    std::uniform_real_distribution<double> uniform(0, 1);
    double worst = 0;
    for (const auto& t : s.triangles) {
        double a = uniform(engine), b = uniform(engine);
        if (a + b > 1) {
            a = 1 - a;
            b = 1 - b;
        }
        const double c = 1 - a - b;
        const double x = a * s.x[t[0]] + b * s.x[t[1]] + c * s.x[t[2]],
                     y = a * s.y[t[0]] + b * s.y[t[1]] + c * s.y[t[2]];
        const double mesh = a * s.values[0][t[0]] + b * s.values[0][t[1]] + c * s.values[0][t[2]];
        const double h = 1e-6, perX = 20, perY = 20; // mm per unit on this panel
        const double slope = std::hypot((valueOf(f, x + h, y) - valueOf(f, x - h, y)) / (2 * h * perX),
                                        (valueOf(f, x, y + h) - valueOf(f, x, y - h)) / (2 * h * perY));
        worst = std::max(worst, std::abs(mesh - valueOf(f, x, y)) / (0.02 * std::max(slope, 0.25 * range / 80)));
    }
    return worst;
}

} // namespace

TEST_CASE("a meshgrid is exactly what was asked for") {
    const auto f = field("x + 100 y");
    const Interval closed{0, 1, true, true}, halfOpen{0, 1, true, false};
    Grid five, step;
    five.count = 5;
    step.step = 0.5;
    const std::vector<double> columns = gridPoints(closed, five, "x").points,
                              rows = gridPoints(halfOpen, step, "y").points;
    const FieldSamples s = sampleMeshgrid(*f, columns, rows);
    REQUIRE_FALSE(s.isMesh());
    CHECK(s.columns == std::vector<double>{0, 0.25, 0.5, 0.75, 1});
    CHECK(s.rows == std::vector<double>{0, 0.5});
    REQUIRE(s.pointCount() == 10);
    for (std::size_t i = 0; i < 10; ++i) {
        CHECK(s.xAt(i) == columns[i % 5]);
        CHECK(s.yAt(i) == rows[i / 5]);
        CHECK(s.values[0][i] == s.xAt(i) + 100 * s.yAt(i));
    }
    const auto odd = field("sin(7 x y) + sqrt(x - 0.3)");
    const FieldSamples big = sampleMeshgrid(*odd, gridPoints(closed, Grid{301, {}, false}, "x").points,
                                            gridPoints(closed, Grid{97, {}, false}, "y").points);
    for (std::size_t i = 0; i < big.pointCount(); i += 211) {
        const double z = valueOf(*odd, big.xAt(i), big.yAt(i));
        CHECK((big.values[0][i] == z || (std::isnan(z) && std::isnan(big.values[0][i]))));
    }
}

TEST_CASE("a vector field has a value for each component") {
    const auto f = field("(x, -y)");
    const FieldSamples grid = sampleMeshgrid(*f, {1, 3}, {4});
    REQUIRE(grid.values.size() == 2);
    CHECK(grid.values[1] == UnsetNumbers{-4, -4});
    CHECK(grid.sizeAt(1) == 5);
    const FieldSamples mesh = sampleMesh(*f, whole, map, {0.02, 0, 4});
    CHECK(mesh.values.size() == 2);
    CHECK(wholeArea(mesh) == Approx(9600).epsilon(1e-9));
}

TEST_CASE("a mesh covers its rectangle without cracks and overlaps") {
    for (const char* formula : {"sin(3 x) cos(2 y)", "exp(-20 ((x - 1)^2 + (y - 0.5)^2))", "abs(x - y/3)", "x"}) {
        INFO(formula);
        const FieldSamples s = sampleMesh(*field(formula), whole, map, {0.02, -1, 1});
        CHECK(s.finished);
        CHECK(wholeArea(s) == Approx(9600).epsilon(1e-9));
        std::map<std::pair<std::uint32_t, std::uint32_t>, int> sides; // an edge is passed once in either direction
        for (const auto& t : s.triangles) {
            REQUIRE(area(s, t) > 0);
            for (std::size_t k = 0; k < 3; ++k) ++sides[{t[k], t[(k + 1) % 3]}];
        }
        for (const auto& [side, count] : sides) {
            REQUIRE(count == 1);
            if (sides.contains({side.second, side.first})) continue;
            const auto outer = [&](std::uint32_t i, std::uint32_t j) {
                return (s.x[i] == s.x[j] && std::abs(s.x[i]) == 3) || (s.y[i] == s.y[j] && std::abs(s.y[i]) == 2);
            };
            REQUIRE(outer(side.first, side.second)); // only the rectangle's own edge has nothing beyond
        }
    }
}

TEST_CASE("a mesh follows its field to the tolerance, with points where it bends") {
    struct Case {
        const char* formula;
        double low, high;
        std::size_t most; ///< points
    };
    for (const Case& c : {Case{"sin(x) cos(y)", -1, 1, 20'000}, Case{"x^2 - y^2", -4, 9, 20'000},
                          Case{"exp(-40 ((x - 1)^2 + (y + 0.5)^2))", 0, 1, 12'000}, Case{"2 x - y", -8, 8, 700}}) {
        INFO(c.formula);
        const auto f = field(c.formula);
        const FieldSamples s = sampleMesh(*f, whole, map, {0.02, c.low, c.high});
        CHECK(s.finished);
        CHECK(s.pointCount() < c.most);
        CHECK(s.evaluations < 12 * s.pointCount() + 5'000);
        // Looked at in the middles of edges only; elsewhere a little more may be found.
        CHECK(worstShare(*f, s, c.high - c.low) < 1.3);
    }
}

TEST_CASE("a mesh ends at the edge of the domain, to rounding") {
    const auto f = field("sqrt(1 - x^2 - y^2)");
    const FieldSamples s = sampleMesh(*f, whole, map, {0.02, 0, 1});
    CHECK(s.finished);
    for (std::size_t i = 0; i < s.pointCount(); ++i) REQUIRE(std::isfinite(s.values[0][i]));
    // Chords of half a millimetre cut a disc of 20 mm off by a few thousandths.
    CHECK(wholeArea(s) == Approx(3.14159265358979 * 400).epsilon(2e-4));
    std::size_t onEdge = 0;
    for (std::size_t i = 0; i < s.pointCount(); ++i) onEdge += std::abs(std::hypot(s.x[i], s.y[i]) - 1) < 1e-14;
    CHECK(onEdge > 200);
}

TEST_CASE("a mesh is cut along a jump: nothing lies between both values") {
    const auto f = field("{ 1 for x^2 + y^2 < 2; -1 otherwise }");
    const FieldSamples s = sampleMesh(*f, whole, map, {0.02, -1, 1});
    CHECK(s.finished);
    double mixed = 0, high = 0;
    for (const auto& t : s.triangles) {
        const double a = s.values[0][t[0]], b = s.values[0][t[1]], c = s.values[0][t[2]];
        if (a != b || b != c) mixed += area(s, t);
        if (a == 1 && b == 1 && c == 1) high += area(s, t);
    }
    CHECK(mixed < 0.5); // mm²
    CHECK(high == Approx(2 * 3.14159265358979 * 400).epsilon(1e-3));
}

TEST_CASE("a mesh is bounded and stops when asked to") {
    const auto wild = field("sin(1e4 x) sin(1e4 y)");
    const FieldSamples s = sampleMesh(*wild, whole, map, {0.02, -1, 1});
    CHECK_FALSE(s.finished);
    CHECK(s.pointCount() <= 2 * mostMeshPoints);
    // Jumps everywhere ask for many cuts; those are bounded too.
    const FieldSamples jumps =
        sampleMesh(*field("floor(40 x) floor(40 y) + floor(31 x y)"), whole, map, {0.02, -50, 50});
    CHECK(jumps.evaluations < 2 * mostMeshEvaluations);
    std::stop_source stop;
    stop.request_stop();
    CHECK_FALSE(sampleMesh(*wild, whole, map, {0.02, -1, 1}, stop.get_token()).finished);
    CHECK_FALSE(sampleMeshgrid(*wild, {0, 1}, {0, 1}, stop.get_token()).finished);
    // Undefined everywhere: nothing to draw, and no work.
    const FieldSamples none = sampleMesh(*field("sqrt(-1 - x^2 - y^2)"), whole, map, {0.02, -1, 1});
    CHECK(none.triangles.empty());
    CHECK(none.evaluations < 20'000);
}

TEST_CASE("the same mesh comes out every time, on a logarithmic scale too") {
    const auto f = field("ln(x) sin(y)");
    const PanelMap logarithmic{{ScaleKind::Logarithmic, 0.01, 100, 120}, {ScaleKind::Linear, -2, 2, 80}};
    const std::array<Interval, 2> part{Interval{0.01, 100, true, true}, Interval{-2, 2, true, true}};
    const FieldSamples a = sampleMesh(*f, part, logarithmic, {0.02, -5, 5}),
                       b = sampleMesh(*f, part, logarithmic, {0.02, -5, 5});
    CHECK(a.finished);
    CHECK(a.x == b.x);
    CHECK(a.values == b.values);
    CHECK(a.triangles == b.triangles);
    // As many points in each decade, within a factor of two: the scale decides.
    std::array<double, 4> decades{};
    for (const double x : a.x) ++decades[static_cast<std::size_t>(std::clamp(std::floor(std::log10(x)) + 2, 0.0, 3.0))];
    CHECK(*std::ranges::max_element(decades) < 4 * *std::ranges::min_element(decades));
}
