#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "drawing/svg_writer.h"
#include "figure/scale_settings.h"
#include "make_document.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

std::vector<const StrokeItem*> strokes(const Scene& scene, double width) {
    std::vector<const StrokeItem*> found;
    for (const SceneItem& item : scene.items) {
        const auto* stroke = std::get_if<StrokeItem>(&item);
        if (stroke && std::abs(stroke->width - width) < 1e-9) found.push_back(stroke);
    }
    return found;
}

std::string words(const Scene& scene) {
    std::string all;
    for (const SceneItem& item : scene.items) {
        if (const auto* glyphs = std::get_if<GlyphItem>(&item)) {
            for (const PlacedGlyph& glyph : glyphs->glyphs) all += glyph.text;
            all += "|";
        }
    }
    return all;
}

std::size_t count(const std::string& text, const std::string& part) {
    std::size_t n = 0;
    for (auto at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++n;
    return n;
}

} // namespace

TEST_CASE("a curve stays inside its panel, however far its values go") {
    Document d = document({"f(x) = tan(x) + 1/(x - 1)^2", "x in [-6, 6]"}, {"f(x)"});
    d.panels[0].y.limits = Limits{-2, 3};
    d.panels[0].plots[0].settings["width"] = 0.77;
    const Figure figure = drawFigure(d);
    const auto curve = strokes(figure.scene, 0.77);
    REQUIRE(curve.size() == 1);
    const Rect room = figure.panels[0].frame().rect.grown(0.77);
    for (const auto& line : curve[0]->lines) {
        CHECK(line.size() >= 2);
        for (const Point& p : line) REQUIRE(room.contains(p));
    }
    CHECK(curve[0]->lines.size() >= 4); // broken at the poles
}

TEST_CASE("a plot's style reaches the sheet: colour, width, pattern") {
    Document d = document({"f(x) = x", "x in [0, 1]"}, {"f(x)", "2 f(x)", "3 f(x)", "4 f(x)"});
    d.panels[0].legend.place = LegendPlace::None;
    for (std::size_t i = 0; i < 4; ++i)
        d.panels[0].plots[i].settings = {{"colour", Colour{static_cast<std::uint8_t>(i), 100, 200}},
                                         {"width", 0.6},
                                         {"pattern", std::string(linePatterns[i])}};
    const Figure figure = drawFigure(d);
    const auto curves = strokes(figure.scene, 0.6);
    REQUIRE(curves.size() == 4);
    for (std::size_t i = 0; i < 4; ++i) {
        CHECK(curves[i]->colour == Colour{static_cast<std::uint8_t>(i), 100, 200});
        CHECK(curves[i]->dashes.size() == (i == 0 ? 0u : i == 3 ? 4u : 2u));
    }
}

TEST_CASE("the scales carry their numbers, the labels their words") {
    Document d = document({"v(t) = 2 t, unit m s-1, label \"Speed\"", "t in [0, 4], unit h"}, {"v(t)"});
    d.panels[0].title = "Fall of {v_0} $x^2$";
    const std::string text = words(drawFigure(d).scene);
    INFO(text);
    for (const char* part : {"|0|", "|2|", "|4|", "Speed v / (m s⁻¹)", "t / h", "Fall of {v_0} x2"})
        CHECK(text.find(part) != std::string::npos);
}

TEST_CASE("a grid is drawn only on request, behind the curves") {
    Document d = document({"f(x) = x", "x in [0, 1]"}, {"f(x)"});
    CHECK(strokes(drawFigure(d).scene, 0.12).empty());
    coulter::set(d.panels[0].x.settings, gridSetting, true);
    coulter::set(d.panels[0].y.settings, gridSetting, true);
    const Figure figure = drawFigure(d);
    REQUIRE(strokes(figure.scene, 0.12).size() == 1);
    CHECK(strokes(figure.scene, 0.12)[0]->lines.size() ==
          figure.panels[0].layout.xTicks.places.size() + figure.panels[0].layout.yTicks.places.size());
    CHECK(std::get_if<StrokeItem>(&figure.scene.items.front()) == strokes(figure.scene, 0.12)[0]);
}

TEST_CASE("no grid line runs through the legend") {
    Document d = document({"f(x, a) = a x", "x in [0, 1]", "a in [0, 3]"}, {"f(x, a) for a in {1, 2}"});
    d.panels[0].legend.place = LegendPlace::TopLeft;
    coulter::set(d.panels[0].y.settings, gridSetting, true);
    const Figure figure = drawFigure(d);
    const auto* backing = std::get_if<FillItem>(&figure.scene.items[1]); // right after the grid, before the curves
    REQUIRE(backing);
    CHECK(backing->polygons[0][0].x < figure.panels[0].layout.legend.rect.x);
    CHECK(backing->polygons[0][2].y > figure.panels[0].layout.legend.rect.bottom());
    coulter::set(d.panels[0].y.settings, gridSetting, false);
    CHECK_FALSE(std::get_if<FillItem>(&drawFigure(d).scene.items[1]));
}

TEST_CASE("large and small numbers share a power of ten, said once") {
    const std::string large = words(drawFigure(document({"f(x) = 2e6 x", "x in [0, 1]"}, {"f(x)"})).scene);
    CHECK(large.find("×106") != std::string::npos);
    CHECK(large.find("2000000") == std::string::npos);
    CHECK(words(drawFigure(document({"f(x) = x", "x in [0, 1e-6]"}, {"f(x)"})).scene).find("×10−6") !=
          std::string::npos);
}

TEST_CASE("a legend names curves by hand or by what is drawn, and leaves out those without a name") {
    Document d = document({"f(x) = x", "g(x) = x", "h(x) = x", "x in [0, 1]"}, {"f(x)", "g(x)", "h(x)"});
    d.panels[0].legend.place = LegendPlace::TopLeft;
    d.panels[0].plots[1].name = "by {hand} $x^2$";
    d.panels[0].plots[2].name = "";
    const Figure figure = drawFigure(d);
    CHECK(figure.panels[0].layout.legend.entries.size() == 2);
    const std::string text = words(figure.scene);
    CHECK(text.find("|f(x)|") != std::string::npos);
    CHECK(text.find("by {hand} x2") != std::string::npos);
    CHECK(text.find("|h(x)|") == std::string::npos);
}

TEST_CASE("every place of the legend keeps it on the sheet") {
    for (std::size_t place = 0; place < legendPlaceNames.size(); ++place) {
        Document d = document({"f(x, a) = a x", "x in [0, 1]", "a in [0, 3]"}, {"f(x, a) for a in {1, 1.5, 2}"});
        d.panels[0].legend.place = static_cast<LegendPlace>(place);
        const Figure figure = drawFigure(d);
        INFO(legendPlaceNames[place]);
        const Rect& rect = figure.panels[0].layout.legend.rect;
        CHECK(rect.x >= 0);
        CHECK(rect.right() <= d.sheet.width);
        CHECK(rect.bottom() <= d.sheet.height);
        for (const SceneItem& item : figure.scene.items) {
            const auto* glyphs = std::get_if<GlyphItem>(&item);
            if (!glyphs) continue;
            for (const PlacedGlyph& glyph : glyphs->glyphs) CHECK(glyph.x < d.sheet.width - 1);
        }
    }
}

TEST_CASE("an empty document is an empty panel, not a crash") {
    const Figure figure = drawFigure(Document{});
    CHECK(figure.panels[0].drawn.empty());
    CHECK(figure.finished);
    CHECK(figure.panels[0].frame().rect.width > 50);
}

TEST_CASE("limits set by hand are kept to the last place, and decide what is sampled") {
    Document d = document({"f(x) = sin(x)", "x in [0, 100]"}, {"f(x)"});
    d.panels[0].x.limits = Limits{10.25, 11.125};
    const Figure figure = drawFigure(d);
    CHECK(figure.panels[0].frame().map.x.low == 10.25);
    CHECK(figure.panels[0].frame().map.x.high == 11.125);
    CHECK(curveSamplesOf(figure.panels[0].drawn[0])->stretches[0].x.front() == 10.25);
    CHECK(curveSamplesOf(figure.panels[0].drawn[0])->stretches[0].x.back() == 11.125);
    d.panels[0].x.limits = Limits{200, 300}; // nothing of the curve is there
    CHECK(curveSamplesOf(drawFigure(d).panels[0].drawn[0])->stretches.empty());
}

TEST_CASE("the SVG is well formed, uses each letter once, and can be read by those who do not see") {
    Document d = document({"f(x) = x", "x in [0, 1], label \"A <b> & c\""}, {"f(x)"});
    d.panels[0].title = "aaaa";
    const std::string svg = writeSvg(drawFigure(d).scene, "aaaa", "{\"a\": \"<&>\"}");
    CHECK(count(svg, "<svg") == 1);
    CHECK(count(svg, "</svg>") == 1);
    CHECK(count(svg, "<g ") == count(svg, "</g>"));
    CHECK(svg.find("width=\"150mm\" height=\"95mm\" viewBox=\"0 0 150 95\"") != std::string::npos);
    CHECK(svg.find("aria-label=\"A &lt;b&gt; &amp; c x\"") != std::string::npos);
    CHECK(svg.find("{&quot;a&quot;: &quot;&lt;&amp;&gt;&quot;}") != std::string::npos);
    CHECK(count(svg, "<use") > count(svg, "<path id="));
    for (auto at = svg.find("id=\"g"); at != std::string::npos; at = svg.find("id=\"g", at + 1)) {
        const std::string id = svg.substr(at + 4, svg.find('"', at + 4) - at - 4);
        CHECK(count(svg, "id=\"" + id + "\"") == 1);
        CHECK(count(svg, "#" + id + "\"") >= 1);
    }
}

TEST_CASE("drawing can be stopped") {
    std::stop_source source;
    source.request_stop();
    const Figure figure = drawFigure(document({"f(x) = sin(1000 x)", "x in [0, 100]"}, {"f(x)"}), source.get_token());
    CHECK_FALSE(figure.finished);
}
