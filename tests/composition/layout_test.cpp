#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/legend_place.h"
#include "drawing/cairo_painter.h"
#include "drawing/svg_writer.h"
#include "make_document.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

TEST_CASE("nothing on a sheet is cut off or overlaps") {
    for (const double width : {40.0, 70.0, 150.0, 300.0}) {
        for (const double letters : {6.0, 9.0, 14.0}) {
            Document d = document({"f(x) = 100000 sin(x), unit kPa, label \"Suction\"", "g(x, a) = a x", "a in [0, 2]",
                                   "x in [-30, 30], unit cm, label \"Height\""},
                                  {"f(x)"});
            d.panels[0].title = "Suction";
            d.sheet.width = width;
            d.sheet.height = 0.7 * width;
            d.sheet.textSize = letters;
            const Figure figure = drawFigure(d);
            INFO("width " << width << ", letters " << letters);
            const Rect& frame = figure.panels[0].frame().rect;
            CHECK(frame.x > 0);
            CHECK(frame.right() <= width);
            for (const SceneItem& item : figure.scene.items) {
                if (const auto* glyphs = std::get_if<GlyphItem>(&item)) {
                    for (const PlacedGlyph& glyph : glyphs->glyphs) {
                        if (width < 70 && letters > 9) continue; // letters that no layout could fit
                        CHECK(glyph.x >= 0);
                        CHECK(glyph.x < width);
                        CHECK(glyph.y > 0);
                        CHECK(glyph.y < d.sheet.height);
                    }
                }
            }
            const PanelLayout& layout = figure.panels[0].layout;
            const double apart = layout.xTicks.step / (layout.frame.map.x.high - layout.frame.map.x.low) * frame.width;
            CHECK((layout.xTicks.places.size() < 2 || apart > 3));
        }
    }
}

TEST_CASE("the legend stands where it covers nothing, or outside") {
    const std::vector<std::string> page{"f(x, a) = a x^2", "x in [0, 1]", "a in [0, 3]"};
    Document free = document(page, {"f(x, a) for a in {1, 1.01}"}); // ends too near for labels there
    Figure figure = drawFigure(free);
    CHECK(figure.panels[0].layout.legend.place == LegendPlace::TopLeft);
    Document full = document({"f(x, a) = sin(40 x + a)", "x in [0, 1]", "a in [0, 3]"}, {"f(x, a) for a in {1, 2, 3}"});
    full.panels[0].plots[0].of = "f(x, a) for a in {1, 1.001, 1.002}";
    figure = drawFigure(full);
    CHECK(figure.panels[0].layout.legend.place == LegendPlace::Outside);
    CHECK(figure.panels[0].layout.legend.rect.x >= figure.panels[0].frame().rect.right());
    CHECK(figure.panels[0].layout.legend.rect.right() <= full.sheet.width);
    Document ends = document(page, {"f(x, a) for a in {1, 2, 3}"});
    figure = drawFigure(ends);
    CHECK(figure.panels[0].layout.legend.place == LegendPlace::AtEnds);
    ends.panels[0].legend.place = LegendPlace::None;
    CHECK(drawFigure(ends).panels[0].layout.legend.entries.empty());
}

TEST_CASE("labels at the ends move apart where they would touch") {
    LegendLayout legend;
    legend.rowHeight = 4;
    const auto labels = endLabels(legend, {10, 11, 40, 10.5}, 60);
    REQUIRE(labels.size() == 4);
    for (std::size_t i = 1; i < labels.size(); ++i) CHECK(labels[i].y - labels[i - 1].y >= 4 - 1e-9);
    CHECK(labels[0].entry == 0);
    CHECK(labels[1].entry == 3);
    CHECK(labels.back().y == 40);
}

TEST_CASE("automatic limits show a curve well, and a pole does not flatten it") {
    CHECK(drawFigure(document({"f(x) = 3", "x in [0, 1]"}, {"f(x)"})).panels[0].frame().map.y.low < 3);
    const AxisMap sine = drawFigure(document({"f(x) = sin(x)", "x in [0, 10]"}, {"f(x)"})).panels[0].frame().map.y;
    CHECK(sine.low < -1);
    CHECK(sine.low > -1.6);
    const AxisMap pole = drawFigure(document({"f(x) = 1/x", "x in [-5, 5]"}, {"f(x)"})).panels[0].frame().map.y;
    CHECK(pole.high < 30);
    const AxisMap positive = drawFigure(document({"f(x) = x^2", "x in [0, 2]"}, {"f(x)"})).panels[0].frame().map.y;
    CHECK(positive.low == 0);
    CHECK(curveSamplesOf(drawFigure(document({"f(x) = sqrt(-1 - x^2)", "x in [0, 2]"}, {"f(x)"})).panels[0].drawn[0])
              ->stretches.empty());
}

TEST_CASE("a figure of several plots marks what can be pointed at") {
    Document d = document({"f(x) = x", "g(x) = x^2", "x in [0, 1], unit m"}, {"f(x)", "g(x)"});
    d.panels[0].title = "Two";
    const Figure figure = drawFigure(d);
    for (const ItemPath& path : {ItemPath{ItemKind::Panel, 0, 0, 0}, ItemPath{ItemKind::Title, 0, 0, 0},
                                 ItemPath{ItemKind::Scale, 0, acrossScale, 0}, ItemPath{ItemKind::Scale, 0, upScale, 0},
                                 ItemPath{ItemKind::ScaleLabel, 0, acrossScale, 0}}) {
        CHECK(std::ranges::any_of(figure.hits, [&](const Hit& hit) { return hit.path == path; }));
    }
}

TEST_CASE("every backend gives the same bytes for the same scene, in any order of work") {
    const Document d =
        document({"T(z, t) = exp(-z) cos(t - z)", "t in [0, 7]", "z in [0, 2]"}, {"T(z, t) for z in {0, 1, 2}"});
    const Scene scene = drawFigure(d).scene, again = drawFigure(d).scene;
    const std::string svg = writeSvg(scene, "title", "{}"), pdf = paintPdf(scene, "title");
    paintRaster(drawFigure(document({"f(x) = x", "x in [0, 1]"}, {"f(x)"})).scene, 3);
    CHECK(writeSvg(again, "title", "{}") == svg);
    CHECK(paintPdf(again, "title") == pdf);
    CHECK(paintRaster(again, 4).pixels == paintRaster(scene, 4).pixels);
    for (const char* word : {"nan", "NaN", "inf"}) CHECK(svg.find(std::string(" ") + word) == std::string::npos);
    CHECK(xmlEscaped("<a & \"b\">") == "&lt;a &amp; &quot;b&quot;&gt;");
}

TEST_CASE("a raster has the sheet's size and holds the drawing") {
    const Document d = document({"f(x) = x", "x in [0, 1]"}, {"f(x)"});
    const Raster raster = paintRaster(drawFigure(d).scene, 2);
    CHECK(raster.width == 300);
    CHECK(raster.height == 190);
    const auto dark = std::ranges::count_if(raster.pixels, [](std::uint32_t pixel) { return (pixel & 0xff) < 128; });
    CHECK(dark > 100);
    CHECK(dark < 20000);
}

TEST_CASE("grids on the page are drawn as they are; grids that cannot be are a problem of the plot") {
    const Figure good = drawFigure(document({"f(x) = x", "x in [0, 1], count 11"}, {"f(x)"}));
    CHECK(curveSamplesOf(good.panels[0].drawn[0])->pointCount() == 11);
    const Figure bad = drawFigure(document({"f(x) = x", "x in [0, 1], count 1e12"}, {"f(x)"}));
    REQUIRE(bad.panels[0].problems[0].size() == 1);
    CHECK(bad.panels[0].problems[0][0].sentence.find("10 million") != std::string::npos);
    CHECK(bad.panels[0].drawn.empty());
}

TEST_CASE("a field's figure is the same dots in every format, and the same every time") {
    Document document;
    document.page = {"g(x, y) = sin(x) y", "x in [0, 6]", "y in [-1, 1]"};
    document.panels[0].plots = {plotOf("g(x, y)", "heatmap")};
    document.sheet.width = 80;
    document.sheet.height = 60;
    const Figure a = drawFigure(document), b = drawFigure(document);
    const std::string svg = writeSvg(a.scene, "", "");
    CHECK(svg == writeSvg(b.scene, "", ""));
    CHECK(svg.find("data:image/png;base64,iVBORw0KGgo") != std::string::npos);
    CHECK(paintPdf(a.scene, "") == paintPdf(b.scene, ""));
    // At the sheet's own resolution every dot of the field is a dot of the picture.
    const ImageItem* image = nullptr;
    for (const SceneItem& item : a.scene.items) {
        if (std::holds_alternative<ImageItem>(item) && !image) image = &std::get<ImageItem>(item);
    }
    REQUIRE(image);
    const double perMm = document.sheet.resolution / 25.4;
    const Raster raster = paintRaster(a.scene, perMm);
    const auto left = static_cast<std::size_t>(std::lround(image->rect.x * perMm)),
               top = static_cast<std::size_t>(std::lround(image->rect.y * perMm));
    std::size_t same = 0, all = 0;
    for (std::size_t y = 3; y + 3 < static_cast<std::size_t>(image->height); y += 5) {
        for (std::size_t x = 3; x + 3 < static_cast<std::size_t>(image->width); x += 5) {
            ++all;
            same += image->pixels[y * static_cast<std::size_t>(image->width) + x] ==
                    raster.pixels[(top + y) * static_cast<std::size_t>(raster.width) + left + x];
        }
    }
    CHECK(same > 0.99 * static_cast<double>(all));
}

TEST_CASE("a legend stands where no note is, from the fifth format on") {
    Document d = document({"f(x) = x", "g(x) = 2 x", "x in [0, 10]"}, {"f(x)", "g(x)"});
    d.panels[0].plots[0].name = "a long enough name of a curve";
    d.panels[0].plots[1].name = "another one of that length";
    const auto place = [](const Document& of) { return drawFigure(of).panels[0].layout.legend.place; };
    REQUIRE(place(d) == LegendPlace::TopLeft);
    d.panels[0].notes = {{"text", "here", {{"1", "19"}}, {}}};
    CHECK(place(d) == LegendPlace::BottomRight);
    d.panels[0].notes.push_back({"text", "there", {{"9", "1"}}, {}});
    CHECK(place(d) == LegendPlace::Outside);
    d.format = 4;
    CHECK(place(d) == LegendPlace::TopLeft);
}
