#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "make_document.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Figure markers(std::vector<std::string> page, const Settings& settings = {}) {
    Document d = document(std::move(page), {});
    d.panels[0].plots = {plotOf("f(t)", "markers")};
    d.panels[0].plots[0].settings = settings;
    return drawFigure(d);
}

/// Middles of the marks of a figure, whose shape is symmetric about them.
std::vector<Point> middles(const Figure& figure) {
    std::vector<Point> found;
    for (const auto& polygon : std::get<FillItem>(figure.scene.items[figure.owned[0].first]).polygons) {
        Point low{1e9, 1e9}, high{-1e9, -1e9};
        for (const Point& p : polygon) {
            low = {std::min(low.x, p.x), std::min(low.y, p.y)};
            high = {std::max(high.x, p.x), std::max(high.y, p.y)};
        }
        found.push_back({(low.x + high.x) / 2, (low.y + high.y) / 2});
    }
    return found;
}

} // namespace

TEST_CASE("markers stand at the samples of a grid") {
    const Figure figure = markers({"f(t) = t^2", "t in [0, 3), count 6"});
    const auto places = middles(figure);
    REQUIRE(places.size() == 6);
    for (std::size_t i = 0; i < 6; ++i) {
        const double t = 0.5 * static_cast<double>(i);
        CHECK(places[i].x == Approx(figure.panels[0].frame().onSheet(t, t * t).x));
        CHECK(places[i].y == Approx(figure.panels[0].frame().onSheet(t, t * t).y));
    }
}

TEST_CASE("markers of a curve without a grid stand on it, at equal distances along it") {
    const Figure figure = markers({"f(t) = (3 cos(t), sin(t))", "t in [0, 6]"}, {{"every", 7.0}, {"size", 2.0}});
    const Frame& frame = figure.panels[0].frame();
    const auto places = middles(figure);
    REQUIRE(places.size() > 10);
    for (std::size_t i = 0; i < places.size(); ++i) {
        const double x = frame.map.x.fromSheet(places[i].x - frame.rect.x),
                     y = frame.map.y.fromSheet(frame.rect.bottom() - places[i].y);
        CHECK(x * x / 9 + y * y == Approx(1).epsilon(1e-9));
        if (i > 0) {
            const double apart = std::hypot(places[i].x - places[i - 1].x, places[i].y - places[i - 1].y);
            CHECK(apart <= 7.05);
            CHECK(apart > 6);
        }
    }
}

TEST_CASE("markers on a logarithmic scale are as far apart on the sheet as on a linear one") {
    const auto places = middles(markers({"f(t) = ln(t)", "t in [0.001, 10], logarithmic"}, {{"every", 9.0}}));
    REQUIRE(places.size() > 8);
    for (std::size_t i = 1; i < places.size(); ++i)
        CHECK(std::hypot(places[i].x - places[i - 1].x, places[i].y - places[i - 1].y) == Approx(9).epsilon(0.01));
}

TEST_CASE("marks outside the panel are left out, and open shapes are lines") {
    Document d = document({"f(t) = t", "t in [0, 10], count 11"}, {});
    d.panels[0].plots = {plotOf("f(t)", "markers")};
    d.panels[0].x.limits = Limits{2.5, 6.5};
    CHECK(middles(drawFigure(d)).size() == 4);
    for (const char* shape : {"ring", "cross"}) {
        d.panels[0].plots[0].settings = {{"shape", std::string(shape)}};
        const Figure figure = drawFigure(d);
        CHECK(std::holds_alternative<StrokeItem>(figure.scene.items[figure.owned[0].first]));
    }
    const Figure space = markers({"f(t) = (cos(t), sin(t), t)", "t in [0, 10]"});
    CHECK(space.panels[0].frame().space);
    CHECK(middles(space).size() > 5);
}
