#include "files/compare.h"

#include "composition/draw_figure.h"
#include "files/segment_index.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

Document straight(const std::string& formula) {
    Document document;
    document.page = {"f(x) = " + formula, "x in [0, 10]"};
    document.panels[0].plots = {plotOf("f(x)", "line")};
    document.panels[0].y.limits.low = 0;
    document.panels[0].y.limits.high = 10;
    return document;
}

bool says(const std::vector<std::string>& all, const std::string& part) {
    return std::ranges::any_of(all, [&](const std::string& each) { return each.find(part) != std::string::npos; });
}

double fromSegment(Point p, Point a, Point b) {
    double best = HUGE_VAL;
    for (int i = 0; i <= 2000; ++i) {
        const double s = i / 2000.0;
        best = std::min(best, std::hypot(p.x - a.x - s * (b.x - a.x), p.y - a.y - s * (b.y - a.y)));
    }
    return best;
}

} // namespace

TEST_CASE("the nearest of many segments is the nearest of all of them") {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> any(0, 150), little(-4, 4);
    std::vector<std::vector<Point>> lines;
    for (int i = 0; i < 60; ++i) {
        std::vector<Point> line{{any(random), any(random)}};
        for (int k = 0; k < 3; ++k) line.push_back({line.back().x + little(random), line.back().y + little(random)});
        lines.push_back(line);
    }
    lines.push_back({{75, 75}}); // a point alone
    const SegmentIndex index(lines);
    for (int i = 0; i < 100; ++i) {
        const Point p{any(random) * 1.4 - 30, any(random) * 1.4 - 30};
        double best = std::hypot(p.x - 75, p.y - 75);
        for (const auto& line : lines) {
            for (std::size_t k = 0; k + 1 < line.size(); ++k)
                best = std::min(best, fromSegment(p, line[k], line[k + 1]));
        }
        CHECK(index.distance(p) == Approx(best).margin(0.005));
        CHECK(index.distance(p) <= best + 1e-9);
    }
    CHECK(SegmentIndex({}).isEmpty());
    CHECK(std::isinf(SegmentIndex({}).distance({0, 0})));
}

TEST_CASE("a curve that was raised has moved by so much, and nothing else has") {
    Document first = straight("5"), second = straight("5.5");
    first.page.push_back("g(x) = x");
    second.page.push_back("g(x) = x");
    first.panels[0].plots.push_back(plotOf("g(x)", "line"));
    second.panels[0].plots.push_back(plotOf("g(x)", "line"));
    const Figure a = drawFigure(first), b = drawFigure(second);
    const Comparison found = compareFigures(a, b);
    CHECK(found.shifted() == 1);
    REQUIRE(found.plots.size() == 2);
    const double raised = 0.5 * a.panels[0].frame().map.y.length / 10;
    CHECK(found.plots[0].millimetres == Approx(raised).epsilon(1e-6));
    CHECK(found.plots[1].millimetres == 0);
    REQUIRE(found.recipe.size() == 1);
    CHECK(found.recipe[0].where == "page, line 1");
    CHECK(found.recipe[0].first == "f(x) = 5");
    CHECK(found.recipe[0].second == "f(x) = 5.5");
    CHECK(says(describe(found), "“f(x) = 5” became “f(x) = 5.5”"));
    CHECK(says(describe(found), "one plot stays where it was"));
}

TEST_CASE("equal figures do not differ; settings, lines and plots that came or went are named") {
    const Document document = straight("x");
    const Figure a = drawFigure(document);
    CHECK(compareFigures(a, a).same());
    CHECK(describe(compareFigures(a, a)) == std::vector<std::string>{"nothing differs"});

    Document other = document;
    other.page.insert(other.page.begin(), "# a line of prose");
    other.page.push_back("q = 3");
    other.sheet.width += 10;
    other.panels[0].plots[0].settings["width"] = 0.7;
    other.panels[0].plots.push_back(plotOf("x^2/10", "line"));
    const Comparison found = compareFigures(a, drawFigure(other));
    const std::vector<std::string> said = describe(found);
    CHECK(says(said, "page, line 1: only the second has “# a line of prose”"));
    CHECK(says(said, "page, line 4: only the second has “q = 3”"));
    CHECK(says(said, "sheet.width"));
    CHECK(says(said, "panels[0].plots[0].style.width: only the second has “0.7”"));
    CHECK(says(said, "drawn only in the second figure"));
    CHECK(!found.same());
    CHECK(says(describe(compareFigures(drawFigure(other), a)), "drawn only in the first figure"));
}

TEST_CASE("heatmaps that differ are said to, and numbers of tables by their rows") {
    Document first;
    first.page = {"f(x, y) = x y", "x in [0, 1]", "y in [0, 1]", "(t, s) from \"readings.csv\""};
    DataTable table;
    table.source = "readings.csv";
    table.columns = {{"t", "", "", std::make_shared<const std::vector<double>>(std::vector<double>{1, 2, 3})},
                     {"s", "", "", std::make_shared<const std::vector<double>>(std::vector<double>{4, 5, 6})}};
    first.tables.put(table);
    first.panels[0].plots = {plotOf("f(x, y)", "heatmap")};
    Document second = first;
    second.page[0] = "f(x, y) = x y^2";
    table.columns[1].numbers = std::make_shared<const std::vector<double>>(std::vector<double>{4, 5.5, 6});
    table.leftOut = {2};
    second.tables.put(table);
    const std::vector<std::string> said = describe(compareFigures(drawFigure(first), drawFigure(second)));
    CHECK(says(said, "its dots differ"));
    CHECK(says(said, "rows[1]"));
    CHECK(says(said, "left out"));
}

TEST_CASE("over one another two figures are dark where both are, and have two colours where one is") {
    Document first = straight("2"), second = straight("8");
    const Figure a = drawFigure(first), b = drawFigure(second);
    const Raster both = overlaid(a, b, 4);
    REQUIRE(both.width > 0);
    const auto at = [&](const Figure& figure, double x, double y) {
        const Point p = figure.panels[0].frame().onSheet(x, y);
        return both.pixels[static_cast<std::size_t>(std::lround(p.y * 4)) * static_cast<std::size_t>(both.width) +
                           static_cast<std::size_t>(std::lround(p.x * 4))];
    };
    const auto red = [](std::uint32_t pixel) { return pixel >> 16U & 0xffU; };
    const auto blue = [](std::uint32_t pixel) { return pixel & 0xffU; };
    CHECK(blue(at(a, 5, 2)) > red(at(a, 5, 2)) + 20);
    CHECK(red(at(b, 5, 8)) > blue(at(b, 5, 8)) + 20);
    // Scales and their numbers, which both have.
    CHECK(std::ranges::any_of(both.pixels, [&](std::uint32_t dot) { return red(dot) < 120 && blue(dot) < 120; }));
}
