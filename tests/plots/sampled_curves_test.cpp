#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"
#include "random_formula.h"
#include "sampling/curve.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

/// A plot read from a page and sampled on a panel of 120 × 80 mm.
struct SampledCurve {
    Curve curve;
    PanelMap map;
    CurveSamples samples;
};

std::optional<SampledCurve> draw(std::vector<std::string> page, const Plot& plot, Panel panel, Limits x, Limits y,
                                 const Tolerance& wanted = tolerance) {
    panel.plots = {plot};
    const Page read = readPage(page);
    const PanelReading reading = readPlots(read, panel);
    if (reading.drawn.empty()) return std::nullopt;
    SampledCurve d{
        *curveOf(reading.drawn[0]), {{reading.xScale, x.low, x.high, 120}, {reading.yScale, y.low, y.high, 80}}, {}};
    d.samples = sampleCurve(*d.curve.program, d.curve.interval, d.map, wanted, {}, {.proofs = Proofs::All});
    return d;
}

/// Where the curve is on the sheet, in mm.
std::pair<double, double> onSheet(const SampledCurve& d, double t) {
    double x = t, y = 0;
    const double* in = &t;
    double* const out[] = {&x, &y};
    Evaluator f(*d.curve.program);
    f(std::span(&in, 1), d.curve.isFunction() ? std::span(&out[1], 1) : std::span(out, 2), 1);
    return {d.map.x.toSheet(x), d.map.y.toSheet(y)};
}

double fromChord(const SampledCurve& d, const Stretch& s, std::size_t i, double t) {
    const double au = d.map.x.toSheet(s.x[i]), av = d.map.y.toSheet(s.y[i]), bu = d.map.x.toSheet(s.x[i + 1]),
                 bv = d.map.y.toSheet(s.y[i + 1]);
    const auto [u, v] = onSheet(d, t);
    const double du = bu - au, dv = bv - av, square = du * du + dv * dv;
    const double part = square > 0 ? std::clamp(((u - au) * du + (v - av) * dv) / square, 0.0, 1.0) : 0;
    return std::hypot(au + part * du - u, av + part * dv - v);
}

bool inside(const SampledCurve& d, double t) {
    const auto [u, v] = onSheet(d, t);
    return u >= 0 && u <= 120 && v >= 0 && v <= 80;
}

double worstDeviation(const SampledCurve& d) {
    double worst = 0;
    for (const Stretch& s : d.samples.stretches) {
        for (std::size_t i = 0; i + 1 < s.t.size(); ++i) {
            for (int k = 1; k < 40; ++k) {
                const double t = s.t[i] + (s.t[i + 1] - s.t[i]) * k / 40;
                if (inside(d, t)) worst = std::max(worst, fromChord(d, s, i, t));
            }
        }
    }
    return worst;
}

} // namespace

TEST_CASE("curves in the plane keep the tolerance with few points, and are proven") {
    struct Case {
        const char* line;
        Limits x, y;
        std::size_t most; ///< points
    };
    for (const Case& c : {Case{"c(t) = (cos(t), sin(t))", {-1.5, 1.5}, {-1, 1}, 120},
                          Case{"c(t) = (cos(3t), sin(2t))", {-1.1, 1.1}, {-1.1, 1.1}, 300},
                          Case{"c(t) = (t - sin(t), 1 - cos(t))", {0, 6.3}, {0, 2.1}, 120},
                          Case{"c(t) = (t^2, t^3)", {0, 2}, {-2, 2}, 100},
                          Case{"c(t) = (exp(t/4) cos(5t), exp(t/4) sin(5t))", {-4, 4}, {-4, 4}, 500}}) {
        INFO(c.line);
        const auto d = draw({c.line, "t in [0, 2pi]"}, plotOf("c(t)"), {}, c.x, c.y);
        REQUIRE(d);
        REQUIRE_FALSE(d->curve.isFunction());
        CHECK(d->samples.stretches.size() == 1);
        CHECK(worstDeviation(*d) <= tolerance);
        CHECK(d->samples.pointCount() < c.most);
        CHECK(d->samples.certificate.share() > 0.99);
        CHECK(d->samples.certificate.largestBound <= tolerance);
    }
}

TEST_CASE("a plane curve breaks at its poles and jumps, and fills a removable point") {
    const auto pole = draw({"c(t) = (1/t, t)", "t in [-1, 1]"}, plotOf("c(t)"), {}, {-5, 5}, {-1, 1});
    REQUIRE(pole);
    REQUIRE(pole->samples.gaps.size() == 1);
    CHECK(pole->samples.gaps[0].kind == GapKind::Pole);
    CHECK(std::abs(pole->samples.gaps[0].low) < 1e-300);
    const auto jump = draw({"c(t) = (floor(t), t)", "t in [0.5, 2.5]"}, plotOf("c(t)"), {}, {-1, 3}, {0, 3});
    REQUIRE(jump);
    REQUIRE(jump->samples.gaps.size() == 2);
    CHECK(jump->samples.gaps[0].kind == GapKind::Jump);
    CHECK(jump->samples.gaps[0].high == 1);
    CHECK(jump->samples.gaps[1].high == 2);
    const auto filled = draw({"c(t) = (sin(t)/t, t)", "t in [-4, 4]"}, plotOf("c(t)"), {}, {-1, 2}, {-4, 4});
    REQUIRE(filled);
    CHECK(filled->samples.gaps.empty());
    const Stretch& s = filled->samples.stretches[0];
    const auto at = std::ranges::find(s.state, PointState::Filled) - s.state.begin();
    REQUIRE(at < static_cast<std::ptrdiff_t>(s.state.size()));
    CHECK(s.x[static_cast<std::size_t>(at)] == Approx(1).epsilon(1e-9));
}

TEST_CASE("on logarithmic scales the tolerance holds on the sheet, and is proven") {
    struct Case {
        const char* line;
        const char* variable;
        bool up;
        Limits x, y;
    };
    for (const Case& c :
         {Case{"f(x) = 1/(1 + x^2)", "x in [0.01, 1000], logarithmic", false, {0.01, 1000}, {0, 1}},
          Case{"f(x) = exp(-x)", "x in [0.01, 100], logarithmic", true, {0.01, 100}, {1e-8, 1}},
          Case{"f(x) = x^2/(1 + x)^3", "x in [0.001, 1000], logarithmic", true, {0.001, 1000}, {1e-6, 1}},
          Case{"f(x) = exp(-x^2) + 1e-6", "x in [-5, 5]", true, {-5, 5}, {1e-7, 10}},
          Case{"f(x) = x^3", "x in [0.1, 100], logarithmic", true, {0.1, 100}, {1e-3, 1e6}}}) {
        INFO(c.line);
        Panel panel;
        if (c.up) panel.y.scale = ScaleKind::Logarithmic;
        const auto d = draw({c.line, c.variable}, plotOf("f(x)"), panel, c.x, c.y);
        REQUIRE(d);
        CHECK(worstDeviation(*d) <= tolerance);
        CHECK(d->samples.certificate.share() > 0.99);
        CHECK(d->samples.pointCount() < 150);
    }
    // A power is a straight line between two logarithmic scales.
    Panel panel;
    panel.y.scale = ScaleKind::Logarithmic;
    const auto power =
        draw({"f(x) = x^3", "x in [0.1, 100], logarithmic"}, plotOf("f(x)"), panel, {0.1, 100}, {1e-3, 1e6});
    CHECK(power->samples.pointCount() <= 4);
}

TEST_CASE("where random curves of the plane and on logarithmic scales are proven, they never leave their chords") {
    int chords = 0;
    for (unsigned seed = 0; seed < 250; ++seed) {
        RandomFormula random(seed + 90'000);
        const std::string a = random.make(1 + static_cast<int>(seed % 3)),
                          b = random.make(1 + static_cast<int>(seed % 2));
        const double low = random.between(0.05, 2), high = low + random.between(0.3, 6);
        const bool plane = seed % 2 == 0;
        const std::string interval =
            "x in [" + std::to_string(low) + ", " + std::to_string(high) + "]" + (plane ? "" : ", logarithmic");
        Panel panel;
        if (!plane) panel.y.scale = ScaleKind::Logarithmic;
        const std::string line = plane ? "f(x) = (" + a + ", " + b + ")" : "f(x) = " + a;
        INFO(line << ", " << interval);
        const auto d = plane ? draw({line, interval}, plotOf("f(x)"), panel, {-3, 3}, {-2, 2})
                             : draw({line, interval}, plotOf("f(x)"), panel, {low, high}, {0.01, 100});
        if (!d) continue;
        for (const Stretch& s : d->samples.stretches) {
            for (std::size_t i = 0; i + 1 < s.t.size(); ++i) {
                if (!s.provenAlong(i)) continue;
                ++chords;
                for (int k = 1; k < 10; ++k) {
                    const double t = s.t[i] + (s.t[i + 1] - s.t[i]) * (k - 0.5 * random.between(0, 1)) / 10;
                    const auto [u, v] = onSheet(*d, t);
                    INFO("chord " << s.t[i] << " to " << s.t[i + 1] << ", at " << t);
                    REQUIRE(!std::isnan(u));
                    REQUIRE(!std::isnan(v));
                    if (inside(*d, t)) REQUIRE(fromChord(*d, s, i, t) <= tolerance * (1 + 1e-6));
                }
            }
        }
    }
    CHECK(chords > 1'000);
}

TEST_CASE("where the formula changes its piece there is a knot, told apart by whether the curve turns") {
    const auto states = [](const std::string& line, double place) -> std::optional<PointState> {
        const auto d = draw({line, "x in [-5, 5]"}, plotOf("f(x)"), {}, {-5, 5}, {-5, 5});
        REQUIRE(d);
        CHECK(d->samples.certificate.share() > 0.999);
        for (const Stretch& s : d->samples.stretches) {
            for (std::size_t i = 0; i < s.t.size(); ++i) {
                if (std::abs(s.t[i] - place) <= 4 * std::numeric_limits<double>::epsilon() * std::abs(place))
                    return s.state[i];
            }
        }
        return std::nullopt;
    };
    CHECK(states("f(x) = abs(x - 1.3)", 1.3) == PointState::Corner);
    CHECK(states("f(x) = max(x, 2 - x)", 1) == PointState::Corner);
    CHECK(states("f(x) = {x^2/4 for x < 2; x - 1 otherwise}", 2) == PointState::Border);
    CHECK(states("f(x) = {x for x < 2; 4 - x otherwise}", 2) == PointState::Corner);
    CHECK(states("f(x) = floor(x/3)", 3) == PointState::Jump);
    CHECK(states("f(x) = sgn(x^2 - 2)", std::sqrt(2)) == PointState::Jump);
    CHECK(states("f(x) = abs(sin(x))", 3.141592653589793) == PointState::Corner);
    CHECK(states("f(x) = mod(x, 0.7)", 2.1) == PointState::Jump);
}

TEST_CASE("an oscillation without end is said to be one, and stays within its band") {
    const auto d = draw({"f(x) = sin(1/x)", "x in [-1, 1]"}, plotOf("f(x)"), {}, {-1, 1}, {-1.2, 1.2});
    REQUIRE(d);
    REQUIRE(d->samples.bands.size() == 1);
    CHECK(d->samples.bands[0].low < -0.01);
    CHECK(d->samples.bands[0].high > 0.01);
    CHECK(d->samples.bands[0].high - d->samples.bands[0].low > 0.02);
    CHECK(d->samples.bands[0].high - d->samples.bands[0].low < 0.3);
    const auto plain = draw({"f(x) = sin(20 x)", "x in [-1, 1]"}, plotOf("f(x)"), {}, {-1, 1}, {-1.2, 1.2});
    CHECK(plain->samples.bands.empty());
}

TEST_CASE("more points come where they were asked for, and nowhere else") {
    Tolerance finer = tolerance;
    finer.finer = {{1, 2, 4}};
    const auto count = [](const CurveSamples& samples, double low, double high) {
        std::size_t n = 0;
        for (const Stretch& s : samples.stretches)
            n += static_cast<std::size_t>(std::ranges::count_if(s.t, [&](double t) { return t >= low && t <= high; }));
        return n;
    };
    for (const char* line : {"f(x) = 3 sin(2x)", "f(x) = x/2"}) {
        INFO(line);
        const auto plain = draw({line, "x in [-5, 5]"}, plotOf("f(x)"), {}, {-5, 5}, {-5, 5});
        const auto more = draw({line, "x in [-5, 5]"}, plotOf("f(x)"), {}, {-5, 5}, {-5, 5}, finer);
        REQUIRE(plain);
        REQUIRE(more);
        CHECK(count(more->samples, 1, 2) >= 3 * count(plain->samples, 1, 2) + 3);
        CHECK(std::abs(static_cast<double>(count(more->samples, -5, 0.99)) -
                       static_cast<double>(count(plain->samples, -5, 0.99))) <= 3);
        CHECK(more->samples.stretches[0].t.front() == -5);
        CHECK(std::ranges::count(more->samples.stretches[0].t, 1.0) == 1);
        CHECK(std::ranges::count(more->samples.stretches[0].t, 2.0) == 1);
        CHECK(more->samples.certificate.share() > 0.999);
    }
}

TEST_CASE("a space curve is sampled as its view shows it") {
    Panel panel;
    panel.view = {20, 30};
    const auto d = draw({"c(t) = (cos(t), sin(t), t/5)", "t in [0, 10]"}, plotOf("c(t)"), panel, {-1.5, 1.5}, {-1, 3});
    REQUIRE(d);
    REQUIRE(d->curve.inSpace);
    CHECK(worstDeviation(*d) <= tolerance);
    CHECK(d->samples.certificate.share() > 0.99);
    const double degree = 3.14159265358979323846 / 180, ca = std::cos(20 * degree), sa = std::sin(20 * degree),
                 ce = std::cos(30 * degree), se = std::sin(30 * degree);
    for (const Stretch& s : d->samples.stretches) {
        for (std::size_t i = 0; i < s.t.size(); ++i) {
            const double x = std::cos(s.t[i]), y = std::sin(s.t[i]), z = s.t[i] / 5;
            CHECK(s.x[i] == Approx(ca * x + sa * y).margin(1e-12));
            CHECK(s.y[i] == Approx(-sa * se * x + ca * se * y + ce * z).margin(1e-12));
        }
    }
}
