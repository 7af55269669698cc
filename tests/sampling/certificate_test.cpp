#include "../formula/random_formula.h"
#include "formula/derivative.h"
#include "formula/plotted.h"
#include "sampling/certificate.h"
#include "sampling/curve.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

struct Certified {
    std::shared_ptr<const Program> f, second;
    PanelMap map;
    CurveSamples samples;
};

/// Nothing if the formula cannot be compiled.
std::optional<Certified> certified(const std::string& formula, Interval interval, double low, double high) {
    const std::vector<std::string> lines{"f(x) = " + formula, "x in [0, 1]"};
    const Page page = readPage(lines);
    const Plotted plotted = readPlotted(page, "f(x)");
    if (!plotted.expression) return std::nullopt;
    const std::vector<std::string> inputs{"x"};
    Certified c;
    c.f = compile(page, plotted.expression, inputs).program;
    if (!c.f) return std::nullopt;
    const Derived bend = derivative(page, plotted.expression, "x", 2);
    if (bend.expression) c.second = compile(page, bend.expression, inputs).program;
    c.map = {{ScaleKind::Linear, interval.low, interval.high, 120}, {ScaleKind::Linear, low, high, 80}};
    c.samples = sampleCurve(*c.f, interval, c.map, tolerance, {}, {c.f.get(), c.second.get()});
    return c;
}

/// Distance in mm of a curve point from one chord.
double fromChord(const Certified& c, const Stretch& s, std::size_t i, double x, double y) {
    const double au = c.map.x.toSheet(s.x[i]), av = c.map.y.toSheet(s.y[i]), bu = c.map.x.toSheet(s.x[i + 1]),
                 bv = c.map.y.toSheet(s.y[i + 1]), u = c.map.x.toSheet(x), v = c.map.y.toSheet(y);
    const double du = bu - au, dv = bv - av, square = du * du + dv * dv;
    const double t = square > 0 ? std::clamp(((u - au) * du + (v - av) * dv) / square, 0.0, 1.0) : 0;
    return std::hypot(au + t * du - u, av + t * dv - v);
}

} // namespace

TEST_CASE("where random curves are proven, they never leave their chords") {
    int chords = 0, looked = 0;
    for (unsigned seed = 0; seed < 700; ++seed) {
        RandomFormula random(seed + 7'000);
        const std::string formula = random.make(1 + static_cast<int>(seed % 4));
        const double low = random.between(-4, 2), high = low + std::pow(10, random.between(-1, 1));
        const double bottom = random.between(-3, 0);
        const auto c = certified(formula, {low, high}, bottom, bottom + std::pow(10, random.between(-0.5, 1.5)));
        if (!c) continue;
        INFO(formula << " over [" << low << ", " << high << "]");
        Evaluator f(*c->f);
        for (const Stretch& s : c->samples.stretches) {
            REQUIRE(s.proven.size() + 1 == s.x.size());
            for (std::size_t i = 0; i + 1 < s.x.size(); ++i) {
                if (!s.proven[i]) continue;
                ++chords;
                // Beside a special place the proof leaves out what the place itself is not known to.
                const bool special = s.state[i] != PointState::Estimated;
                const double first = special
                                         ? s.x[i] + std::max(2e-14 * (s.x[i + 1] - s.x[i]), 3e-14 * std::abs(s.x[i]))
                                         : std::nextafter(s.x[i], s.x[i + 1]);
                for (int k = 0; k < 12; ++k) {
                    const double x = k == 0 ? std::min(first, s.x[i + 1]) : random.between(s.x[i], s.x[i + 1]);
                    const double y = f(x);
                    INFO("chord " << s.x[i] << " to " << s.x[i + 1] << ", at " << x);
                    REQUIRE(std::isfinite(y)); // a proof says that it is defined
                    const double v = c->map.y.toSheet(y);
                    if (v < 0 || v > c->map.y.length) continue;
                    ++looked;
                    REQUIRE(fromChord(*c, s, i, x, y) <= tolerance * (1 + 1e-6));
                }
            }
        }
    }
    CHECK(chords > 2'000);
    CHECK(looked > 20'000);
}

TEST_CASE("smooth, steep and broken curves are proven nearly throughout") {
    struct Case {
        const char* formula;
        double low, high;
        double share;
    };
    const Case cases[] = {
        {"sin(x)", -1, 1, 1},
        {"x^2", 0, 25, 1},
        {"sqrt(25 - x^2)", 0, 5, 1},
        {"tan(x)", -5, 5, 1},
        {"cbrt(x)", -2, 2, 1},
        {"|x|", 0, 5, 1},
        {"floor(x) + x^2", 0, 20, 1},
        {"J_0(5x)", -1, 1, 1},
        {"Gamma(x + 6)", 0, 100, 1},
        {"x^(1/3)", 0, 2, 1},
        {"1/(x - 1)^3", -9, 9, 1},
        {"max(sin(x), cos(x))", -1, 1, 1},
        {"sin(10x) exp(-x/3)", -3, 3, 1},
        {"Ai(x)", -1, 1, 1},
        {"x sin(1/x)", -1, 1, 0.95},
    };
    for (const Case& c : cases) {
        INFO(c.formula);
        const auto found = certified(c.formula, {-5, 5}, c.low, c.high);
        REQUIRE(found);
        CHECK(found->samples.certificate.share() >= c.share * (1 - 1e-9));
        CHECK(found->samples.certificate.largestBound <= tolerance);
        CHECK(found->samples.certificate.largestBound > 0);
    }
}

TEST_CASE("what has no bounds is not proven") {
    for (const char* formula : {"int_0^x exp(-k^2) dk", "zeta(x - 6)"}) {
        INFO(formula);
        const auto found = certified(formula, {-5, 5}, -2, 2);
        REQUIRE(found);
        CHECK(found->samples.certificate.length > 50);
        CHECK(found->samples.certificate.provenLength == 0);
    }
    const auto wild = certified("sin(1/x)", {-1, 1}, -1, 1);
    REQUIRE(wild);
    CHECK(wild->samples.certificate.share() < 0.99); // near 0 it cannot be resolved
}

TEST_CASE("narrow peaks are found by the bounds, wherever they stand") {
    for (const double place : {1.234567, -3.3333, 4.99, 0.1}) {
        for (const char* width : {"1e-3", "1e-5", "1e-7"}) {
            const std::string at = shortestNumber(place);
            const std::string formula = "sin(x)/4 + exp(-((x - (" + at + "))/" + width + ")^2)";
            INFO(formula);
            const auto found = certified(formula, {-5, 5}, -1, 2);
            REQUIRE(found);
            double top = -1;
            for (const Stretch& s : found->samples.stretches) {
                for (const double y : s.y) top = std::max(top, y);
            }
            CHECK(top > std::sin(place) / 4 + 0.998);
            CHECK(found->samples.certificate.share() > 0.99);
        }
    }
}

TEST_CASE("a wrong polyline is not proven, and its fault is found") {
    const auto right = certified("sin(x)", {0, 3}, -1, 1);
    REQUIRE(right);
    CurveSamples wrong;
    wrong.stretches.push_back({{0, 3}, {0, 3}, {0, std::sin(3.0)}, {PointState::Estimated, PointState::Estimated}, {}});
    const std::vector<double> missed = certify(wrong, {right->f.get(), right->second.get()}, right->map, tolerance);
    CHECK(wrong.certificate.provenLength == 0);
    REQUIRE(missed.size() == 1);
    CHECK(missed[0] > 0);
    CHECK(missed[0] < 3);
}
