#include "rounds.h"
#include "sampling/zero_proof.h"

#include "field_program.h"
#include "sampling/field.h"
#include "sampling/singular_points.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02; // mm

/// A panel of 120 × 80 mm, with what is found and proven in it.
struct Panel {
    PanelMap map{{ScaleKind::Linear, -3, 3, 120}, {ScaleKind::Linear, -2, 2, 80}};
    std::shared_ptr<const Program> f;
    std::vector<Isoline> lines;
    Path points;

    double level = 0;

    explicit Panel(const std::string& formula, bool logarithmic = false, double of = 0) : f(field(formula)), level(of) {
        REQUIRE(f);
        if (logarithmic) map = {{ScaleKind::Logarithmic, 0.1, 100, 120}, {ScaleKind::Logarithmic, 0.01, 10, 80}};
        const std::array<Interval, 2> whole{Interval{map.x.low, map.x.high, true, true},
                                            Interval{map.y.low, map.y.high, true, true}};
        const FieldSamples samples = sampleMesh(*f, whole, map, {tolerance, level - 1, level + 1});
        lines = followLevels(samples, {level}, f.get(), map, {tolerance}).lines;
        for (const SingularPoint& point : singularPoints(samples, level, *f, map, tolerance)) {
            points.x.push_back(point.x);
            points.y.push_back(point.y);
        }
    }
    ZeroProof prove(std::size_t most = 60'000) const {
        return proveLevel(*f, level, lines, points, map, {0, 0, 120, 80}, {tolerance, most});
    }
    double at(double u, double v) const {
        const double x = map.x.fromSheet(u), y = map.y.fromSheet(v);
        double z = 0;
        const double* const in[] = {&x, &y};
        double* const out[] = {&z};
        Evaluator evaluator(*f);
        evaluator(in, out, 1);
        return z;
    }
    /// mm from the nearest line.
    double away(double u, double v) const {
        double away = HUGE_VAL;
        for (const Isoline& line : lines) {
            const std::size_t n = line.path.size();
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
                const double au = map.x.toSheet(line.path.x[i]), av = map.y.toSheet(line.path.y[i]),
                             du = map.x.toSheet(line.path.x[(i + 1) % n]) - au,
                             dv = map.y.toSheet(line.path.y[(i + 1) % n]) - av, square = du * du + dv * dv;
                const double t = square > 0 ? std::clamp(((u - au) * du + (v - av) * dv) / square, 0.0, 1.0) : 0;
                away = std::min(away, std::hypot(u - au - t * du, v - av - t * dv));
            }
        }
        return away;
    }
};

} // namespace

TEST_CASE("smooth curves are proven whole, and that there is no other one") {
    for (const char* formula : {"x^2 + y^2 - 1", "x^2/4 + y^2 - 1", "(x^2 + y^2)^2 - 2 (x^2 - y^2) - 0.5", "x y - 0.01",
                                "x y - 1e-4", "sin(5 x y) - 0.3", "exp(x) - y - y^3", "J_0(3 x) - y",
                                "sin(3 x) + cos(5 y) - 0.3", "(x^2 + y^2 - 1) ((x - 1.5)^2 + y^2 - 0.2)", "x - 1/3",
                                "y + 2/3", "x^2 + y^2 + 1", "tanh(x y) - x/2 + 0.3"}) {
        INFO(formula);
        const ZeroProof proof = Panel(formula).prove();
        CHECK(proof.provenLength == Approx(proof.length));
        CHECK(proof.unsettledArea == 0);
        CHECK(proof.isAll());
    }
    for (const char* formula : {"x y - 1", "x^2 + y^2 - 20", "x + y - 5", "ln(x) y - 1"}) {
        INFO(formula);
        const ZeroProof proof = Panel(formula, true).prove();
        CHECK(proof.share() > 0.99999);
        CHECK(proof.isAll());
    }
}

TEST_CASE("lines of a level are proven as those of zero are, and not those of another level") {
    struct Case {
        const char* formula;
        double level;
    };
    for (const Case& c : std::vector<Case>{{"x^2 + y^2", 1},
                                           {"sin(x) cos(y)", 0.3},
                                           {"sin(x) cos(y)", -0.7},
                                           {"exp(-x^2 - y^2) + x/5", 0.1},
                                           {"1e6 + 1e3 x y", 1e6 + 400}}) {
        CAPTURE(c.formula, c.level);
        Panel panel(c.formula, false, c.level);
        const ZeroProof proof = panel.prove();
        CHECK(proof.length > 40);
        CHECK(proof.share() > 0.99999);
        CHECK(proof.isAll());
        panel.level += 0.05 * std::max(1.0, std::abs(c.level) / 1e4);
        const ZeroProof other = panel.prove();
        CHECK(other.share() < 0.05);
        CHECK_FALSE(other.isAll());
    }
    CHECK(Panel("sin(x) cos(y)", false, 1.01).prove().isAll()); // there is none, and that is proven
    CHECK_FALSE(Panel("sin(x) cos(y)", false, 1).prove().unsettledArea > 1e-3);
}

TEST_CASE("where a curve crosses itself, ends in a cusp or is one place all but that is proven") {
    for (const char* formula : {"(x^2 + y^2)^2 - 2 (x^2 - y^2)", "x^2 - y^2", "y^2 - x^3", "sin(3 x) - cos(4 y)",
                                "abs(x) + abs(y) - 1", "(y - x) (y + x/2)", "cosh(y) - 2 + cos(2 x)"}) {
        INFO(formula);
        const ZeroProof proof = Panel(formula).prove();
        CHECK(proof.share() > 0.99);
        CHECK(proof.share() < 1);
        CHECK(proof.unsettledArea <= 1e-6 * proof.area);
    }
    const ZeroProof place = Panel("x^2 + y^2").prove();
    CHECK(place.length == 0);
    CHECK(place.isAll());
}

TEST_CASE("a line that is missing, moved or invented is not proven") {
    Panel panel("(x^2 + y^2 - 1) ((x - 2)^2 + y^2 - 0.2)");
    REQUIRE(panel.lines.size() == 2);
    Panel missing = panel;
    missing.lines.pop_back();
    const ZeroProof lacks = missing.prove();
    CHECK(lacks.share() > 0.99999);
    CHECK_FALSE(lacks.isAll());
    CHECK(lacks.unsettledArea > 1e-3);

    Panel moved = panel;
    for (double& x : moved.lines[0].path.x) x += 1.2 * tolerance / 20;
    CHECK(moved.prove().provenLength < 0.8 * moved.prove().length);
    for (double& x : moved.lines[0].path.x) x += 5 * tolerance / 20;
    CHECK_FALSE(moved.prove().isAll());

    Panel invented = panel;
    invented.lines.push_back({0, true, {{-2.5, -2.3, -2.4}, {1.5, 1.5, 1.7}}});
    const ZeroProof with = invented.prove();
    CHECK(with.length - with.provenLength == Approx(4 + 2 * std::hypot(2, 4)));

    // A gap in a line that is right else.
    Panel gap("x^2 + y^2 - 1");
    Isoline& line = gap.lines[0];
    line.closed = false;
    line.path.x.erase(line.path.x.begin(), line.path.x.begin() + 3);
    line.path.y.erase(line.path.y.begin(), line.path.y.begin() + 3);
    CHECK_FALSE(gap.prove().isAll());
}

TEST_CASE("nothing is claimed of double lines, at jumps, where the function is undefined, or without effort") {
    CHECK(Panel("(x^2 + y^2 - 1)^2").prove().provenLength == 0);
    // Circles a tenth of a millimetre apart, which lines through samples take for one in places.
    CHECK_FALSE(Panel("(x^2 + y^2 - 1) (x^2 + y^2 - 1.01)").prove().isAll());
    const ZeroProof jump = Panel("floor(x) + 0.5 + 0 y").prove();
    CHECK(jump.provenLength == 0);
    CHECK(jump.unsettledArea > 0);
    const ZeroProof edge = Panel("sqrt(x) - y^2").prove();
    CHECK(edge.share() < 1);
    CHECK_FALSE(edge.isAll());
    const ZeroProof little = Panel("sin(5 x y) - 0.3").prove(500);
    CHECK_FALSE(little.isAll());
    CHECK_FALSE(little.finished);
    CHECK(little.evaluations < 600);
}

TEST_CASE(
    "what is proven holds: of random functions every zero is found near a line, and every chord lies beside one") {
    std::mt19937 random(19);
    std::uniform_real_distribution<double> amount(-1, 1);
    int proven = 0;
    for (int round = 0; round < rounds(16); ++round) {
        std::string formula;
        for (int k = 0; k < 4; ++k) {
            const auto number = [&](double most) { return std::to_string(most * amount(random)); };
            formula += (k == 0 ? "" : " + ") + ("(" + number(1)) + ") sin((" + number(4) + ") x + (" + number(4) +
                       ") y + (" + number(3) + "))";
        }
        INFO(formula);
        const Panel panel(formula);
        const ZeroProof proof = panel.prove();
        if (!proof.isAll()) continue;
        ++proven;
        // Zeros on the lines of a grid that has nothing to do with the proof.
        double farthest = 0;
        for (int row = 0; row < 57; ++row) {
            const double v = 80 * (row + 0.37) / 57;
            double before = panel.at(0, v);
            for (double u = 0.31; u < 120; u += 0.31) {
                const double now = panel.at(u, v);
                if ((now > 0) != (before > 0)) {
                    double low = u - 0.31, high = u;
                    for (int i = 0; i < 40; ++i) {
                        const double middle = (low + high) / 2;
                        ((panel.at(middle, v) > 0) == (now > 0) ? high : low) = middle;
                    }
                    farthest = std::max(farthest, panel.away(high, v));
                }
                before = now;
            }
        }
        CHECK(farthest <= 3 * tolerance);
        // Opposite signs at the tolerance to both sides of every chord, where all are proven.
        if (proof.provenLength < proof.length * (1 - 1e-12)) continue;
        std::size_t wrong = 0;
        for (const Isoline& line : panel.lines) {
            for (std::size_t i = 0; i + 1 < line.path.size(); ++i) {
                const double au = panel.map.x.toSheet(line.path.x[i]), av = panel.map.y.toSheet(line.path.y[i]),
                             bu = panel.map.x.toSheet(line.path.x[i + 1]), bv = panel.map.y.toSheet(line.path.y[i + 1]),
                             length = std::hypot(bu - au, bv - av);
                for (const double t : {0.0, 0.3, 0.5, 0.9}) {
                    const double u = au + t * (bu - au), v = av + t * (bv - av), nu = -(bv - av) / length * tolerance,
                                 nv = (bu - au) / length * tolerance;
                    if (length > 0 && panel.at(u + nu, v + nv) * panel.at(u - nu, v - nv) >= 0) ++wrong;
                }
            }
        }
        CHECK(wrong == 0);
    }
    CHECK(proven >= rounds(12));
}
