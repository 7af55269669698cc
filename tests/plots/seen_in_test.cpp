#include "formula/page/page.h"

#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"
#include "plots/sampling.h"
#include "plots/seen_in.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

constexpr double pi = std::numbers::pi;

/// The first thing that a plot draws.
Drawn read(std::vector<std::string> lines, const Plot& plot) {
    const Page page = readPage(lines);
    Panel panel;
    panel.plots = {plot};
    PanelReading reading = readPlots(page, panel);
    REQUIRE(reading.drawn.size() == 1);
    return reading.drawn[0];
}

/// A frame of 80 × 80 mm round its middle.
Frame round(const AxisMap& radius, double zero, double sense) {
    Frame frame;
    frame.rect = {10, 20, 80, 80};
    frame.map = {{ScaleKind::Linear, -40, 40, 80}, {ScaleKind::Linear, -40, 40, 80}};
    frame.polar = PolarFrame{{50, 60}, radius, zero, sense, 0, 2 * pi};
    return frame;
}

/// Where a curve is on the sheet.
Point place(const Curve& curve, const Frame& frame, double t) {
    double x = 0, y = 0;
    const double* const in = &t;
    double* const out[] = {&x, &y};
    Evaluator (*curve.program)(std::span(&in, 1), out, 1);
    return frame.onSheet(x, y);
}

} // namespace

TEST_CASE("a radius over an angle stands where the frame has it, for every zero, sense and scale") {
    const Drawn drawn = read({"r(phi) = 1 + 2 cos(phi)", "phi in [0, 2pi]"}, plotOf("r(phi)", "polar"));
    struct Case {
        AxisMap radius;
        double zero, sense;
    };
    for (const Case& c :
         {Case{{ScaleKind::Linear, 0, 4, 40}, 0, 1}, Case{{ScaleKind::Linear, 0, 4, 40}, pi / 2, -1},
          Case{{ScaleKind::Linear, 1, 4, 40}, pi, 1}, Case{{ScaleKind::Logarithmic, 0.1, 10, 40}, 3 * pi / 2, -1}}) {
        const Frame frame = round(c.radius, c.zero, c.sense);
        const auto source = seenIn(drawn.parts[0].source, frame);
        const Curve& curve = std::get<Curve>(*source);
        for (double t = 0; t < 2 * pi; t += 0.01) {
            const double r = 1 + 2 * std::cos(t);
            const Point at = place(curve, frame, t);
            double rho = 10 * r; // mm, by arithmetic of its own
            if (c.radius.low == 1) rho = 40 * (r - 1) / 3;
            if (c.radius.kind == ScaleKind::Logarithmic) rho = 20 * (std::log10(r) + 1);
            const bool fromZero = c.radius.kind == ScaleKind::Linear && c.radius.low == 0;
            if (std::isnan(rho) || (!fromZero && rho < 0)) {
                CHECK(std::isnan(at.x)); // not on the scale: not drawn on the other side
                continue;
            }
            CHECK(at.x == Approx(50 + rho * std::cos(c.zero + c.sense * t)).margin(1e-9));
            CHECK(at.y == Approx(60 - rho * std::sin(c.zero + c.sense * t)).margin(1e-9));
        }
    }
}

TEST_CASE("beyond the outermost circle a radius is not drawn, and its proofs hold") {
    const Drawn drawn = read({"r(phi) = 1 + 2 cos(phi)", "phi in [0, 2pi]"}, plotOf("r(phi)", "polar"));
    const Frame frame = round({ScaleKind::Linear, 0, 2, 40}, 0, 1);
    const auto source = seenIn(drawn.parts[0].source, frame);
    const Samples samples = sampleSource(*source, {}, frame, Effort{}, {});
    const CurveSamples& curve = std::get<CurveSamples>(samples);
    CHECK(curve.certificate.share() > 0.99);
    REQUIRE_FALSE(curve.stretches.empty());
    double farthest = 0;
    for (const Stretch& stretch : curve.stretches) {
        for (std::size_t i = 0; i < stretch.x.size(); ++i)
            farthest = std::max(farthest, std::hypot(stretch.x[i], stretch.y[i]));
    }
    CHECK(farthest == Approx(40).margin(1e-6));      // exactly to the rim
    for (const Stretch& stretch : curve.stretches) { // no chord leaves the curve
        for (std::size_t i = 0; i + 1 < stretch.t.size(); ++i) {
            for (int k = 1; k < 10; ++k) {
                const double t = stretch.t[i] + (stretch.t[i + 1] - stretch.t[i]) * k / 10,
                             rho = 20 * (1 + 2 * std::cos(t));
                const double ax = stretch.x[i], ay = stretch.y[i], dx = stretch.x[i + 1] - ax,
                             dy = stretch.y[i + 1] - ay;
                const double px = rho * std::cos(t) - ax, py = rho * std::sin(t) - ay, square = dx * dx + dy * dy;
                const double part = square > 0 ? std::clamp((px * dx + py * dy) / square, 0.0, 1.0) : 0;
                CHECK(std::hypot(px - part * dx, py - part * dy) <= Effort{}.tolerance + 1e-9);
            }
        }
    }
}

TEST_CASE("in space logarithmic and reversed scales and faces are where the frame has them") {
    const Drawn drawn = read({"c(t) = (cos(t), exp(t), t)", "t in [0, 3]"}, plotOf("c(t)"));
    Frame frame;
    frame.rect = {0, 0, 100, 100};
    frame.map = {{ScaleKind::Linear, -10, 10, 100}, {ScaleKind::Linear, -10, 10, 100}};
    SpaceBox box;
    box.maps = {AxisMap{ScaleKind::Linear, -1, 1, 2}, AxisMap{ScaleKind::Logarithmic, 1, 100, 3},
                AxisMap{ScaleKind::Linear, 0, 3, 3}};
    box.reversed = {false, false, true};
    box.axes = viewAxes({30, 20});
    frame.space = box;
    CHECK(seenIn(drawn.parts[0].source, frame) != drawn.parts[0].source);
    for (const std::optional<Face> face : {std::optional<Face>(), std::optional(Face::Floor),
                                           std::optional(Face::WallAcrossX), std::optional(Face::WallAcrossY)}) {
        Curve shown = std::get<Curve>(*drawn.parts[0].source);
        shown.face = face;
        const auto source = seenIn(std::make_shared<const Source>(shown), frame);
        for (double t = 0; t <= 3; t += 0.1) {
            Place p{std::cos(t), std::exp(t), t};
            if (face == Face::Floor) p[2] = 3; // downwards: the largest is lowest
            if (face == Face::WallAcrossX) p[0] = box.faceValue(Face::WallAcrossX);
            if (face == Face::WallAcrossY) p[1] = box.faceValue(Face::WallAcrossY);
            const Point expected = frame.onSheet(p), found = place(std::get<Curve>(*source), frame, t);
            CHECK(found.x == Approx(expected.x).margin(1e-9));
            CHECK(found.y == Approx(expected.y).margin(1e-9));
        }
    }
    // From this side the eye is at small y and large x: the far walls are the others.
    CHECK(box.faceValue(Face::WallAcrossX) == -1);
    CHECK(box.faceValue(Face::WallAcrossY) == 100);
}
