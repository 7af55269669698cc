#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/pointing.h"
#include "drawing/svg_writer.h"
#include "formula/base/text.h"
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

TEST_CASE("an estimate draws its figures to their size, and says what they add up to") {
    struct Case {
        const char* rule;
        double sum; ///< of x^2 over [0, 2] by four parts
        std::size_t corners;
    };
    for (const Case& c :
         {Case{"left rectangles", 1.75, 4}, Case{"middle rectangles", 2.625, 4}, Case{"right rectangles", 3.75, 4},
          Case{"trapezoids", 2.75, 4}, Case{"triangles", 1.875, 3}}) {
        INFO(c.rule);
        const Figure figure = area({"f(x) = x^2", "x in [0, 2]"}, {{"estimate", std::string(c.rule)}, {"parts", 4.0}});
        REQUIRE(figure.panels[0].problems[0].empty());
        const Drawn& drawn = figure.panels[0].drawn[0];
        const std::string first = std::string("4 ") + c.rule + ": " + roundedNumber(c.sum, 5);
        CHECK(drawn.words.starts_with(first));
        CHECK((drawn.words.find("; 8: ") != std::string::npos) == (c.corners == 4));
        // Its outlines are strokes of the plot; together they enclose what is said.
        double enclosed = 0;
        std::size_t outlines = 0;
        for (std::size_t i = figure.owned[0].first; i < figure.owned[0].last; ++i) {
            const auto* stroke = std::get_if<StrokeItem>(&figure.scene.items[i]);
            if (!stroke) continue;
            for (const auto& line : stroke->lines) {
                CHECK(line.size() == c.corners);
                enclosed += size({{line}, {}, 1, true});
                ++outlines;
            }
        }
        CHECK(outlines == 4);
        CHECK(enclosed / perUnit(figure.panels[0].frame()) == Approx(c.sum).epsilon(1e-6));
    }
}

TEST_CASE(
    "one triangle has its tip where the curve is highest; trapezoids over two curves that cross count both sides") {
    const Figure one =
        area({"f(x) = sin(x)", "x in [0, pi]"}, {{"estimate", std::string("triangles")}, {"parts", 1.0}});
    CHECK(one.panels[0].drawn[0].words == "1 triangle: 1.5708");
    const Figure crossing =
        area({"f(x) = x", "x in [-1, 1]"}, {{"estimate", std::string("trapezoids")}, {"parts", 1.0}});
    CHECK(crossing.panels[0].drawn[0].words.starts_with("1 trapezoid: 1; 2: 1; 4: 1"));
    // Beside the integral's own value.
    const Figure both = area({"f(x) = x", "x in [0, 2]"},
                             {{"estimate", std::string("left rectangles")}, {"parts", 2.0}, {"value", true}});
    CHECK(both.panels[0].drawn[0].words.starts_with("2 ± "));
    CHECK(both.panels[0].drawn[0].words.find("\n2 left rectangles: 1; 4: 1.5; 8: 1.75") != std::string::npos);
}
