#include "sampling/streamlines.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

constexpr double nothing = std::numeric_limits<double>::quiet_NaN();

/// A field of vectors as directions.
Direction along(std::function<PlaceInMm(double, double)> field) {
    return [field](const PlaceInMm& p) -> PlaceInMm {
        const PlaceInMm v = field(p[0], p[1]);
        const double length = std::hypot(v[0], v[1]);
        if (!(length > 0) || !std::isfinite(length)) return {nothing, nothing};
        return {v[0] / length, v[1] / length};
    };
}

double far(const PlaceInMm& p, double x, double y) { return std::hypot(p[0] - x, p[1] - y); }

/// Largest distance of a line's points and of the middles of its chords from where they belong.
template <class Off> double largest(const Streamline& line, const Off& off) {
    double most = 0;
    for (std::size_t i = 0; i < line.points.size(); ++i) {
        most = std::max(most, std::abs(off(line.points[i])));
        if (i == 0) continue;
        const PlaceInMm &a = line.points[i - 1], &b = line.points[i];
        most = std::max(most, std::abs(off({(a[0] + b[0]) / 2, (a[1] + b[1]) / 2})));
    }
    return most;
}

const StreamRules rules{100, 100, 0.02, 5000};

} // namespace

TEST_CASE("lines of a rotation are circles, and close") {
    const Direction field = along([](double x, double y) { return PlaceInMm{-(y - 50), x - 50}; });
    for (const double radius : {0.5, 3.0, 20.0, 45.0}) {
        CAPTURE(radius);
        const Streamline line = streamlineThrough(field, {50 + radius, 50}, rules);
        CHECK(line.isClosed());
        CHECK(line.points.front() == line.points.back());
        CHECK(largest(line, [&](const PlaceInMm& p) { return far(p, 50, 50) - radius; }) < 0.02);
    }
}

TEST_CASE("a spiral keeps the tolerance over ten turns") {
    constexpr double growth = 0.02; // r = r₀ exp(growth θ)
    const Direction field = along([](double x, double y) {
        const double dx = x - 50, dy = y - 50;
        return PlaceInMm{-dy + growth * dx, dx + growth * dy};
    });
    const Streamline line = streamlineThrough(field, {60, 50}, rules);
    double theta = 0, worst = 0;
    for (std::size_t i = line.start + 1; i < line.points.size(); ++i) {
        const PlaceInMm &a = line.points[i - 1], &b = line.points[i];
        double turn = std::atan2(b[1] - 50, b[0] - 50) - std::atan2(a[1] - 50, a[0] - 50);
        if (turn < -std::numbers::pi) turn += 2 * std::numbers::pi;
        theta += turn;
        worst = std::max(worst, std::abs(far(b, 50, 50) - 10 * std::exp(growth * theta)));
    }
    CHECK(theta > 10 * 2 * std::numbers::pi);
    CHECK(worst < 0.02);
    CHECK(line.last == StreamEnd::Edge);
    CHECK(line.first == StreamEnd::Rest); // inwards it comes to where no line can be told from the next
}

TEST_CASE("saddles, dipoles and shears are followed along their exact lines") {
    const Direction saddle = along([](double x, double y) { return PlaceInMm{x - 50, -(y - 50)}; });
    const Streamline hyperbola = streamlineThrough(saddle, {60, 80}, rules);
    // Off by what the product is off, over its slope.
    CHECK(largest(hyperbola, [](const PlaceInMm& p) {
              const double x = p[0] - 50, y = p[1] - 50;
              return (x * y - 300) / std::hypot(x, y);
          }) < 0.02);
    CHECK(hyperbola.first == StreamEnd::Edge);
    CHECK(hyperbola.points.front()[1] == Approx(100));
    CHECK(hyperbola.points.back()[0] == Approx(100));
    // Circles that touch the axis at the dipole.
    const Direction dipole = along([](double x, double y) {
        const double dx = x - 50, dy = y - 50;
        return PlaceInMm{dx * dx - dy * dy, 2 * dx * dy};
    });
    const Streamline circle = streamlineThrough(dipole, {50, 80}, rules);
    CHECK(largest(circle, [](const PlaceInMm& p) { return far(p, 50, 65) - 15; }) < 0.02);
    CHECK(circle.last == StreamEnd::Rest); // at the dipole, from both sides
    CHECK(circle.first == StreamEnd::Rest);
    CHECK(far(circle.points.back(), 50, 50) < 0.1);
    const Direction shear = along([](double, double y) { return PlaceInMm{y - 20, 0}; });
    for (const double y : {5.0, 60.0}) {
        const Streamline straight = streamlineThrough(shear, {50, y}, rules);
        CHECK(largest(straight, [&](const PlaceInMm& p) { return p[1] - y; }) < 1e-9);
        CHECK(std::abs(straight.points.back()[0] - straight.points.front()[0]) == Approx(100));
    }
}

TEST_CASE("lines end at sinks, stagnation points and where the field ends, and go through jumps") {
    const Direction sink = along([](double x, double y) { return PlaceInMm{50 - x, 50 - y}; });
    const Streamline inwards = streamlineThrough(sink, {80, 70}, rules);
    CHECK(inwards.last == StreamEnd::Rest);
    CHECK(far(inwards.points.back(), 50, 50) < 0.05);
    const Direction rest = along([](double x, double) { return PlaceInMm{x < 60 ? 1.0 : -1.0, 0}; });
    const Streamline stopped = streamlineThrough(rest, {20, 30}, rules);
    CHECK(stopped.last == StreamEnd::Rest);
    CHECK(stopped.points.back()[0] == Approx(60).margin(0.01));
    const Direction ended = along([](double x, double) { return PlaceInMm{x < 60 ? 1.0 : nothing, 0}; });
    const Streamline cut = streamlineThrough(ended, {20, 30}, rules);
    CHECK(cut.last == StreamEnd::Edge);
    CHECK(cut.points.back()[0] == Approx(60).margin(0.001));
    CHECK(cut.points.front()[0] == 0);
    const Direction bent = along([](double x, double) { return x < 60 ? PlaceInMm{1, 0} : PlaceInMm{0.6, 0.8}; });
    const Streamline through = streamlineThrough(bent, {20, 30}, rules);
    CHECK(through.last == StreamEnd::Edge);
    CHECK(through.points.back()[0] == Approx(100));
    CHECK(through.points.back()[1] == Approx(30 + 40 * 0.8 / 0.6).margin(0.02));
    CHECK(streamlineThrough(ended, {80, 30}, rules).points.empty());
    const Direction none = [](const PlaceInMm&) { return PlaceInMm{nothing, nothing}; };
    CHECK(evenStreamlines(none, 5, rules).empty());
}

TEST_CASE("lines go through any number of jumps that they cross at a slant, as in elements of a mesh") {
    // Strips at 45 degrees, in which the direction is turned up and down by turns.
    const auto strip = [](double x, double y) { return static_cast<long>(std::floor((x + y) / 3.7)); };
    const Direction strips = along([&](double x, double y) {
        const double angle = strip(x, y) % 2 == 0 ? 0.3 : -0.3;
        return PlaceInMm{std::cos(angle), std::sin(angle)};
    });
    for (int k = 0; k < 40; ++k) {
        const Streamline line = streamlineThrough(strips, {1.0, 10.0 + 1.9 * k}, rules);
        INFO(k);
        CHECK(line.last == StreamEnd::Edge);
        const PlaceInMm& end = line.points.back();
        CHECK((end[0] == Approx(100) || end[1] == Approx(100) || end[1] == Approx(0).margin(1e-9)));
        // Every chord has the direction of its strip, but for the steps over the jumps.
        for (std::size_t i = 1; i < line.points.size(); ++i) {
            const PlaceInMm &a = line.points[i - 1], &b = line.points[i];
            const double length = std::hypot(b[0] - a[0], b[1] - a[1]);
            if (length < 0.05) continue;
            const double angle = strip((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) % 2 == 0 ? 0.3 : -0.3;
            CHECK(std::atan2(b[1] - a[1], b[0] - a[0]) == Approx(angle).margin(0.02));
        }
    }
}

TEST_CASE("even lines leave each other room, fill the panel, and are the same again") {
    const Direction field = along([](double x, double y) {
        return PlaceInMm{std::cos(y / 15) + 0.2, std::sin(x / 12) - 0.1};
    });
    constexpr double spacing = 5;
    const std::vector<Streamline> lines = evenStreamlines(field, spacing, rules);
    REQUIRE(lines.size() > 10);
    double nearest = HUGE_VAL;
    for (std::size_t a = 0; a < lines.size(); ++a) {
        for (std::size_t b = a + 1; b < lines.size(); ++b) {
            for (std::size_t i = 0; i < lines[a].points.size(); i += 3) {
                for (const PlaceInMm& p : lines[b].points)
                    nearest = std::min(nearest, far(p, lines[a].points[i][0], lines[a].points[i][1]));
            }
        }
    }
    CHECK(nearest > 0.3 * spacing);
    double emptiest = 0;
    for (double x = 2; x < 100; x += 4) {
        for (double y = 2; y < 100; y += 4) {
            double near = HUGE_VAL;
            for (const Streamline& line : lines) {
                for (const PlaceInMm& p : line.points) near = std::min(near, far(p, x, y));
            }
            emptiest = std::max(emptiest, near);
        }
    }
    CHECK(emptiest < 2 * spacing);
    const std::vector<Streamline> again = evenStreamlines(field, spacing, rules);
    REQUIRE(again.size() == lines.size());
    for (std::size_t i = 0; i < lines.size(); ++i) CHECK(again[i].points == lines[i].points);
    CHECK(evenStreamlines(field, 10, rules).size() < lines.size());
}
