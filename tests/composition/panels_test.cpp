#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "figure/panel_grid.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "make_document.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

const std::vector<std::string> pageOfThree{
    "f(x) = sin(x)", "g(x) = 20000 cos(x), unit kPa, label \"Suction\"", "h(x) = exp(x/4)",
    "k(x, y) = x y", "x in [0, 12], unit m, label \"Distance\"",         "y in [0, 3]"};

Panel panelOf(const std::vector<std::string>& plots, Cell cell) {
    Panel panel;
    panel.cell = cell;
    for (const std::string& of : plots) panel.plots.push_back(plotOf(of));
    return panel;
}

Document sheetOf(std::vector<Panel> panels, double width = 160, double height = 120) {
    Document d;
    d.page = pageOfThree;
    d.sheet.width = width;
    d.sheet.height = height;
    d.panels = std::move(panels);
    return d;
}

void share(Document& d, const Setting& setting, const char* how) { set(d.sheet.settings, setting, std::string(how)); }

const Rect& frameOf(const Figure& figure, std::size_t panel) { return figure.panels[panel].frame().rect; }

std::size_t numbersOf(const Ticks& ticks) {
    return static_cast<std::size_t>(
        std::ranges::count_if(ticks.labels, [](const std::string& l) { return !l.empty(); }));
}

} // namespace

TEST_CASE("frames of a grid are aligned and as large as their weights say, whatever their scales need") {
    Document d = sheetOf({panelOf({"f(x)"}, {0, 0}), panelOf({"g(x)"}, {0, 1}), panelOf({"f(x)"}, {1, 0}),
                          panelOf({"h(x)"}, {1, 1}), panelOf({"f(x)"}, {2, 0, 1, 2})});
    d.sheet.columnWidths = {2};
    d.sheet.rowHeights = {1, 1, 0.5};
    const Figure figure = drawFigure(d);
    CHECK(frameOf(figure, 0).width == Approx(2 * frameOf(figure, 1).width).epsilon(1e-9));
    CHECK(frameOf(figure, 0).height == Approx(2 * frameOf(figure, 4).height).epsilon(1e-9));
    CHECK(frameOf(figure, 0).x == Approx(frameOf(figure, 2).x));
    CHECK(frameOf(figure, 1).x == Approx(frameOf(figure, 3).x));
    CHECK(frameOf(figure, 0).y == Approx(frameOf(figure, 1).y));
    CHECK(frameOf(figure, 4).x == Approx(frameOf(figure, 0).x));
    CHECK(frameOf(figure, 4).right() == Approx(frameOf(figure, 1).right()));
    for (const PanelFigure& panel : figure.panels) CHECK(panel.layout.sizes.text == figure.panels[0].layout.sizes.text);
}

TEST_CASE("nothing of many panels overlaps or leaves the sheet") {
    for (const double width : {60.0, 90.0, 180.0, 400.0}) {
        for (const int columns : {1, 2, 3}) {
            for (const char* letters : {"none", "(a)"}) {
                std::vector<Panel> panels;
                for (int i = 0; i < 2 * columns; ++i) {
                    panels.push_back(panelOf({i % 3 == 0   ? "g(x)"
                                              : i % 3 == 1 ? "f(x)"
                                                           : "h(x)"},
                                             {i / columns, i % columns}));
                    if (i % 2 == 0) panels.back().title = "Suction over distance";
                }
                if (columns > 1) panels[1].further = {Axis{}};
                Document d = sheetOf(panels, width, 0.8 * width);
                share(d, lettersSetting, letters);
                share(d, sharedAcrossSetting, "columns");
                set(d.sheet.settings, sheetTitleSetting, std::string("All of it"));
                const Figure figure = drawFigure(d);
                INFO("width " << width << ", columns " << columns << ", letters " << letters);
                for (std::size_t a = 0; a < figure.hits.size(); ++a) {
                    const Hit& one = figure.hits[a];
                    CHECK(one.rect.x >= 0);
                    CHECK(one.rect.y >= 0);
                    CHECK(one.rect.right() <= width + 1e-9);
                    CHECK(one.rect.bottom() <= 0.8 * width + 1e-9);
                    for (std::size_t b = 0; b < a; ++b) {
                        const Hit& other = figure.hits[b];
                        if (one.path.kind == ItemKind::Plot || other.path.kind == ItemKind::Plot) continue;
                        if (one.path.kind == ItemKind::Legend || other.path.kind == ItemKind::Legend) continue;
                        const Rect &p = one.rect, &q = other.rect;
                        const double across = std::min(p.right(), q.right()) - std::max(p.x, q.x),
                                     up = std::min(p.bottom(), q.bottom()) - std::max(p.y, q.y);
                        INFO("item " << static_cast<int>(one.path.kind) << "." << one.path.index << " of panel "
                                     << one.path.panel << " and " << static_cast<int>(other.path.kind) << "."
                                     << other.path.index << " of panel " << other.path.panel);
                        CHECK_FALSE((across > 0.4 && up > 0.4));
                    }
                }
            }
        }
    }
}

TEST_CASE("scales that panels share show what all of them show, with numbers at the outer ones") {
    Document d = sheetOf({panelOf({"f(x)"}, {0, 0}), panelOf({"3 f(x)"}, {0, 1}), panelOf({"h(x)"}, {1, 0}),
                          panelOf({"h(x)/2"}, {1, 1})});
    share(d, sharedAcrossSetting, "columns");
    share(d, sharedUpSetting, "rows");
    d.panels[2].x.limits.high = 8;
    const Figure figure = drawFigure(d);
    const auto& panels = figure.panels;
    CHECK(panels[0].frame().map.y.low == panels[1].frame().map.y.low);
    CHECK(panels[0].frame().map.y.low <= -3);
    CHECK(panels[0].frame().map.x.high == 8); // what one was given holds for both
    CHECK(panels[1].frame().map.x.high == 12);
    CHECK(numbersOf(panels[0].layout.xTicks) == 0);
    CHECK(numbersOf(panels[2].layout.xTicks) > 2);
    CHECK(numbersOf(panels[0].layout.yTicks) > 2);
    CHECK(numbersOf(panels[1].layout.yTicks) == 0);
    CHECK(panels[0].layout.xTicks.places == panels[2].layout.xTicks.places);
    CHECK(panels[0].layout.sharesAcross == std::vector<std::size_t>{0, 2});
    CHECK(panels[0].layout.xLabel.width == 0);
    CHECK(panels[2].layout.xLabel.width > 0);
}

TEST_CASE("scales of different units or kinds are not shared") {
    Document d = sheetOf({panelOf({"f(x)"}, {0, 0}), panelOf({"g(x)"}, {0, 1})});
    share(d, sharedUpSetting, "rows");
    const Figure units = drawFigure(d);
    CHECK(units.panels[0].layout.sharesUp.empty());
    CHECK(numbersOf(units.panels[1].layout.yTicks) > 2);
    d.panels[1] = panelOf({"h(x)"}, {0, 1});
    d.panels[1].y.scale = ScaleKind::Logarithmic;
    CHECK(drawFigure(d).panels[0].layout.sharesUp.empty());
    d.panels[1].y.scale.reset();
    CHECK(drawFigure(d).panels[0].layout.sharesUp.size() == 2);
}

TEST_CASE("colours mean the same in panels that share them, and one bar says so") {
    Document d = sheetOf({panelOf({}, {0, 0}), panelOf({}, {0, 1})});
    d.panels[0].plots = {plotOf("k(x, y)", "heatmap")};
    d.panels[1].plots = {plotOf("3 k(x, y)", "heatmap")};
    const auto barsOf = [](const Figure& figure) {
        return std::ranges::count_if(figure.hits, [](const Hit& hit) {
            return hit.path.kind == ItemKind::Scale && hit.path.index == colourScale;
        });
    };
    const Figure own = drawFigure(d);
    CHECK(own.panels[0].frame().colour.high < own.panels[1].frame().colour.high);
    CHECK(barsOf(own) == 2);
    share(d, sharedColoursSetting, "scale");
    const Figure shared = drawFigure(d);
    CHECK(shared.panels[0].frame().colour.high == shared.panels[1].frame().colour.high);
    CHECK(barsOf(shared) == 2);
    share(d, sharedColoursSetting, "scale and bar");
    set(d.panels[0].colour.settings, mapSetting, std::string("frost"));
    const Figure one = drawFigure(d);
    CHECK(barsOf(one) == 1);
    CHECK(one.panels[1].frame().shades.map == one.panels[0].frame().shades.map);
    CHECK(one.panels[0].layout.colours.rect.x > frameOf(one, 1).right());
    CHECK(one.panels[0].layout.colours.rect.height == Approx(frameOf(one, 0).height));
}

TEST_CASE("one legend names what all panels draw, each look once") {
    Document d = sheetOf({panelOf({"f(x)", "h(x)"}, {0, 0}), panelOf({"f(x)", "2 f(x)"}, {0, 1})});
    for (const char* place : {"right", "below"}) {
        share(d, sheetLegendSetting, place);
        const Figure figure = drawFigure(d);
        CHECK(figure.layout.legend.size() == 3);
        // A colour means one formula, in whichever panel.
        const auto colourOf = [&](std::size_t panel, std::size_t drawn) {
            return figure.panels[panel].drawn[drawn].colour;
        };
        CHECK(colourOf(0, 0) == colourOf(1, 0));
        CHECK(colourOf(0, 1) != colourOf(1, 1));
        CHECK(figure.panels[0].layout.legend.entries.empty());
        for (const PanelFigure& panel : figure.panels) {
            const Rect &frame = panel.frame().rect, &legend = figure.layout.legendRect;
            CHECK((legend.x > frame.right() || legend.y > frame.bottom()));
        }
    }
}

TEST_CASE("panels have letters in their order") {
    Settings settings;
    CHECK(panelLetter(settings, 0).empty());
    set(settings, lettersSetting, std::string("(a)"));
    CHECK(panelLetter(settings, 1) == "(b)");
    CHECK(panelLetter(settings, 27) == "(ab)");
    set(settings, lettersSetting, std::string("A"));
    CHECK(panelLetter(settings, 2) == "C");
}

TEST_CASE("several vertical scales: each curve lies where its own scale has it") {
    Document d = document(pageOfThree, {"f(x)", "g(x)", "h(x)"});
    d.panels[0].further = {Axis{}, Axis{}};
    d.panels[0].further[1].scale = ScaleKind::Logarithmic;
    d.panels[0].plots[1].scale = 1;
    d.panels[0].plots[2].scale = 2;
    const Figure figure = drawFigure(d);
    const PanelFigure& panel = figure.panels[0];
    REQUIRE(panel.frame().further.size() == 2);
    CHECK(panel.frame().map.y.high < 2);
    CHECK(panel.frame().further[0].map.high >= 20000);
    CHECK(panel.frame().further[1].map.kind == ScaleKind::Logarithmic);
    // Scale lines stand beside each other, each in the colour of its curve, and no two scales touch.
    double right = frameOf(figure, 0).right();
    for (const std::size_t number : {1UL, 2UL}) {
        const auto hit = std::ranges::find_if(figure.hits, [&](const Hit& each) {
            return each.path.kind == ItemKind::Scale && each.path.index == upwardScale(number);
        });
        REQUIRE(hit != figure.hits.end());
        CHECK(hit->rect.x > right);
        right = hit->rect.right();
    }
    CHECK(right < d.sheet.width);
    // A straight line in the logarithm is one on the sheet.
    const CurveSamples& samples = *curveSamplesOf(panel.drawn[2]);
    const Frame frame = panel.frameOf(panel.drawn[2]);
    const Stretch& stretch = samples.stretches.front();
    const Point a = frame.onSheet(stretch.x.front(), stretch.y.front()),
                b = frame.onSheet(stretch.x.back(), stretch.y.back());
    CHECK(a.y > b.y + 20);
    for (std::size_t i = 0; i < stretch.x.size(); ++i) {
        const Point p = frame.onSheet(stretch.x[i], stretch.y[i]);
        CHECK(p.y == Approx(a.y + (b.y - a.y) * (p.x - a.x) / (b.x - a.x)).margin(0.021));
    }
    CHECK(samples.stretches[0].x.size() < 8);
}

TEST_CASE("a further scale that nothing lies on says the first one's numbers in its own unit") {
    Document d = document({"T(x) = 10 + 5 sin(x), unit °C", "x in [0, 6]"}, {"T(x)"});
    d.panels[0].further = {Axis{}};
    set(d.panels[0].further[0].settings, shownInSetting, std::string("K"));
    d.panels[0].y.limits = Limits{0, 20};
    const Figure figure = drawFigure(d);
    const PanelLayout& layout = figure.panels[0].layout;
    REQUIRE(layout.further.size() == 1);
    CHECK(layout.further[0].mirrors);
    CHECK(layout.frame.further[0].map.low == 0);
    CHECK(layout.frame.further[0].map.high == 20);
    // 275 K, 280 K, … stand where they belong on the scale of °C.
    REQUIRE_FALSE(layout.further[0].ticks.places.empty());
    for (std::size_t i = 0; i < layout.further[0].ticks.places.size(); ++i) {
        if (layout.further[0].ticks.labels[i].empty()) continue;
        CHECK(std::stod(layout.further[0].ticks.labels[i]) - 273.15 ==
              Approx(layout.further[0].ticks.places[i]).margin(1e-9));
    }
}
