#include "drawing/ticks.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

using namespace coulter;

namespace {

constexpr double pi = std::numbers::pi;
using Words = std::vector<std::string>;

TickRules rules(NumberStyle numbers, ScaleKind kind = ScaleKind::Linear) {
    TickRules made;
    made.numbers = numbers;
    made.kind = kind;
    return made;
}

} // namespace

TEST_CASE("ticks stand at multiples of pi, and say so") {
    const Ticks wave = ticksBy(rules(NumberStyle::OfPi), -pi, 2 * pi, 6);
    CHECK(wave.labels == Words{"-π", "-π/2", "0", "π/2", "π", "3π/2", "2π"});
    CHECK(wave.places[5] == Approx(1.5 * pi).epsilon(1e-15));
    CHECK(ticksBy(rules(NumberStyle::OfPi), 0, pi / 2, 6).labels ==
          Words{"0", "π/12", "π/6", "π/4", "π/3", "5π/12", "π/2"});
    CHECK(ticksBy(rules(NumberStyle::OfPi), 0, 100 * pi, 5).labels == Words{"0", "20π", "40π", "60π", "80π", "100π"});
    CHECK_FALSE(ticksBy(rules(NumberStyle::OfPi), 0, 1e-3, 5).places.empty()); // too narrow: plain numbers
}

TEST_CASE("angles are written in degrees, at the steps of a protractor") {
    CHECK(ticksBy(rules(NumberStyle::Degrees), 0, 2 * pi, 4).labels == Words{"0°", "90°", "180°", "270°", "360°"});
    CHECK(ticksBy(rules(NumberStyle::Degrees), 0, pi / 2, 3).labels == Words{"0°", "30°", "60°", "90°"});
    CHECK(ticksBy(rules(NumberStyle::Degrees), 0, pi / 360, 5).labels.back() == "0.5°");
}

TEST_CASE("numbers are plain, have powers of ten, or SI prefixes") {
    CHECK(ticksBy(rules(NumberStyle::Plain), 0, 4e6, 4).labels ==
          Words{"0", "1000000", "2000000", "3000000", "4000000"});
    CHECK(ticksBy(rules(NumberStyle::Powers), 0, 40, 4).powerOfTen == 1);
    CHECK(ticksBy(rules(NumberStyle::Powers), 0, 40, 4).labels == Words{"0", "1", "2", "3", "4"});
    CHECK(ticksBy(rules(NumberStyle::Prefixes), 0, 2e6, 4).labels == Words{"0", "500 k", "1 M", "1.5 M", "2 M"});
    CHECK(ticksBy(rules(NumberStyle::Prefixes), -2e-9, 0, 2).labels == Words{"-2 n", "-1 n", "0"});
    const ScaleKind log = ScaleKind::Logarithmic;
    CHECK(ticksBy(rules(NumberStyle::Prefixes, log), 1e-6, 1e6, 5).labels == Words{"1 µ", "1 m", "1", "1 k", "1 M"});
    CHECK(ticksBy(rules(NumberStyle::Powers, log), 1, 1000, 5).labels == Words{"10^0", "10^1", "10^2", "10^3"});
    CHECK(ticksBy(rules(NumberStyle::Plain, log), 1e4, 1e7, 5).labels ==
          Words{"10000", "100000", "1000000", "10000000"});
}

TEST_CASE("given ticks stand where they were given, within the scale") {
    TickRules given = rules(NumberStyle::Automatic);
    given.given = {5, 0, 1, 1, 99};
    const Ticks ticks = ticksBy(given, 0, 10, 5);
    CHECK(ticks.places == std::vector<double>{0, 1, 5});
    CHECK(ticks.labels == Words{"0", "1", "5"});
}

TEST_CASE("minor ticks divide the steps, and are left out on request") {
    TickRules fifths = rules(NumberStyle::Automatic);
    fifths.minor = MinorTicks::Fifths;
    const Ticks ticks = ticksBy(fifths, -0.1, 2.1, 2);
    CHECK(ticks.places == std::vector<double>{0, 1, 2});
    REQUIRE(ticks.minor.size() == 8);
    CHECK(ticks.minor[0] == Approx(0.2));
    CHECK(ticks.minor[4] == Approx(1.2));
    TickRules none = rules(NumberStyle::Automatic, ScaleKind::Logarithmic);
    CHECK_FALSE(ticksBy(none, 1, 100, 3).minor.empty());
    none.minor = MinorTicks::None;
    CHECK(ticksBy(none, 1, 100, 3).minor.empty());
}

TEST_CASE("a scale shown in another unit has round numbers in that unit, at their places") {
    TickRules kelvin = rules(NumberStyle::Automatic);
    kelvin.shown = *unitConversion("°C", "K");
    const Ticks ticks = ticksBy(kelvin, 0, 40, 4);
    CHECK(ticks.labels == Words{"280", "290", "300", "310"});
    CHECK(ticks.places[0] == Approx(6.85));
    TickRules centimetres = rules(NumberStyle::Automatic, ScaleKind::Logarithmic);
    centimetres.shown = *unitConversion("m", "cm");
    CHECK(ticksBy(centimetres, 0.01, 1, 3).labels == Words{"1", "10", "100"});
    CHECK(ticksBy(centimetres, 0.01, 1, 3).places[1] == Approx(0.1));
    CHECK_FALSE(unitConversion("m", "s"));
    CHECK_FALSE(unitConversion("m", "nonsense"));
    CHECK(unitConversion("m", "m")->isNone());
    CHECK((*unitConversion("km/h", "m s-1"))(36) == Approx(10));
    CHECK(unitConversion("°F", "°C")->back((*unitConversion("°F", "°C"))(70)) == Approx(70));
}

TEST_CASE("whatever is asked for, ticks stand in their scale, in order, each with its label") {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> exponent(-12, 12), part(-1, 1);
    for (int i = 0; i < 3000; ++i) {
        TickRules any;
        any.kind = static_cast<ScaleKind>(random() % 2);
        any.numbers = static_cast<NumberStyle>(random() % 6);
        any.minor = static_cast<MinorTicks>(random() % 5);
        any.count = random() % 3 == 0 ? 1 + random() % 50 : 0;
        if (random() % 3 == 0) any.shown = {std::pow(10, exponent(random) / 3), part(random) * 300};
        double low = std::pow(10, exponent(random)), high = low * (1 + std::pow(10, exponent(random) / 3));
        if (any.kind == ScaleKind::Linear && random() % 2 == 0) low = -low;
        // An offset beside which doubles cannot tell the ends apart has no ticks to speak of.
        if (std::abs(any.shown.offset) > 1e8 * any.shown.factor * (high - low)) any.shown.offset = 0;
        const Ticks ticks = ticksBy(any, low, high, 5);
        INFO(low << " to " << high << ", style " << static_cast<int>(any.numbers));
        REQUIRE(ticks.labels.size() == ticks.places.size());
        const double slack = 1e-6 * (high - low);
        for (std::size_t k = 0; k < ticks.places.size(); ++k) {
            CHECK(ticks.places[k] >= low - slack);
            CHECK(ticks.places[k] <= high + slack);
            CHECK_FALSE(ticks.labels[k].empty());
            if (k > 0) CHECK(ticks.places[k] > ticks.places[k - 1]);
        }
        for (const double minor : ticks.minor) CHECK((minor >= low - slack && minor <= high + slack));
        CHECK(ticks.places.size() < 1200);
    }
}
