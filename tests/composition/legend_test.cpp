#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/legend_place.h"
#include "figure/edits.h"
#include "make_document.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

const std::vector<std::string> pageOfCases{"f(x, a) = a x^2",         "x in [0, 1]",     "a in [0, 9]",
                                           "q(x, y) = x y",           "y in [0, 1]",     "r(phi) = 1 + cos(phi)/2",
                                           "s(phi) = 1 - sin(phi)/3", "phi in [0, 2 pi]"};

/// One panel of each shape, with several entries.
std::vector<Document> ofEachShape() {
    Document plane = document(pageOfCases, {"f(x, a) for a in {1, 2, 3, 4, 5}"});
    plane.panels[0].title = "A title";
    Document space = document(pageOfCases, {});
    space.panels[0].plots = {plotOf("q(x, y)", "surface"), plotOf("q(x, y) - 1/2", "surface")};
    for (Plot& plot : space.panels[0].plots) plot.name = "one of the two";
    Document round = document(pageOfCases, {});
    round.panels[0].plots = {plotOf("r(phi)", "polar"), plotOf("s(phi)", "polar")};
    return {plane, space, round};
}

} // namespace

TEST_CASE("a legend at any side has its own room, in every shape of panel") {
    for (Document d : ofEachShape()) {
        for (const LegendPlace place : {LegendPlace::Left, LegendPlace::Above, LegendPlace::Below}) {
            d.panels[0].legend.place = place;
            const Figure figure = drawFigure(d);
            INFO(d.panels[0].plots[0].kind << ", " << legendPlaceNames[static_cast<std::size_t>(place)]);
            const LegendLayout& legend = figure.panels[0].layout.legend;
            REQUIRE(legend.entries.size() >= 2);
            CHECK(legend.place == place);
            const Rect& frame = figure.panels[0].frame().rect;
            if (place == LegendPlace::Left) CHECK(legend.rect.right() < frame.x);
            if (place == LegendPlace::Above) CHECK(legend.rect.bottom() < frame.y);
            if (place == LegendPlace::Below) CHECK(legend.rect.y > frame.bottom());
            CHECK((legend.rect.x >= 0 && legend.rect.y >= 0));
            CHECK((legend.rect.right() <= d.sheet.width && legend.rect.bottom() <= d.sheet.height));
            for (const Hit& hit : figure.hits) {
                if (hit.path.kind == ItemKind::Title || hit.path.kind == ItemKind::ScaleLabel)
                    CHECK_FALSE(hit.rect.intersects(legend.rect));
            }
        }
    }
}

TEST_CASE("an automatic legend does not lie inside of an area; up to format 6 it may") {
    // High at both ends and low between: the corners below are inside of the areas, far from their edges.
    Document d = document({"f(x) = 4 + x^2", "g(x) = 3 + 10 x^2/9", "x in [-3, 3]"}, {});
    d.panels[0].plots = {plotOf("f(x)", "area"), plotOf("g(x)", "area")};
    d.panels[0].y.limits = Limits{0, 13};
    const auto isCovered = [&] {
        const Figure figure = drawFigure(d);
        const PanelFigure& panel = figure.panels[0];
        const Rect& legend = panel.layout.legend.rect;
        REQUIRE(legend.width > 0);
        if (legend.x >= panel.frame().rect.right()) return false; // outside
        const Point middle{legend.x + legend.width / 2, legend.y + legend.height / 2};
        const double x = panel.frame().xAt(middle.x), y = panel.frame().yAt(middle.y);
        return y < 4 + x * x;
    };
    CHECK_FALSE(isCovered());
    d.format = 6;
    CHECK(isCovered());
}

TEST_CASE("above and below entries stand in as many columns as there is room for, and no row is nearly empty") {
    Document d = document(pageOfCases, {"f(x, a) for a in {1, 2, 3, 4, 5, 6, 7}"});
    d.panels[0].legend.place = LegendPlace::Below;
    const auto laid = [&] { return drawFigure(d).panels[0].layout.legend; };
    d.sheet.width = 300;
    CHECK(laid().rows == 1);
    d.sheet.width = 90;
    const LegendLayout few = laid();
    CHECK(few.rows == 2);
    CHECK(few.columns.size() == 4);
    CHECK(few.width <= 90);
    d.panels[0].legend.columns = 2;
    CHECK(laid().columns.size() == 2);
    CHECK(laid().rows == 4);
    d.panels[0].legend.place = LegendPlace::TopLeft;
    CHECK(laid().columns.size() == 2);
    d.panels[0].legend.columns = 20; // more than entries
    CHECK(laid().rows == 1);
}

TEST_CASE("no entry lies over another, whatever the number of columns, and all are within the legend") {
    Document d = document(pageOfCases, {"f(x, a) for a in {1, 2, 3, 4, 5, 6, 7}", "x"});
    d.panels[0].plots[1].name = "a longer entry than the others";
    for (int columns = 1; columns <= 8; ++columns) {
        d.panels[0].legend = {LegendPlace::TopLeft, std::nullopt, columns};
        const LegendLayout legend = drawFigure(d).panels[0].layout.legend;
        for (std::size_t i = 0; i < legend.entries.size(); ++i) {
            const Rect one = legend.entryRect(i);
            CHECK(one.width >= legend.entries[i].width + distance::legendSample);
            CHECK((one.right() <= legend.width + 1e-9 && one.bottom() <= legend.height + 1e-9));
            for (std::size_t k = 0; k < i; ++k)
                CHECK_FALSE(legend.entryRect(k).grown(-0.01).intersects(one.grown(-0.01)));
        }
    }
}

TEST_CASE("a legend that was put by hand lies there, whatever side it came from") {
    Document d = ofEachShape()[0];
    d.panels[0].legend = {LegendPlace::Below, std::array<double, 2>{12, 7}, 0};
    const Figure figure = drawFigure(d);
    const Rect &legend = figure.panels[0].layout.legend.rect, &frame = figure.panels[0].frame().rect;
    CHECK(legend.x - frame.x == Approx(12));
    CHECK(legend.y - frame.y == Approx(7));
}

TEST_CASE("entries change their order and keep their curves") {
    Document d = document(pageOfCases, {"x", "x^2", "f(x, a) for a in {1, 2}"});
    d.panels[0].legend.place = LegendPlace::TopLeft;
    const auto sequence = [&] {
        const Figure figure = drawFigure(d);
        std::vector<std::size_t> plots;
        for (const std::size_t i : figure.panels[0].layout.legend.drawn)
            plots.push_back(figure.panels[0].drawn[i].path.index);
        return plots;
    };
    using Sequence = std::vector<std::size_t>;
    CHECK(sequence() == Sequence{0, 1, 2, 2});
    CHECK(moveInLegend(d.panels[0], 2, -1));
    CHECK(sequence() == Sequence{0, 2, 2, 1});
    CHECK(moveInLegend(d.panels[0], 0, 1));
    CHECK(sequence() == Sequence{2, 2, 0, 1});
    CHECK_FALSE(moveInLegend(d.panels[0], 2, -1)); // it is the first
    CHECK_FALSE(moveInLegend(d.panels[0], 1, 1));
    CHECK_FALSE(moveInLegend(d.panels[0], 7, 1));
    const Colour before =
        drawFigure(document(pageOfCases, {"x", "x^2", "f(x, a) for a in {1, 2}"})).panels[0].drawn[1].colour;
    CHECK(drawFigure(d).panels[0].drawn[1].colour == before);
    CHECK(moveInLegend(d.panels[0], 2, 1));
    CHECK(moveInLegend(d.panels[0], 2, 1));
    CHECK(sequence() == Sequence{0, 1, 2, 2});
    for (const Plot& plot : d.panels[0].plots) CHECK(plot.order == 0); // as it was: nothing to be kept
}
