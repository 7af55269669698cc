#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "make_document.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Figure stems(std::vector<std::string> page, const Settings& settings = {}) {
    Document d = document(std::move(page), {});
    d.panels[0].plots = {plotOf("f(x)", "stems")};
    d.panels[0].plots[0].settings = settings;
    return drawFigure(d);
}

const StrokeItem& linesOf(const Figure& figure) {
    return std::get<StrokeItem>(figure.scene.items[figure.owned[0].first]);
}

} // namespace

TEST_CASE("stems stand at the samples of a grid, from the value down to zero") {
    const Figure figure = stems({"f(x) = x^2 - 2", "x in [0, 4], step 1"});
    const Frame& frame = figure.panels[0].frame();
    const StrokeItem& item = linesOf(figure);
    REQUIRE(item.lines.size() == 5);
    for (std::size_t i = 0; i < 5; ++i) {
        const auto x = static_cast<double>(i);
        CHECK(item.lines[i].front().y == Approx(frame.onSheet(x, 0).y));
        CHECK(item.lines[i].back().y == Approx(frame.onSheet(x, x * x - 2).y));
        CHECK(item.lines[i].front().x == Approx(frame.onSheet(x, 0).x));
        CHECK(item.lines[i].back().x == Approx(item.lines[i].front().x));
    }
    CHECK(frame.map.y.low <= -2);
    CHECK(stems({"f(x) = 100 + x", "x in [0, 4], step 1"}).panels[0].frame().map.y.low == 0); // the feet are shown
}

TEST_CASE("stems of a curve without a grid stand at equal distances, and reach down to another curve") {
    const Figure figure = stems({"f(x) = 3 + sin(x)", "x in [0, 10]"}, {{"to", std::string("x/5")}, {"every", 4.0}});
    const Frame& frame = figure.panels[0].frame();
    const StrokeItem& item = linesOf(figure);
    CHECK(static_cast<double>(item.lines.size()) == Approx(frame.rect.width / 4).margin(1));
    for (const auto& line : item.lines) {
        const double x = frame.map.x.fromSheet(line[0].x - frame.rect.x);
        CHECK(line.front().y == Approx(frame.onSheet(x, x / 5).y).margin(1e-9));
        CHECK(line.back().y == Approx(frame.onSheet(x, 3 + std::sin(x)).y).margin(1e-9));
    }
    const Figure wrong = stems({"f(x) = x", "x in [0, 1]"}, {{"to", std::string("nothing")}});
    REQUIRE(wrong.panels[0].problems[0].size() == 1);
    CHECK(wrong.panels[0].problems[0][0].sentence.starts_with("The other edge “nothing”: "));
    CHECK(wrong.panels[0].drawn.empty());
}

TEST_CASE("stems on a logarithmic scale begin at its foot") {
    Document d = document({"f(x) = 10^x", "x in [0, 3], step 1"}, {});
    d.panels[0].plots = {plotOf("f(x)", "stems")};
    d.panels[0].y.scale = ScaleKind::Logarithmic;
    const Figure figure = drawFigure(d);
    for (const auto& line : linesOf(figure).lines)
        CHECK(line.front().y == Approx(figure.panels[0].frame().rect.bottom()).margin(0.3));
}
