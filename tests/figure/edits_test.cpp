#include "figure/edits.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document document(std::vector<std::string> page, std::vector<std::string> plots = {}) {
    Document d;
    d.page = std::move(page);
    for (auto& of : plots) d.panels[0].plots.push_back(plotOf(of));
    return d;
}

} // namespace

TEST_CASE("setting a quantity changes its number and nothing else") {
    const Document d = document({"# note", "T_m = 9.5, from 0 to 20, unit °C", "omega = 2 pi/365"});
    CHECK(withQuantity(d, "T_m", "12")->page[1] == "T_m = 12, from 0 to 20, unit °C");
    CHECK(withQuantity(d, "T_{m}", "12")->page[1] == "T_m = 12, from 0 to 20, unit °C");
    CHECK(withQuantity(d, "ω", "0.5")->page[2] == "omega = 0.5");
    CHECK_FALSE(withQuantity(d, "q", "1"));
    CHECK_FALSE(withQuantity(d, "T_m + 1", "1"));
}

TEST_CASE("a number is dragged by its last digit, or one digit finer, within its range") {
    CHECK(scrubbedNumber("9.5", 3, false, {}) == "9.8");
    CHECK(scrubbedNumber("9.50", -3, false, {}) == "9.47");
    CHECK(scrubbedNumber("9.5", 3, true, {}) == "9.53");
    CHECK(scrubbedNumber("201", -201, false, {}) == "0");
    CHECK(scrubbedNumber("0.1", -1, false, {}) == "0.0");
    CHECK(scrubbedNumber("0.1", -2, false, {}) == "-0.1");
    CHECK(scrubbedNumber("5%", 2, false, {}) == "7%");
    CHECK(scrubbedNumber("1.2e-3", 5, false, {}) == "1.7e-3");
    CHECK(scrubbedNumber("9.5", 100, false, Interval{0, 10}) == "10.0");
    CHECK(scrubbedNumber("5%", 100, false, Interval{0, 0.2}) == "20%");
    CHECK(scrubbedNumber("0.3", 0.4, false, {}) == "0.3");
    CHECK(scrubbedNumber("-2", 5, false, {}) == "3");
}

TEST_CASE("colours are read as they are written") {
    CHECK(spelled(Colour{1, 171, 255}) == "#01abff");
    CHECK(readColour("#01abff") == Colour{1, 171, 255});
    for (const char* bad : {"", "01abff", "#01abf", "#01abfg", "#01abff0", "#+1abff"}) CHECK_FALSE(readColour(bad));
}

TEST_CASE("a variable's sampling is changed in its line, all else kept") {
    const Document before = document({"x in [0, 1], count 5, unit m", "f(x) = x"});
    CHECK(withSampling(before, "x", SamplingWay::Step, "0.1")->page[0] == "x in [0, 1], step 0.1, unit m");
    CHECK(withSampling(before, "x", SamplingWay::Count, "7")->page[0] == "x in [0, 1], count 7, unit m");
    CHECK(withSampling(before, "x", SamplingWay::Adaptive, "")->page[0] == "x in [0, 1], unit m");
    CHECK(withSampling(document({"x in [0, 1]"}), "x", SamplingWay::Count, "9")->page[0] == "x in [0, 1], count 9");
    CHECK_FALSE(withSampling(before, "f", SamplingWay::Count, "7"));
    CHECK_FALSE(withSampling(before, "nothing", SamplingWay::Count, "7"));
}

TEST_CASE("asking for more points doubles them, however stretches overlap") {
    using Stretches = std::vector<FinerStretch>;
    const Stretches one = withFiner({}, 1, 3);
    CHECK(one == Stretches{{1, 3, 2}});
    CHECK(withFiner(one, 2, 4) == Stretches{{1, 2, 2}, {2, 3, 4}, {3, 4, 2}});
    CHECK(withFiner(one, 3, 5) == Stretches{{1, 5, 2}});
    CHECK(withFiner(one, 0, 9) == Stretches{{0, 1, 2}, {1, 3, 4}, {3, 9, 2}});
    Stretches often;
    for (int i = 0; i < 20; ++i) often = withFiner(often, 0, 1);
    CHECK(often == Stretches{{0, 1, mostTimesFiner}});
}
