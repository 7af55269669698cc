#include "composition/figure.h"
#include "drawing/svg_writer.h"
#include "make_document.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

Figure area(std::vector<std::string> page, const Settings& settings = {}) {
    Document d = document(std::move(page), {});
    d.panels[0].plots = {plotOf("f(x)", "area")};
    d.panels[0].plots[0].settings = settings;
    return drawFigure(d);
}

const FillItem& fillOf(const Figure& figure) { return std::get<FillItem>(figure.scene.items[figure.owned[0].first]); }

/// Area of polygons in mm², each by the shoelace formula.
double size(const FillItem& item) {
    double all = 0;
    for (const auto& polygon : item.polygons) {
        double twice = 0;
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
            twice += a.x * b.y - b.x * a.y;
        }
        all += std::abs(twice) / 2;
    }
    return all;
}

double perUnit(const Frame& frame) {
    return frame.map.x.length / (frame.map.x.high - frame.map.x.low) * frame.map.y.length /
           (frame.map.y.high - frame.map.y.low);
}

} // namespace

TEST_CASE("an area on the sheet has the size of its integral") {
    const Figure sine = area({"f(x) = sin(x)", "x in [0, pi]"});
    CHECK(size(fillOf(sine)) / perUnit(sine.panels[0].frame()) == Approx(2).epsilon(1e-3));
    const Figure two = area({"f(x) = 2 + x", "x in [0, 2]"}, {{"to", std::string("x^2")}});
    CHECK(size(fillOf(two)) / perUnit(two.panels[0].frame()) == Approx(4 + 2 - 8.0 / 3).epsilon(1e-3));
}

TEST_CASE("an area ends where one of its curves does, and is broken at poles") {
    const Figure root = area({"f(x) = sqrt(x)", "x in [-1, 1]"}, {{"to", std::string("-sqrt(0.5 - x)")}});
    REQUIRE(fillOf(root).polygons.size() == 1);
    const Frame& frame = root.panels[0].frame();
    double left = 1e9, right = -1e9;
    for (const Point& p : fillOf(root).polygons[0]) {
        left = std::min(left, p.x);
        right = std::max(right, p.x);
    }
    CHECK(left == Approx(frame.onSheet(0, 0).x).margin(1e-6));
    CHECK(right == Approx(frame.onSheet(0.5, 0).x).margin(1e-6));
    const Figure pole = area({"f(x) = 1/x", "x in [-1, 1]"});
    CHECK(fillOf(pole).polygons.size() == 2);
    for (const auto& polygon : fillOf(pole).polygons) {
        for (const Point& p : polygon) CHECK(pole.panels[0].frame().rect.grown(1e-6).contains(p));
    }
}

TEST_CASE("an area's opacity reaches every format as one fill, so that nothing is twice as dark") {
    const Figure figure = area({"f(x) = sin(5x)", "x in [0, pi]"}, {{"opacity", 0.25}});
    CHECK(figure.owned[0].last - figure.owned[0].first == 1);
    CHECK(fillOf(figure).opacity == 0.25);
    CHECK(writeSvg(figure.scene, "", "").find("fill-opacity=\"0.25\"") != std::string::npos);
}

TEST_CASE("a line, its stems and the area under it are sampled once, and share one entry") {
    Document d = document({"f(x) = sin(x)", "g(x) = 2", "x in [0, 3], count 7"}, {"f(x)", "g(x)"});
    d.panels[0].plots.push_back(plotOf("f(x)", "stems"));
    d.panels[0].plots.push_back(plotOf("f(x)", "area"));
    d.panels[0].legend.place = LegendPlace::TopLeft;
    const Figure figure = drawFigure(d);
    const auto& drawn = figure.panels[0].drawn;
    REQUIRE(drawn.size() == 4);
    CHECK(drawn[0].parts[0].samples == drawn[2].parts[0].samples);
    CHECK(drawn[0].parts[0].samples == drawn[3].parts[0].samples);
    CHECK(figure.panels[0].layout.legend.entries.size() == 2);
    // The area lies under the lines, whatever the order of the plots.
    const auto at = [&](std::size_t plot) {
        for (const Owned& owned : figure.owned) {
            if (owned.path.index == plot) return owned.first;
        }
        return std::size_t{0};
    };
    CHECK(at(3) < at(0));
    // What is pointed at: the line where one is near, else the area.
    const Frame& frame = figure.panels[0].frame();
    CHECK(itemAt(figure, frame.onSheet(1.75, 0.3), 0.5).index == 3);
    CHECK(itemAt(figure, frame.onSheet(1.5, 0.5), 0.5).index == 2);
    CHECK(itemAt(figure, frame.onSheet(1.75, 2), 0.5).index == 1);
}
