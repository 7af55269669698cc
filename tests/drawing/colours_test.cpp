#include "drawing/colours.h"
#include "drawing/oklab.h"

#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <vector>

using namespace coulter;

namespace {

double distance(Colour a, Colour b) {
    const OkLab p = toOkLab(a), q = toOkLab(b);
    return std::hypot(p.lightness - q.lightness, p.a - q.a, p.b - q.b);
}

double linear(std::uint8_t value) {
    const double v = value / 255.0;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}
std::uint8_t encoded(double v) {
    v = std::clamp(v, 0.0, 1.0);
    return static_cast<std::uint8_t>(
        std::lround(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055)));
}

using Matrix = std::array<std::array<double, 3>, 3>;

/// How dichromats see linear sRGB. Source: G. M. Machado, M. M. Oliveira and L. A. F. Fernandes, "A
/// physiologically-based model for simulation of color vision deficiency", IEEE TVCG 15 (2009), severity 1: protan,
/// deutan, tritan.
constexpr std::array<Matrix, 3> deficiencies{{
    {{{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}}},
    {{{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}}},
    {{{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}},
}};

Colour seen(Colour c, const Matrix& m) {
    const double rgb[] = {linear(c.red), linear(c.green), linear(c.blue)};
    std::array<std::uint8_t, 3> out{};
    for (std::size_t i = 0; i < 3; ++i) out[i] = encoded(m[i][0] * rgb[0] + m[i][1] * rgb[1] + m[i][2] * rgb[2]);
    return {out[0], out[1], out[2]};
}

/// Relative luminance (ITU-R BT.709), as grey print has it.
double grey(Colour c) { return 0.2126 * linear(c.red) + 0.7152 * linear(c.green) + 0.0722 * linear(c.blue); }

} // namespace

TEST_CASE("the members of a family fall in lightness, evenly, and stay apart for colour-blind readers") {
    for (std::size_t count = 2; count <= 10; ++count) {
        for (std::size_t i = 1; i < count; ++i) {
            INFO(i << " of " << count);
            const Colour before = caseColour(i - 1, count), next = caseColour(i, count);
            const double step = 0.4 / static_cast<double>(count - 1);
            CHECK(toOkLab(before).lightness - toOkLab(next).lightness == Approx(step).margin(0.006));
            CHECK(grey(next) < grey(before));
            for (const Matrix& each : deficiencies) CHECK(distance(seen(before, each), seen(next, each)) > 0.6 * step);
        }
    }
}

TEST_CASE("no member of a family looks like the colour of a plot, and the first eight of those stay apart") {
    for (std::size_t count = 2; count <= 8; ++count) {
        for (std::size_t i = 0; i < count; ++i) {
            for (std::size_t k = 0; k < plotColourCount; ++k) {
                INFO(i << " of " << count << ", plot " << k);
                CHECK(distance(caseColour(i, count), plotColour(k)) > 0.09);
            }
        }
    }
    for (std::size_t i = 0; i < plotColourCount; ++i) {
        for (std::size_t k = 0; k < i; ++k) {
            INFO(i << " and " << k);
            CHECK(distance(plotColour(i), plotColour(k)) > 0.1);
            CHECK(std::abs(toOkLab(plotColour(i)).lightness - toOkLab(plotColour(k)).lightness) > 0.05); // in grey
            for (const Matrix& each : deficiencies)
                CHECK(distance(seen(plotColour(i), each), seen(plotColour(k), each)) > 0.055);
        }
    }
}

TEST_CASE("the map of fields falls evenly in lightness, in grey print and for colour-blind readers") {
    constexpr int steps = 64;
    for (int i = 1; i <= steps; ++i) {
        const Colour before = loam((i - 1.0) / steps), next = loam(static_cast<double>(i) / steps);
        INFO(i);
        CHECK(toOkLab(before).lightness - toOkLab(next).lightness == Approx(0.765 / steps).margin(0.006));
        CHECK(grey(next) < grey(before));
        for (const Matrix& each : deficiencies)
            CHECK(toOkLab(seen(next, each)).lightness < toOkLab(seen(before, each)).lightness);
    }
}
