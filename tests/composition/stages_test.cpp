#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "composition/pointing.h"
#include "drawing/svg_writer.h"
#include "make_document.h"
#include "sampling/grid.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

using namespace coulter;

namespace {

Document everything() {
    Document d = document({"f(x) = sin(x)/x", "g(x, y) = x y", "x in [-4, 4]", "y in [-2, 2]", "a in [0, 2]"},
                          {"f(x)", "a x for a in {1, 2}"});
    d.panels[0].plots.push_back(plotOf("g(x, y)", "heatmap"));
    d.panels[0].plots.push_back(plotOf("f(x)", "area"));
    return d;
}

} // namespace

TEST_CASE("samples that are already there give the same bytes, and are not made again") {
    const Document d = everything();
    const std::string fresh = writeSvg(drawFigure(d).scene, "", "");
    SampleStore store;
    CHECK(writeSvg(drawFigure(d, effortOf(d.sheet), {}, &store).scene, "", "") == fresh);
    CHECK(store.hits() == 0);
    CHECK(writeSvg(drawFigure(d, effortOf(d.sheet), {}, &store).scene, "", "") == fresh);
    const std::size_t all = store.hits();
    CHECK(all >= 4);
    // Another look needs no other samples; another formula, view or tolerance does.
    Document styled = d;
    styled.panels[0].plots[0].settings["width"] = 1.0;
    styled.panels[0].title = "";
    CHECK(writeSvg(drawFigure(styled, effortOf(d.sheet), {}, &store).scene, "", "") ==
          writeSvg(drawFigure(styled).scene, "", ""));
    CHECK(store.hits() == 2 * all);
    Document other = d;
    other.page[0] = "f(x) = sin(2x)/x";
    CHECK(writeSvg(drawFigure(other, effortOf(d.sheet), {}, &store).scene, "", "") ==
          writeSvg(drawFigure(other).scene, "", ""));
    Document finer = d;
    finer.sheet.tolerance = 0.005;
    CHECK(writeSvg(drawFigure(finer, effortOf(finer.sheet), {}, &store).scene, "", "") ==
          writeSvg(drawFigure(finer).scene, "", ""));
    Document asked = d;
    asked.panels[0].plots[0].finer = {{0, 1, 8}};
    CHECK(writeSvg(drawFigure(asked, effortOf(d.sheet), {}, &store).scene, "", "") ==
          writeSvg(drawFigure(asked).scene, "", ""));
    store.forgetUnused();
    store.forgetUnused();
    const std::size_t before = store.hits();
    drawFigure(d, effortOf(d.sheet), {}, &store);
    CHECK(store.hits() == before);
}

TEST_CASE("a coarse picture takes few points, of grids too, and knows its own tolerance") {
    Document d = document({"f(x) = sin(40 x)", "x in [0, 10], count 1000000"}, {"f(x)"});
    const Figure coarse = drawFigure(d, coarseEffortOf(d.sheet));
    CHECK(curveSamplesOf(coarse.panels[0].drawn[0])->pointCount() <= 20'000);
    CHECK(coarse.effort.coarse);
    CHECK(coarse.effort.tolerance == Approx(0.4));
    d.page = {"g(x, y) = x y", "x in [0, 1], count 2000", "y in [0, 1], count 1000"};
    d.panels[0].plots = {plotOf("g(x, y)", "heatmap")};
    const Figure field = drawFigure(d, coarseEffortOf(d.sheet));
    CHECK(fieldSamplesOf(field.panels[0].drawn[0])->pointCount() <= 20'000);
    CHECK(fieldSamplesOf(field.panels[0].drawn[0])->columns.back() == 1);
}

TEST_CASE("several panels are drawn, each in its room, and each thing is found where it is") {
    Document d = everything();
    d.panels.push_back(document({}, {"f(x)", "2 f(x)"}).panels[0]);
    d.panels[1].title = "below";
    const Figure figure = drawFigure(d);
    REQUIRE(figure.panels.size() == 2);
    const Rect &above = figure.panels[0].frame().rect, &below = figure.panels[1].frame().rect;
    CHECK(above.bottom() < d.sheet.height / 2);
    CHECK(below.y > d.sheet.height / 2);
    CHECK(below.bottom() < d.sheet.height);
    std::set<std::size_t> panels;
    for (const Owned& owned : figure.owned) panels.insert(owned.path.panel);
    CHECK(panels == std::set<std::size_t>{0, 1});
    const Frame& frame = figure.panels[1].frame();
    const ItemPath hit = itemAt(figure, frame.onSheet(1, 2 * std::sin(1.0)), 0.3);
    CHECK(hit == ItemPath{ItemKind::Plot, 1, 1, 0});
    REQUIRE(drawnAt(figure, hit));
    CHECK(drawnAt(figure, hit)->of == "2 f(x)");
    CHECK(partAt(figure, {below.x + 1, below.y + 1}).panel == 1);
    for (const SceneItem& item : figure.scene.items) { // no letter leaves the sheet
        const auto* glyphs = std::get_if<GlyphItem>(&item);
        if (!glyphs) continue;
        for (const PlacedGlyph& glyph : glyphs->glyphs) CHECK(glyph.y < d.sheet.height);
    }
}

TEST_CASE("space and plane do not mix in one panel, and the first plot decides") {
    const std::vector<std::string> page{"c(t) = (cos(t), sin(t), t)", "f(t) = t^2", "t in [0, 6]"};
    const Figure space = drawFigure(document(page, {"c(t)", "f(t)"}));
    CHECK(space.panels[0].frame().space);
    REQUIRE(space.panels[0].problems[1].size() == 1);
    CHECK(space.panels[0].problems[1][0].sentence.find("lies in the plane") != std::string::npos);
    CHECK(space.panels[0].drawn.size() == 1);
    const Figure plane = drawFigure(document(page, {"f(t)", "c(t)"}));
    CHECK_FALSE(plane.panels[0].frame().space);
    CHECK(plane.panels[0].problems[1][0].sentence.find("runs in space") != std::string::npos);
}

TEST_CASE("a view of space has a legend where several curves are drawn, clear of them or outside") {
    const Figure figure =
        drawFigure(document({"c(t) = (cos(t), sin(t), t)", "d(t) = (t, t, t)", "t in [0, 6]"}, {"c(t)", "d(t)"}));
    const LegendLayout& legend = figure.panels[0].layout.legend;
    CHECK(legend.entries.size() == 2);
    CHECK(legend.rect.width > 0);
    CHECK(legend.rect.right() <= 150);
    CHECK(legend.place != LegendPlace::AtEnds);
    // Straight lines in space are sampled with two points, and proven.
    CHECK(curveSamplesOf(figure.panels[0].drawn[1])->pointCount() == 2);
}

TEST_CASE("findings name the page's lines in short, and the plots with what sampling found") {
    const Figure figure = drawFigure(document({"f(x) = 1/x", "g(x) = 2 +", "x in [-1, 1]"}, {"f(x)", "g(x)"}));
    const auto findings = findingsOf(figure);
    const auto has = [&](const std::string& text, ItemKind kind) {
        return std::ranges::any_of(findings, [&](const Finding& each) {
            return each.said.sentence.find(text) != std::string::npos && each.where.kind == kind;
        });
    };
    CHECK(has("Line 2 has a problem.", ItemKind::Sheet));
    CHECK(has("f(x) has a pole at x = 0.", ItemKind::Plot));
    CHECK(has("“g(x)”: ", ItemKind::Plot));
    CHECK(findingsOf(drawFigure(document({"f(x) = x", "x in [0, 1]"}, {"f(x)"}))).empty());
}

TEST_CASE("nothing that is written on a sheet lies over something else that is") {
    for (const double width : {90.0, 150.0, 240.0}) {
        Document d = document({"f(x, a) = 1000 sin(x) exp(-a x), unit kPa, label \"Suction\"", "a in [0, 2]",
                               "x in [-3, 30], unit cm, label \"Height\""},
                              {"f(x, a) for a in {0.1, 0.2, 0.5}"});
        d.panels[0].title = "Suction over height";
        d.sheet.width = width;
        const Figure figure = drawFigure(d);
        std::vector<Rect> boxes;
        for (const SceneItem& item : figure.scene.items) {
            const auto* glyphs = std::get_if<GlyphItem>(&item);
            if (!glyphs) continue;
            Point low{1e9, 1e9}, high{-1e9, -1e9};
            for (const PlacedGlyph& glyph : glyphs->glyphs) { // from the baseline up to small letters' height
                low = {std::min(low.x, glyph.x), std::min(low.y, glyph.y - 0.4 * glyph.size)};
                high = {std::max(high.x, glyph.x + 0.3 * glyph.size), std::max(high.y, glyph.y)};
            }
            boxes.push_back({low.x, low.y, high.x - low.x, high.y - low.y});
        }
        REQUIRE(boxes.size() > 12);
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            for (std::size_t k = 0; k < i; ++k) {
                INFO("width " << width << ", items " << i << " and " << k);
                CHECK_FALSE(boxes[i].intersects(boxes[k]));
            }
        }
    }
}
