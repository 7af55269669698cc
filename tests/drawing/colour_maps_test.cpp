#include "drawing/colour_maps.h"
#include "drawing/colour_vision.h"
#include "drawing/colours.h"
#include "figure/scale_settings.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

using namespace coulter;

namespace {

double distance(Colour a, Colour b) {
    const OkLab p = toOkLab(a), q = toOkLab(b);
    return std::hypot(p.lightness - q.lightness, p.a - q.a, p.b - q.b);
}

constexpr int steps = 64;
std::vector<Colour> along(const ColourMap& map) {
    std::vector<Colour> colours;
    for (int i = 0; i <= steps; ++i) colours.push_back(colourAt(map, static_cast<double>(i) / steps));
    return colours;
}

} // namespace

TEST_CASE("there are at least twelve colour maps, of every order, each with a name of its own") {
    std::set<std::string> names;
    std::set<MapOrder> orders;
    for (const ColourMap& map : colourMaps()) {
        CHECK(names.insert(map.name).second);
        orders.insert(map.order);
        CHECK(std::string(colourMapNamed(map.name).name) == map.name);
    }
    REQUIRE(mapSetting.words.size() == colourMaps().size()); // what recipes may say is what there is
    for (std::size_t i = 0; i < colourMaps().size(); ++i)
        CHECK(std::string(mapSetting.words[i]) == colourMaps()[i].name);
    CHECK(names.size() >= 12);
    CHECK(orders.size() == 4);
}

TEST_CASE("sequential maps go one way in lightness, to the eye, in grey print and for colour-blind readers") {
    for (const ColourMap& map : colourMaps()) {
        if (map.order != MapOrder::Sequential) continue;
        const std::vector<Colour> colours = along(map);
        const double sign = toOkLab(colours.back()).lightness > toOkLab(colours.front()).lightness ? 1 : -1;
        CHECK(sign * (toOkLab(colours.back()).lightness - toOkLab(colours.front()).lightness) > 0.7);
        for (std::size_t i = 1; i < colours.size(); ++i) {
            CAPTURE(map.name, i);
            CHECK(sign * (toOkLab(colours[i]).lightness - toOkLab(colours[i - 1]).lightness) > 0);
            CHECK(sign * (inGrey(colours[i]).red - inGrey(colours[i - 1]).red) >= 0);
        }
        // A sixteenth of the way is told apart by everybody.
        for (std::size_t i = 4; i < colours.size(); i += 4) {
            CAPTURE(map.name, i);
            for (const ColourVision vision : allDeficiencies)
                CHECK(distance(asSeen(colours[i], vision), asSeen(colours[i - 4], vision)) > 0.02);
        }
    }
}

TEST_CASE("steps of a map are even") {
    for (const ColourMap& map : colourMaps()) {
        if (map.order == MapOrder::Categorical || map.points.empty()) continue;
        double least = HUGE_VAL, most = 0;
        for (std::size_t i = 1; i < map.points.size(); ++i) {
            const OkLab &a = map.points[i - 1], &b = map.points[i];
            const double step = std::hypot(a.lightness - b.lightness, a.a - b.a, a.b - b.b);
            least = std::min(least, step);
            most = std::max(most, step);
            CAPTURE(map.name, i);
            CHECK(distance(toColour(b), colourAt(map, static_cast<double>(i) / (colourMapPoints - 1))) == 0);
            const OkLab shown = toOkLab(toColour(b)); // nothing is cut off at the edge of what can be shown
            CHECK(std::hypot(shown.lightness - b.lightness, shown.a - b.a, shown.b - b.b) < 0.006);
        }
        CAPTURE(map.name);
        CHECK(most / least < 1.12);
    }
}

TEST_CASE("diverging maps have arms alike, cyclic ones no seam, and sorts stay apart") {
    for (const ColourMap& map : colourMaps()) {
        const std::vector<Colour> colours = along(map);
        CAPTURE(map.name);
        if (map.order == MapOrder::Diverging) {
            for (std::size_t i = 0; i <= steps / 2; ++i) {
                CHECK(toOkLab(colours[i]).lightness == Approx(toOkLab(colours[steps - i]).lightness).margin(0.03));
                if (i > 0) CHECK(toOkLab(colours[i]).lightness > toOkLab(colours[i - 1]).lightness);
            }
            for (const ColourVision vision : allDeficiencies)
                CHECK(distance(asSeen(colours[steps / 4], vision), asSeen(colours[3 * steps / 4], vision)) > 0.06);
        }
        if (map.order == MapOrder::Cyclic) CHECK(colours.front() == colours.back());
        if (map.order == MapOrder::Categorical) {
            for (std::size_t i = 0; i < map.points.size(); ++i) {
                for (std::size_t j = 0; j < i; ++j)
                    CHECK(distance(toColour(map.points[i]), toColour(map.points[j])) > 0.05);
            }
        }
    }
}

TEST_CASE("a run of colours is turned, cut, stepped, and knows what lies beyond") {
    const AxisMap scale{ScaleKind::Linear, 0, 10, 100};
    ColourRun run;
    CHECK(run.of(0, scale) == loam(0));
    CHECK(run.of(12, scale) == loam(1));
    CHECK_FALSE(run.of(NAN, scale));
    run.turned = true;
    CHECK(run.of(0, scale) == loam(1));
    run = {&colourMapNamed("fen"), false, 0.25, 0.75, {}, Colour{1, 2, 3}, Colour{4, 5, 6}, Colour{7, 8, 9}};
    CHECK(run.of(0, scale) == colourAt(colourMapNamed("fen"), 0.25));
    CHECK(run.of(10, scale) == colourAt(colourMapNamed("fen"), 0.75));
    CHECK(run.of(-0.1, scale) == Colour{1, 2, 3});
    CHECK(run.of(10.1, scale) == Colour{4, 5, 6});
    CHECK(run.of(NAN, scale) == Colour{7, 8, 9});
    run = {};
    run.steps = {2, 6};
    CHECK(run.of(0.5, scale) == loam(0.1));
    CHECK(run.of(2, scale) == loam(0.4));
    CHECK(run.of(5.9, scale) == loam(0.4));
    CHECK(run.of(9, scale) == loam(0.8));
    const AxisMap logarithmic{ScaleKind::Logarithmic, 1, 100, 100};
    run = {};
    CHECK(run.of(10, logarithmic) == loam(0.5));
    CHECK(run.of(-1, logarithmic) == loam(0));
}
