#include "drawing/colour_vision.h"
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

} // namespace

TEST_CASE("the members of a family fall in lightness, evenly, and stay apart for colour-blind readers") {
    for (std::size_t count = 2; count <= 10; ++count) {
        for (std::size_t i = 1; i < count; ++i) {
            INFO(i << " of " << count);
            const Colour before = caseColour(i - 1, count), next = caseColour(i, count);
            const double step = 0.4 / static_cast<double>(count - 1);
            CHECK(toOkLab(before).lightness - toOkLab(next).lightness == Approx(step).margin(0.006));
            CHECK(inGrey(next).red < inGrey(before).red);
            for (const ColourVision each : allDeficiencies)
                CHECK(distance(asSeen(before, each), asSeen(next, each)) > 0.6 * step);
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
            for (const ColourVision each : allDeficiencies)
                CHECK(distance(asSeen(plotColour(i), each), asSeen(plotColour(k), each)) > 0.055);
        }
    }
}

TEST_CASE("the map of fields falls evenly in lightness, in grey print and for colour-blind readers") {
    constexpr int steps = 64;
    for (int i = 1; i <= steps; ++i) {
        const Colour before = loam((i - 1.0) / steps), next = loam(static_cast<double>(i) / steps);
        INFO(i);
        CHECK(toOkLab(before).lightness - toOkLab(next).lightness == Approx(0.765 / steps).margin(0.006));
        CHECK(inGrey(next).red < inGrey(before).red);
        for (const ColourVision each : allDeficiencies)
            CHECK(toOkLab(asSeen(next, each)).lightness < toOkLab(asSeen(before, each)).lightness);
    }
}
