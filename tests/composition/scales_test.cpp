#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "figure/scale_settings.h"
#include "make_document.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

constexpr double pi = std::numbers::pi;

void set(Axis& axis, const Setting& setting, SettingValue value) {
    coulter::set(axis.settings, setting, std::move(value));
}

const Frame& frameOf(const Figure& figure) { return figure.panels[0].frame(); }

/// The widest line of one colour among what a plot drew.
std::vector<Point> drawnLine(const Figure& figure, std::size_t plot = 0) {
    std::vector<Point> points;
    for (const Owned& owned : figure.owned) {
        if (owned.path.index != plot) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            if (const auto* stroke = std::get_if<StrokeItem>(&figure.scene.items[i])) {
                for (const auto& line : stroke->lines) points.insert(points.end(), line.begin(), line.end());
            }
        }
    }
    return points;
}

/// Boxes of the letters of the scene's numbers below or beside the panel do not overlap.
void numbersStandClear(const Figure& figure) {
    const PanelLayout& layout = figure.panels[0].layout;
    double end = -HUGE_VAL;
    std::vector<std::pair<double, double>> across;
    for (std::size_t i = 0; i < layout.xTicks.places.size(); ++i) {
        if (layout.xTicks.labels[i].empty()) continue;
        const double at = layout.frame.onSheet(layout.xTicks.places[i], layout.frame.map.y.low).x,
                     half = tickBox(layout.xTicks, i, layout.sizes.number).width / 2;
        across.emplace_back(at - half, at + half);
    }
    std::ranges::sort(across);
    for (const auto& [from, to] : across) {
        CHECK(from > end);
        end = to;
    }
    end = -HUGE_VAL;
    std::vector<double> up;
    for (std::size_t i = 0; i < layout.yTicks.places.size(); ++i) {
        if (!layout.yTicks.labels[i].empty())
            up.push_back(layout.frame.onSheet(layout.frame.map.x.low, layout.yTicks.places[i]).y);
    }
    std::ranges::sort(up);
    for (const double at : up) {
        CHECK(at - end > 0.7 * layout.sizes.number);
        end = at;
    }
}

} // namespace

TEST_CASE("a curve stands where arithmetic has it on linear, logarithmic and reversed scales") {
    for (const bool logarithmic : {false, true}) {
        for (const bool leftwards : {false, true}) {
            for (const bool downwards : {false, true}) {
                Document d = document({"f(x) = 2 x + 1", "x in [1, 100]"}, {"f(x)"});
                Panel& panel = d.panels[0];
                panel.y.limits = Limits{1, 300};
                if (logarithmic) panel.x.scale = panel.y.scale = ScaleKind::Logarithmic;
                set(panel.x, reversedSetting, leftwards);
                set(panel.y, reversedSetting, downwards);
                const Figure figure = drawFigure(d);
                const Rect& rect = frameOf(figure).rect;
                const std::vector<Point> line = drawnLine(figure);
                REQUIRE(line.size() > 1);
                for (const Point& p : line) {
                    double across = (p.x - rect.x) / rect.width, up = (rect.bottom() - p.y) / rect.height;
                    if (leftwards) across = 1 - across;
                    if (downwards) up = 1 - up;
                    const double x = logarithmic ? std::pow(100, across) : 1 + 99 * across;
                    const double expected = logarithmic ? std::log(2 * x + 1) / std::log(300) : (2 * x + 1 - 1) / 299;
                    CHECK(std::abs(up - expected) * rect.height < 0.03); // tolerance of the chords and a hundredth
                }
            }
        }
    }
}

TEST_CASE("reversing a scale takes no other samples") {
    Document d = document({"f(x) = sin(x) exp(x/5)", "x in [0, 10]"}, {"f(x)"});
    const Figure plain = drawFigure(d);
    set(d.panels[0].x, reversedSetting, true);
    set(d.panels[0].y, reversedSetting, true);
    const Figure reversed = drawFigure(d);
    CHECK(curveSamplesOf(plain.panels[0].drawn[0])->stretches[0].x ==
          curveSamplesOf(reversed.panels[0].drawn[0])->stretches[0].x);
}

TEST_CASE("one end of a scale is set and the other stays automatic") {
    Document d = document({"f(x) = x^2 - 3", "x in [0, 4]"}, {"f(x)"});
    const Limits automatic{frameOf(drawFigure(d)).map.y.low, frameOf(drawFigure(d)).map.y.high};
    d.panels[0].y.limits.low = -20;
    CHECK(frameOf(drawFigure(d)).map.y.low == -20);
    CHECK(frameOf(drawFigure(d)).map.y.high == automatic.high);
    d.panels[0].y.limits.low = 50; // above all that is drawn
    CHECK(frameOf(drawFigure(d)).map.y.low == 50);
    CHECK(frameOf(drawFigure(d)).map.y.high > 50);
    d.panels[0].y.limits = {};
    d.panels[0].x.limits.high = 2;
    CHECK(frameOf(drawFigure(d)).map.x.low == 0);
    CHECK(frameOf(drawFigure(d)).map.x.high == 2);
    CHECK(frameOf(drawFigure(d)).map.y.high < automatic.high); // what is shown decides
    d.panels[0].x.scale = ScaleKind::Logarithmic;
    CHECK(frameOf(drawFigure(d)).map.x.low > 0);
}

TEST_CASE("labels and ticks follow another unit, and what cannot be shown in it is said at its scale") {
    Document d = document({"T(z) = 15 - 2z, unit °C, label \"Warmth\"", "z in [0, 3], unit m"}, {"T(z)"});
    set(d.panels[0].x, shownInSetting, std::string("cm"));
    set(d.panels[0].y, shownInSetting, std::string("K"));
    const Figure figure = drawFigure(d);
    CHECK(figure.panels[0].layout.labels.across == "$z$ / cm");
    CHECK(figure.panels[0].layout.labels.up == "Warmth $T$ / K");
    CHECK(figure.panels[0].layout.xTicks.labels.back() == "300");
    CHECK(figure.panels[0].layout.xTicks.places.back() == Approx(3));
    CHECK(findingsOf(figure).empty());
    set(d.panels[0].x, shownInSetting, std::string("kg"));
    set(d.panels[0].y, ticksAtSetting, std::string("{1, 2"));
    const Figure wrong = drawFigure(d);
    const std::vector<Finding> said = findingsOf(wrong);
    REQUIRE(said.size() == 2);
    CHECK(said[0].where == ItemPath{ItemKind::Scale, 0, acrossScale, 0});
    CHECK(said[0].said.sentence == "“shown in”: m cannot be shown in kg.");
    CHECK(said[1].where == ItemPath{ItemKind::Scale, 0, upScale, 0});
    CHECK(wrong.panels[0].layout.labels.across == "$z$ / m"); // drawn as if it were not set
}

TEST_CASE("values without a place on a logarithmic scale are counted in a remark") {
    Document d = document({"f(x) = x - 5", "x in [0, 10], count 11"}, {"f(x)"});
    d.panels[0].y.scale = ScaleKind::Logarithmic;
    const std::vector<Finding> said = findingsOf(drawFigure(d));
    CHECK(std::ranges::count(
              said, "f(x): 6 of 11 values are not positive and have no place on the logarithmic vertical scale.",
              [](const Finding& each) { return each.said.sentence; }) == 1);
}

TEST_CASE("zero lines are drawn where a scale has its zero, and given ticks stand as given") {
    Document d = document({"f(x) = x", "x in [-1, 3]"}, {"f(x)"});
    const std::size_t before = drawFigure(d).scene.items.size();
    set(d.panels[0].y, zeroLineSetting, true);
    const Figure figure = drawFigure(d);
    CHECK(figure.scene.items.size() == before + 1);
    d.panels[0].y.limits = Limits{1, 2};
    const std::size_t beyond = drawFigure(d).scene.items.size();
    set(d.panels[0].y, zeroLineSetting, false);
    CHECK(drawFigure(d).scene.items.size() == beyond);
    set(d.panels[0].x, ticksAtSetting, std::string("{-1, 0.5, 2}"));
    CHECK(drawFigure(d).panels[0].layout.xTicks.labels == std::vector<std::string>{"-1", "0.5", "2"});
}

TEST_CASE("numbers of neighbouring ticks never touch, in whatever style and on whatever sheet") {
    for (const char* style : {"automatic", "plain", "powers of ten", "multiples of π", "degrees", "SI prefixes"}) {
        for (const double width : {40.0, 70.0, 150.0}) {
            for (const double high : {3.0, 1000.0, 2.5e7}) {
                for (const ScaleKind kind : {ScaleKind::Linear, ScaleKind::Logarithmic}) {
                    Document d = document({"f(x) = x", "x in [0.01, " + std::to_string(high) + "]"}, {"f(x)"});
                    d.sheet.width = width;
                    d.sheet.height = 0.7 * width;
                    Panel& panel = d.panels[0];
                    panel.x.scale = panel.y.scale = kind;
                    for (Axis* axis : {&panel.x, &panel.y}) {
                        set(*axis, numbersSetting, std::string(style));
                        set(*axis, tickCountSetting, 20.0);
                    }
                    INFO(style << ", " << width << " mm, up to " << high);
                    numbersStandClear(drawFigure(d));
                }
            }
        }
    }
}

TEST_CASE("a radius over an angle has circles, rays and a scale of its own, and a part of the circle fills the room") {
    Document d = document({"r(phi) = 1 + cos(phi)", "phi in [0, 2pi]"}, {});
    d.panels[0].plots = {plotOf("r(phi)", "polar")};
    const Figure whole = drawFigure(d);
    REQUIRE(frameOf(whole).polar);
    const PolarFrame& polar = *frameOf(whole).polar;
    CHECK(polar.isWhole());
    CHECK(polar.radius.low == 0);
    CHECK(polar.radius.high >= 2);
    CHECK(whole.panels[0].layout.polar.angles.labels.size() == 12); // 0° to 330°, none twice
    CHECK(frameOf(whole).rect.width == Approx(2 * polar.radius.length));
    // The curve itself, where arithmetic has it.
    for (const Point& p : drawnLine(whole)) {
        const double dx = p.x - polar.middle.x, dy = polar.middle.y - p.y, rho = std::hypot(dx, dy),
                     expected = (1 + std::cos(std::atan2(dy, dx))) / polar.radius.high * polar.radius.length;
        CHECK(std::abs(rho - expected) < 0.05 + 0.2 * (expected < 0.5)); // chords; the cusp's direction is undefined
    }
    coulter::set(d.panels[0].angle, zeroDirectionSetting, std::string("north"));
    set(d.panels[0].x, reversedSetting, true);
    const Figure north = drawFigure(d);
    const std::vector<Point> line = drawnLine(north);
    const Point& first = line.front(); // φ = 0
    CHECK(first.x == Approx(frameOf(north).polar->middle.x).margin(0.001));
    CHECK(first.y < frameOf(north).polar->middle.y);
    d.panels[0].x.limits = Limits{0, pi / 2}; // clockwise from the north: the upper right quarter
    const Figure quarter = drawFigure(d);
    const PolarFrame& part = *frameOf(quarter).polar;
    CHECK(frameOf(quarter).rect.x == Approx(part.middle.x));
    CHECK(frameOf(quarter).rect.bottom() == Approx(part.middle.y));
    CHECK(part.radius.length > 1.5 * polar.radius.length);
    for (const Point& p : drawnLine(quarter)) {
        CHECK(p.x >= part.middle.x - 0.3);
        CHECK(p.y <= part.middle.y + 0.3);
    }
    // In the plane and round an angle at once is said.
    d.panels[0].plots.push_back(plotOf("cos(phi)", "line"));
    CHECK(drawFigure(d).panels[0].problems[1][0].sentence ==
          "This lies in the plane, and what is drawn before it is a radius over an angle.");
}

TEST_CASE("scales in space are set like all others") {
    Document d = document({"c(t) = (cos(t), sin(t), exp(t)), unit m", "t in [0, 5]"}, {"c(t)"});
    Panel& panel = d.panels[0];
    panel.z.scale = ScaleKind::Logarithmic;
    panel.z.limits.high = 1000;
    set(panel.z, reversedSetting, true);
    set(panel.x, shownInSetting, std::string("cm"));
    const Figure figure = drawFigure(d);
    const SpaceBox& box = *frameOf(figure).space;
    CHECK(box.maps[2].kind == ScaleKind::Logarithmic);
    CHECK(box.maps[2].high == 1000);
    CHECK(figure.panels[0].layout.labels.across == "$x$ / cm");
    // Downwards, evenly in the logarithm.
    const double one = frameOf(figure).onSheet(Place{0, 0, 1}).y, ten = frameOf(figure).onSheet(Place{0, 0, 10}).y,
                 hundred = frameOf(figure).onSheet(Place{0, 0, 100}).y;
    CHECK(ten - one > 1);
    CHECK(hundred - ten == Approx(ten - one).epsilon(1e-9));
    CHECK(curveSamplesOf(figure.panels[0].drawn[0])->certificate.share() > 0.99);
    CHECK(std::ranges::count_if(figure.hits, [](const Hit& hit) {
              return hit.path.kind == ItemKind::Scale && hit.path.index == uprightScale;
          }) > 1);
}
