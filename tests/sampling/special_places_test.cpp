#include "formula/lines/plotted.h"

#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "sampling/curve_sampler.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

/// A probe of a formula on a panel of 120 mm for [−6, 6] by 80 mm for [−4, 4].
struct Probed {
    std::shared_ptr<const Program> program;
    std::unique_ptr<CurveProbe> probe;
};

Probed probe(const std::string& formula) {
    const std::vector<std::string> lines{"f(x) = " + formula, "x in [0, 1]"};
    const Page page = readPage(lines);
    const Plotted plotted = readPlotted(page, "f(x)");
    REQUIRE(plotted.expression);
    Probed made;
    made.program = compile(page, plotted.expression, std::vector<std::string>{"x"}).program;
    made.probe = std::make_unique<CurveProbe>(*made.program,
                                              PanelMap{{ScaleKind::Linear, -6, 6, 120}, {ScaleKind::Linear, -4, 4, 80}},
                                              AxisMap{ScaleKind::Linear, -6, 6, 120});
    return made;
}

} // namespace

TEST_CASE("scales go from coordinates to millimetres and back") {
    const AxisMap linear{ScaleKind::Linear, -3, 5, 160};
    CHECK(linear.toSheet(-3) == 0);
    CHECK(linear.toSheet(5) == 160);
    CHECK(linear.toSheet(1) == 80);
    const AxisMap logarithmic{ScaleKind::Logarithmic, 0.01, 1000, 100};
    CHECK(logarithmic.toSheet(0.01) == Approx(0).margin(1e-12));
    CHECK(logarithmic.toSheet(1000) == Approx(100));
    CHECK(logarithmic.toSheet(0.1) == Approx(20));
    const AxisMap downwards{ScaleKind::Linear, 5, -3, 160};
    CHECK(downwards.toSheet(5) == 0);
    for (const AxisMap& map : {linear, logarithmic, downwards}) {
        for (double mm = -10; mm < 180; mm += 7.5) CHECK(map.toSheet(map.fromSheet(mm)) == Approx(mm).margin(1e-9));
    }
}

TEST_CASE("the boundary of a domain is found to neighbouring doubles") {
    struct Case {
        const char* formula;
        double inside, outside, edge;
    };
    for (const Case& c : {Case{"sqrt(x - 1)", 3, -3, 1}, Case{"sqrt(1 - x)", -3, 3, 1}, Case{"arcsin(x/3)", 0, 6, 3},
                          Case{"ln(x + 2)", 0, -5, -2}, Case{"sqrt(x - 0.3)", 1, 0, 0.3}, Case{"arcosh(x)", 5, 0, 1},
                          Case{"sqrt(x)", 1, -1, 0}}) {
        Probed p = probe(c.formula);
        const Boundary boundary = findBoundary(*p.probe, p.probe->at(c.inside), p.probe->at(c.outside));
        INFO(c.formula << " ends at " << boundary.defined.x);
        CHECK(std::isfinite(boundary.defined.y));
        CHECK_FALSE(std::isfinite(boundary.undefined.y));
        CHECK(std::abs(boundary.defined.x - c.edge) <= 4 * std::nextafter(std::abs(c.edge), 10) - 4 * std::abs(c.edge));
        const double next = std::nextafter(boundary.defined.x, boundary.undefined.x);
        CHECK((next == boundary.undefined.x || std::abs(boundary.defined.x - boundary.undefined.x) < 1e-300));
    }
}

TEST_CASE("a steep place is a jump, a pole, or neither") {
    const auto kind = [](const std::string& formula, double left, double right) {
        Probed p = probe(formula);
        return findSteepPlace(*p.probe, p.probe->at(left), p.probe->at(right), 0.02).kind;
    };
    CHECK(kind("floor(x)", 0.5, 1.4) == GapKind::Jump);
    CHECK(kind("sgn(x - 1/3)", 0, 1) == GapKind::Jump);
    CHECK(kind("{x for x < 2; 3 otherwise}", 1, 3) == GapKind::Jump);
    CHECK(kind("1/(x - 1)", 0.9, 1.05) == GapKind::Pole);
    CHECK(kind("tan(x)", 1.5, 1.7) == GapKind::Pole);
    CHECK(kind("1/(x - 1)^3", 0.9, 1.05) == GapKind::Pole);
    CHECK_FALSE(kind("tanh(1000 x)", -0.1, 0.1));
    CHECK_FALSE(kind("cbrt(x)", -1, 1));
    CHECK_FALSE(kind("arctan(1e8 x)", -0.1, 0.1));
}

TEST_CASE("an oscillation is known for what it is") {
    Probed p = probe("sin(1/x)");
    const SteepPlace place = findSteepPlace(*p.probe, p.probe->at(-1e-9), p.probe->at(1.7e-9), 0.02);
    CHECK_FALSE(place.kind == GapKind::Jump);
    CHECK_FALSE(place.kind == GapKind::Pole);
}

TEST_CASE("both sides of a jump keep their own values") {
    Probed p = probe("{x^2 for x < 1; 5 - x otherwise}");
    const SteepPlace place = findSteepPlace(*p.probe, p.probe->at(0.3), p.probe->at(2), 0.02);
    CHECK(place.left.y == Approx(1));
    CHECK(place.right.y == 4);
    CHECK(place.right.x == 1);
    CHECK(place.left.x == std::nextafter(1.0, 0.0));
}

TEST_CASE("distance from a chord is that from the segment, not from the line") {
    const auto knot = [](double u, double v) {
        Knot made;
        made.u = u;
        made.v = v;
        return made;
    };
    CHECK(distanceFromChord(knot(5, 3), knot(0, 0), knot(10, 0)) == 3);
    CHECK(distanceFromChord(knot(14, 3), knot(0, 0), knot(10, 0)) == 5);
    CHECK(distanceFromChord(knot(-3, -4), knot(0, 0), knot(10, 0)) == 5);
    CHECK(distanceFromChord(knot(3, 4), knot(0, 0), knot(0, 0)) == 5);
}

TEST_CASE("the tip of a needle is not cut off") {
    std::vector<Knot> knots;
    for (int i = 0; i <= 200; ++i) {
        Knot knot;
        knot.u = 0.0001 * i;
        knot.v = 50 - 0.5 * std::abs(i - 100.0);
        knots.push_back(knot);
    }
    double highest = 0;
    for (const std::size_t k : fewestKnots(knots, 0.02)) highest = std::max(highest, knots[k].v);
    CHECK(highest == 50);
}

TEST_CASE("the tolerance is finer where more was asked for") {
    Tolerance tolerance = 0.02;
    tolerance.finer = {{1, 2, 2}, {3, 4, 5}};
    CHECK(tolerance.at(0) == 0.02);
    CHECK(tolerance.at(1) == 0.005);
    CHECK(tolerance.at(2) == 0.02);
    CHECK(tolerance.at(3.5) == Approx(0.0008));
    CHECK(tolerance.finerAt(2.5) == nullptr);
    CHECK(tolerance.finerAt(1.5)->times == 2);
}
