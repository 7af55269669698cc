#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "random_formula.h"
#include "rounds.h"
#include "sampling/certificate.h"
#include "sampling/curve.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

struct Certified {
    std::shared_ptr<const Program> f;
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
    c.map = {{ScaleKind::Linear, interval.low, interval.high, 120}, {ScaleKind::Linear, low, high, 80}};
    c.samples = sampleCurve(*c.f, interval, c.map, tolerance, {}, {.proofs = Proofs::All});
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
    for (unsigned seed = 0; seed < unsigned{rounds(700)}; ++seed) {
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
    CHECK(chords > rounds(2'000));
    CHECK(looked > rounds(20'000));
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

TEST_CASE("curves that are integrals are proven like others") {
    struct Case {
        const char *integral, *closed;
    };
    for (const Case& c : {Case{"int_0^x exp(-k^2) dk", "sqrt(pi)/2 erf(x)"}, Case{"int_0^2 cos(k x) dk", "sin(2x)/x"},
                          Case{"int_x^{x + 1} k sin(k) dk", "sin(x + 1) - (x + 1) cos(x + 1) - sin(x) + x cos(x)"}}) {
        INFO(c.integral);
        const auto found = certified(c.integral, {-5, 5}, -4, 4);
        REQUIRE(found);
        CHECK(found->samples.certificate.share() > 0.95);
        // What is called proven stays within the tolerance of the closed form.
        const auto closed = certified(c.closed, {-5, 5}, -4, 4);
        Evaluator exact(*closed->f);
        double farthest = 0;
        for (const Stretch& s : found->samples.stretches) {
            for (std::size_t i = 0; i + 1 < s.x.size(); ++i) {
                for (int k = 1; s.proven[i] && k < 20; ++k) {
                    const double x = s.x[i] + (s.x[i + 1] - s.x[i]) * k / 20, y = exact(x);
                    if (std::abs(y) < 4) farthest = std::max(farthest, fromChord(*found, s, i, x, y));
                }
            }
        }
        CHECK(farthest <= tolerance);
        CHECK(farthest > tolerance / 4);
    }
}

TEST_CASE("random integrals that are proven never leave their chords") {
    int chords = 0;
    for (unsigned seed = 0; seed < unsigned{rounds(120)}; ++seed) {
        RandomFormula limits(seed + 100), integrands(seed + 9'000, {"x", "k", "k"});
        const std::string formula = "int_{" + limits.make(static_cast<int>(seed % 2)) + "}^{" + limits.make(1) + "} (" +
                                    integrands.make(1 + static_cast<int>(seed % 2)) + ") dk";
        const auto c = certified(formula, {-2, 2}, -3, 3);
        if (!c) continue;
        INFO(formula);
        Evaluator f(*c->f);
        for (const Stretch& s : c->samples.stretches) {
            for (std::size_t i = 0; i + 1 < s.x.size(); ++i) {
                if (!s.proven[i]) continue;
                ++chords;
                for (int k = 1; k < 8; ++k) {
                    const double x = s.x[i] + (s.x[i + 1] - s.x[i]) * k / 8, y = f(x);
                    INFO("at " << x);
                    REQUIRE(std::isfinite(y));
                    if (std::abs(y) < 3) REQUIRE(fromChord(*c, s, i, x, y) <= tolerance * (1 + 1e-6));
                }
            }
        }
    }
    CHECK(chords > rounds(300));
}

TEST_CASE("what has no bounds is not proven") {
    for (const char* formula : {"sum_{n=1}^{inf} J_0(n x)/2^n", "zeta(x - 6)"}) {
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
    ProofEffort effort = ProofEffort::of(*right->f);
    const std::vector<double> missed = certify(wrong, *right->f, right->map, tolerance, effort);
    CHECK(wrong.certificate.provenLength == 0);
    REQUIRE(missed.size() == 1);
    CHECK(missed[0] > 0);
    CHECK(missed[0] < 3);
}

namespace {

/// One chord of a curve between two values of its parameter, and what it is drawn in.
struct OneChord {
    std::shared_ptr<const Program> curve;
    PanelMap map;
    double from, to;

    bool isFunction() const { return curve->outputs.size() == 1; }
    std::pair<double, double> at(double t) const {
        double x = t, y = 0;
        const double* in = &t;
        double* const out[] = {&x, &y};
        Evaluator f(*curve);
        f(std::span(&in, 1), isFunction() ? std::span(&out[1], 1) : std::span(out, 2), 1);
        return {x, y};
    }
    /// The largest distance of the curve from its chord, in mm, from many places of it.
    double deviation() const {
        const auto sheet = [&](double t) {
            const auto [x, y] = at(t);
            return std::pair{map.x.toSheet(x), map.y.toSheet(y)};
        };
        const auto [ua, va] = sheet(from);
        const auto [ub, vb] = sheet(to);
        double worst = 0;
        for (int k = 0; k <= 4000; ++k) {
            const auto [u, v] = sheet(from + (to - from) * k / 4000);
            const double du = ub - ua, dv = vb - va;
            const double part = std::clamp(((u - ua) * du + (v - va) * dv) / (du * du + dv * dv), 0.0, 1.0);
            worst = std::max(worst, std::hypot(ua + part * du - u, va + part * dv - v));
        }
        return worst;
    }
    bool isProven(double wanted, double raised = 0) const {
        CurveSamples samples;
        auto [xa, ya] = at(from);
        auto [xb, yb] = at(to);
        ya += raised;
        yb += raised;
        samples.stretches.push_back(
            {{from, to}, {xa, xb}, {ya, yb}, {PointState::Estimated, PointState::Estimated}, {}});
        ProofEffort effort = ProofEffort::of(*curve);
        certify(samples, *curve, map, wanted, effort);
        return samples.stretches[0].proven[0];
    }
};

std::optional<OneChord> chordOf(const std::string& definition, const char* of, PanelMap map, double from, double to) {
    const std::vector<std::string> lines{definition, std::string(of)[0] == 'c' ? "t in [0, 1]" : "x in [0, 1]"};
    const Page page = readPage(lines);
    const Plotted plotted = readPlotted(page, of);
    if (!plotted.expression) return std::nullopt;
    const std::vector<std::string> inputs{std::string(of)[0] == 'c' ? "t" : "x"};
    return OneChord{compile(page, plotted.expression, inputs).program, map, from, to};
}

const PanelMap plain{{ScaleKind::Linear, -6, 6, 120}, {ScaleKind::Linear, -4, 4, 80}};
const PanelMap logarithmicX{{ScaleKind::Logarithmic, 0.01, 100, 120}, {ScaleKind::Linear, -4, 4, 80}};
const PanelMap logarithmicY{{ScaleKind::Linear, -6, 6, 120}, {ScaleKind::Logarithmic, 0.01, 100, 80}};
const PanelMap logarithmicBoth{{ScaleKind::Logarithmic, 0.01, 100, 120}, {ScaleKind::Logarithmic, 0.01, 100, 80}};

} // namespace

TEST_CASE("a chord is proven exactly when its true deviation keeps the tolerance, to a hundredth") {
    struct Case {
        const char *definition, *of;
        PanelMap map;
        double low, high; ///< where chords are taken
    };
    const Case cases[] = {
        {"f(x) = x^2/4", "f(x)", plain, -3.5, 3.5},
        {"f(x) = 3 - x^2/2 + x", "f(x)", plain, -2, 3},
        {"f(x) = x^3/20 - x/2", "f(x)", plain, -4, 4},
        {"f(x) = exp(x/3) - 2", "f(x)", plain, -5, 4},
        {"f(x) = sin(x) + J_0(x)", "f(x)", plain, -5, 5},
        {"c(t) = (3 cos(t), 3 sin(t))", "c(t)", plain, 0, 6},
        {"c(t) = (t^3/8 - t, 2 sin(t))", "c(t)", plain, -3, 3},
        {"c(t) = (t/2 cos(t), t/2 sin(t))", "c(t)", plain, 0.5, 7},
        {"f(x) = sqrt(x)/3 - 2", "f(x)", logarithmicX, 0.02, 90},
        {"f(x) = sin(ln(x))", "f(x)", logarithmicX, 0.02, 90},
        {"f(x) = 2 + x^2", "f(x)", logarithmicY, -5, 5},
        {"f(x) = x/(1 + x)", "f(x)", logarithmicBoth, 0.02, 90},
        {"c(t) = (exp(t), 1 + t^2)", "c(t)", logarithmicBoth, -3, 3},
    };
    RandomFormula random(5);
    int chords = 0;
    for (const Case& c : cases) {
        for (int i = 0; i < 25; ++i) {
            const bool byRatio = c.map.x.kind == ScaleKind::Logarithmic && c.of[0] == 'f';
            double from = random.between(c.low, c.high), to = from + random.between(0.02, 0.7);
            if (byRatio) {
                from = std::exp(random.between(std::log(c.low), std::log(c.high) - 0.8));
                to = from * std::exp(random.between(0.05, 0.8));
            }
            if (to > c.high) continue;
            const auto chord = chordOf(c.definition, c.of, c.map, from, to);
            REQUIRE(chord);
            const double deviation = chord->deviation();
            if (deviation < 1e-4) continue;
            INFO(c.definition << " from " << from << " to " << to << ", " << deviation << " mm");
            ++chords;
            CHECK_FALSE(chord->isProven(deviation / 1.01));
            CHECK(chord->isProven(deviation * 1.01));
        }
    }
    CHECK(chords > 250);
}

TEST_CASE("of a parabola the bound is exact") {
    // y = x²/4 over a chord of width h on equal scales, seen level: its middle lies h²/16 above the curve.
    const auto chord = chordOf("f(x) = x^2/4", "f(x)", plain, -0.5, 0.5);
    REQUIRE(chord);
    const double deviation = 10 * 0.25 * 0.25; // mm
    CHECK(chord->deviation() == Approx(deviation));
    CHECK(chord->isProven(deviation * (1 + 1e-7)));
    CHECK_FALSE(chord->isProven(deviation * (1 - 1e-7)));
}

TEST_CASE("a chord beside its curve is proven as far as it lies beside it") {
    // Tangent to the curve in its middle, so that both its ends are 1/16 too low.
    const auto chord = chordOf("f(x) = x^2/4", "f(x)", plain, -0.5, 0.5);
    const double away = 10.0 / 16;
    CHECK(chord->isProven(away * (1 + 1e-7), -1.0 / 16));
    CHECK_FALSE(chord->isProven(away * (1 - 1e-3), -1.0 / 16));
    CHECK_FALSE(chord->isProven(away * 0.51, -1.0 / 16));
    // Along the slope of a cubic, and of a curve on a logarithmic scale.
    const auto cubic = chordOf("f(x) = x^3/8", "f(x)", plain, -1, 1);
    CHECK_FALSE(cubic->isProven(cubic->deviation() / 1.01));
    const auto raised = chordOf("f(x) = ln(x)^2/4", "f(x)", logarithmicX, 0.5, 2);
    const double ends = 0.5 * std::log(2) * std::log(2) / 4; // half of what the chord is lifted by
    CHECK_FALSE(raised->isProven(10 * ends, -2 * ends));
    // A straight line is none on a logarithmic scale: through its middle, a chord leaves it by 2.5 mm upwards.
    CHECK_FALSE(chordOf("f(x) = x", "f(x)", logarithmicX, 0.5, 2)->isProven(2, -0.25));
    CHECK(chordOf("f(x) = x", "f(x)", logarithmicX, 0.5, 2)->isProven(3, -0.25));
}

TEST_CASE("no chord over a corner, a jump or a place without a value is proven beyond what it keeps") {
    // A chord over the corner of |x| k from −1 to 1 is k above it.
    const auto corner = chordOf("f(x) = |x|/100", "f(x)", plain, -1, 1);
    CHECK_FALSE(corner->isProven(0.1 / 1.01));
    CHECK(corner->isProven(0.101));
    const auto largest = chordOf("f(x) = max(x, -x)/100", "f(x)", plain, -1, 1);
    CHECK_FALSE(largest->isProven(0.1 / 1.01));
    CHECK(largest->isProven(0.101));
    // Nobody may prove that a curve is there where it is not, however flat it lies.
    for (const char* broken :
         {"f(x) = floor(x)/1e6", "f(x) = sgn(x)/1e6", "f(x) = { 1/1e6 for x < 0; 0 otherwise }", "f(x) = mod(x, 1)/1e6",
          "f(x) = { 0 for |x| > 0.001 }", "f(x) = 0/x", "f(x) = sqrt(x^2 - 1e-9)/1e3", "f(x) = 1e-9/x"}) {
        INFO(broken);
        CHECK_FALSE(chordOf(broken, "f(x)", plain, -1, 1)->isProven(0.02));
    }
}

TEST_CASE("what a proof may cost is bounded, and what is proven already is not proven again") {
    const auto c = certified("sum_{n=0}^{40} 0.5^n cos(3^n pi x)", {-3, 3}, -2, 2);
    REQUIRE(c);
    CHECK(c->samples.certificate.evaluations <= ProofEffort::of(*c->f).evaluationsLeft);
    CHECK(c->samples.certificate.share() < 0.9); // no picture shows all of it

    const auto smooth = certified("sin(x)", {0, 3}, -1, 1);
    ProvenChords known;
    CurveSamples samples = smooth->samples;
    ProofEffort effort = ProofEffort::of(*smooth->f);
    certify(samples, *smooth->f, smooth->map, tolerance, effort, {}, &known);
    CHECK(samples.certificate.share() == Approx(1));
    const std::size_t left = effort.evaluationsLeft;
    certify(samples, *smooth->f, smooth->map, tolerance, effort, {}, &known);
    CHECK(samples.certificate.share() == Approx(1));
    CHECK(effort.evaluationsLeft == left);
    ProofEffort nothing;
    certify(samples, *smooth->f, smooth->map, tolerance, nothing);
    CHECK(samples.certificate.provenLength == 0);
}

TEST_CASE("large formulas are proven like small ones") {
    std::string nested = "x";
    for (int k = 0; k < 60; ++k) nested = "sin(" + nested + ")";
    for (const std::string& formula :
         {nested, std::string("prod_{k=1}^{40} sin(x + k)"), std::string("sum_{k=1}^{100} cos(k x)/k")}) {
        INFO(formula);
        const auto c = certified(formula, {0, 1}, -1, 1);
        REQUIRE(c);
        CHECK(c->samples.certificate.share() > 0.9);
        // A small multiple of the chords, whatever the size.
        CHECK(c->samples.certificate.evaluations < 10 * c->samples.pointCount());
    }
}
