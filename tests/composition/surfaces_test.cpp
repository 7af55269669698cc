#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/pointing.h"
#include "figure/scale_settings.h"
#include "plots/plot_kind.h"
#include "plots/read_out.h"
#include "plots/surface_faces.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Document documentOf(const std::string& formula, Settings settings = {}) {
    Document document;
    document.page = {
        "f(x, y) = " + formula, "x in [-3, 3]", "y in [-2, 2]",     "S(u, v) = (sin(v) cos(u), sin(v) sin(u), cos(v))",
        "u in [0, 2pi]",        "v in [0, pi]", "w(x, y) = (x, y)", "c(t) = (0, 3t, 0)",
        "t in [-1, 1]"};
    Plot plot = plotOf("f(x, y)", "surface");
    plot.settings = std::move(settings);
    document.panels[0].plots = {plot};
    return document;
}

const ImageItem* pictureIn(const Figure& figure) {
    for (const SceneItem& item : figure.scene.items) {
        if (const auto* image = std::get_if<ImageItem>(&item); image && image->width > 200) return image;
    }
    return nullptr;
}

} // namespace

TEST_CASE("normals of surfaces are right to 1e-6") {
    Document document = documentOf("x^2/4 - sin(x y)");
    document.panels[0].equalScales = true;
    const Figure figure = drawFigure(document);
    const Drawn& drawn = figure.panels[0].drawn.at(0);
    const Frame& frame = figure.panels[0].frame();
    const auto normals = surfaceNormals(drawn, frame);
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    double worst = 0;
    for (std::size_t i = 0; i < samples.pointCount(); ++i) {
        const double x = samples.x[i], y = samples.y[i];
        if (std::abs(x) == 3 || std::abs(y) == 2) continue; // one-sided there
        const double zx = x / 2 - y * std::cos(x * y), zy = -x * std::cos(x * y),
                     size = std::sqrt(zx * zx + zy * zy + 1);
        const std::array<double, 3> n{-zx / size, -zy / size, 1 / size};
        const ViewAxes& axes = frame.space->axes;
        for (const auto& [axis, c] :
             {std::pair{&axes.right, 0U}, std::pair{&axes.up, 1U}, std::pair{&axes.towards, 2U}}) {
            double seen = 0;
            for (std::size_t k = 0; k < 3; ++k) seen += (*axis)[k] * n[k];
            worst = std::max(worst, std::abs(normals[i][c] - seen));
        }
    }
    CHECK(worst < 1e-6);
}

TEST_CASE("a surface covers its outline, in every look, and is read off under the pointer") {
    for (const char* shown : {"lit", "smooth", "cells", "mesh"}) {
        CAPTURE(shown);
        const Figure figure = drawFigure(documentOf("cos(x) cos(y)", {{"shown", std::string(shown)}}));
        CHECK(figure.finished);
        const ImageItem* picture = pictureIn(figure);
        REQUIRE(picture);
        const Frame& frame = figure.panels[0].frame();
        const Drawn& drawn = figure.panels[0].drawn[0];
        int whole = 0;
        for (double x = -2.8; x <= 2.8; x += 0.7) {
            for (double y = -1.8; y <= 1.8; y += 0.6) {
                const SeenPoint at = frame.seen({x, y, std::cos(x) * std::cos(y)});
                const auto column = static_cast<std::size_t>((at.x - picture->rect.x) * picture->width /
                                                             picture->rect.width),
                           row = static_cast<std::size_t>((at.y - picture->rect.y) * picture->height /
                                                          picture->rect.height);
                const auto opacity = [&](std::size_t y_, std::size_t x_) {
                    return picture->pixels[y_ * static_cast<std::size_t>(picture->width) + x_] >> 24;
                };
                const std::uint32_t covered = opacity(row, column);
                // At a fold the outline is right to the tolerance, about a dot.
                CHECK(std::max({covered, opacity(row, column - 1), opacity(row, column + 1), opacity(row - 1, column),
                                opacity(row + 1, column)}) > 0);
                if (covered < 255) continue; // at its outline
                ++whole;
                const auto found = surfaceAt(drawn, frame, {at.x, at.y});
                REQUIRE(found);
                // The place itself, or one nearer to the eye.
                CHECK(frame.seen(found->place).towards >= at.towards - 0.3);
                CHECK(found->place[2] == Approx(std::cos(found->place[0]) * std::cos(found->place[1])));
            }
        }
        CHECK(whole > 50);
    }
}

TEST_CASE("scales of a surface: its intervals, heights that can be limited, stretched and equal") {
    Document document = documentOf("10 exp(-x^2 - y^2)");
    const auto box = [&] { return *drawFigure(document).panels[0].frame().space; };
    CHECK(box().maps[0].low == -3);
    CHECK(box().maps[1].high == 2);
    CHECK(box().stretch[2] * box().maps[2].length == Approx(0.6 * std::min(6.0, box().stretch[1] * 4)));
    const double before = box().stretch[2];
    document.panels[0].view.height = 2;
    CHECK(box().stretch[2] == Approx(2 * before));
    document.panels[0].view.height = 1;
    document.panels[0].equalScales = true;
    CHECK(box().isPlain());
    document.panels[0].equalScales.reset();
    document.panels[0].z.limits = Limits{0, 4};
    const Figure cut = drawFigure(document);
    const Faces faces = surfaceFaces(cut.panels[0].drawn[0], cut.panels[0].frame(), {});
    // Nothing of it is above the ceiling: the top of the hill is cut away.
    CHECK_FALSE(std::ranges::any_of(faces.triangles, [&](const auto& t) {
        return std::ranges::any_of(t, [&](std::uint32_t i) {
            const Frame& frame = cut.panels[0].frame();
            const SeenPoint top = frame.seen({0, 0, 10});
            return std::hypot(faces.points[i].x - top.x, faces.points[i].y - top.y) < 0.5;
        });
    }));
}

TEST_CASE("a figure says by how much its heights are exaggerated, in whatever units they are") {
    Document document;
    document.page = {"x in [0, 4], unit km", "y in [0, 4], unit km", "f(x, y) = 25 x, unit m"};
    document.panels[0].plots = {plotOf("f(x, y)", "surface")};
    document.panels[0].view.elevation = 0;
    document.panels[0].view.azimuth = 0;
    document.panels[0].z.limits = Limits{0, 100};
    CHECK(drawFigure(document).panels[0].layout.space.stated.empty());
    set(document.panels[0].z.settings, exaggerationSetting, true);
    const auto stated = [&] {
        const Figure figure = drawFigure(document);
        const PanelLayout& layout = figure.panels[0].layout;
        // Seen from the front: mm on the sheet for a metre upwards, and to the right.
        const Frame& frame = layout.frame;
        const Point begin = frame.onSheet(Place{0, 0, 0}), right = frame.onSheet(Place{1, 0, 0}),
                    up = frame.onSheet(Place{0, 0, 1});
        const double times = (begin.y - up.y) / ((right.x - begin.x) / 1000);
        const std::string& words = layout.space.stated;
        REQUIRE(words.starts_with("vertical exaggeration × "));
        CHECK(std::stod(words.substr(std::string("vertical exaggeration × ").size())) == Approx(times).epsilon(0.005));
        CHECK(layout.space.exaggeration.width > 5);
        CHECK_FALSE(layout.rules[uprightScale].problem);
        return words;
    };
    CHECK(stated() == "vertical exaggeration × 24");
    document.panels[0].view.height = 0.5;
    CHECK(stated() == "vertical exaggeration × 12");
    document.panels[0].view.height = 1;
    document.panels[0].equalScales = true;
    CHECK(stated() == "vertical exaggeration × 1000"); // as many units are as long: a metre as a kilometre
    document.panels[0].equalScales.reset();
    document.page[1] = "y in [0, 16], unit km"; // drawn twice as long as the other side, not four times
    CHECK(stated().find(", × ") != std::string::npos);
    document.page[2] = "f(x, y) = 25 x, unit K";
    const Figure other = drawFigure(document);
    REQUIRE(other.panels[0].layout.rules[uprightScale].problem);
    CHECK(other.panels[0].layout.space.stated.empty());
}

TEST_CASE("of several surfaces the one that is seen is taken and read off") {
    Document document;
    document.page = {"x in [0, 4]", "y in [0, 4]", "f(x, y) = x/4", "g(x, y) = 2 - y/8"};
    document.panels[0].plots = {plotOf("f(x, y)", "surface"), plotOf("g(x, y)", "surface")};
    document.panels[0].z.limits = Limits{0, 2};
    for (const double elevation : {60.0, -60.0}) { // from above the second one is in front, from below the first
        document.panels[0].view.elevation = elevation;
        const Figure figure = drawFigure(document);
        const PanelFigure& panel = figure.panels[0];
        const std::size_t front = elevation > 0 ? 1 : 0;
        const Place place{2, 2, front == 1 ? 1.75 : 0.5};
        const Point at = panel.frame().onSheet(place);
        CHECK(itemAt(figure, at, 0.1) == ItemPath{ItemKind::Plot, 0, front, 0});
        const ReadOut read = readOutAt(panel.drawn, panel.frame(), at, 1);
        INFO(read.text);
        CHECK(read.text.find(front == 1 ? "z = 1.75" : "z = 0.5") != std::string::npos);
    }
}

TEST_CASE("the label of the upright scale stands off the surface, and up to format 5 where it stood") {
    Document document = documentOf("exp(-x^2 - y^2)");
    document.panels[0].z.label = "Height of the survey $z$ / m";
    const auto labelIn = [&](int format) {
        document.format = format;
        const Figure figure = drawFigure(document);
        const PanelFigure& panel = figure.panels[0];
        const auto& maps = panel.frame().space->maps;
        double line = HUGE_VAL; // of the upright scale: at the left corner of the floor
        for (const double x : {maps[0].low, maps[0].high}) {
            for (const double y : {maps[1].low, maps[1].high})
                line = std::min(line, panel.frame().onSheet(Place{x, y, maps[2].low}).x);
        }
        for (const Hit& hit : figure.hits) {
            if (hit.path == ItemPath{ItemKind::ScaleLabel, 0, uprightScale, 0})
                return std::pair{hit.rect.x, hit.rect.right() - line};
        }
        FAIL("no label");
        return std::pair{0.0, 0.0};
    };
    CHECK(labelIn(5).second > 15); // over the surface
    CHECK(labelIn(6).second == Approx(distance::labelOver).margin(0.01));
    CHECK(labelIn(6).first >= distance::edge - 0.01);
    document.panels[0].z.label = "Height above the datum of the survey of all wells in the valley $z$ / m";
    CHECK(labelIn(6).first == Approx(distance::edge).margin(0.01)); // on the paper first
}

TEST_CASE("seen edge on a floor's numbers stand below it") {
    Document document = documentOf("x^2 + y^2");
    document.panels[0].view.azimuth = 0;
    document.panels[0].view.elevation = 0;
    const Figure figure = drawFigure(document);
    const double floor = figure.panels[0].frame().onSheet(Place{0, 0, 0}).y;
    std::size_t numbers = 0;
    for (const Hit& hit : figure.hits) {
        if (hit.path.index != acrossScale ||
            (hit.path.kind != ItemKind::Scale && hit.path.kind != ItemKind::ScaleLabel))
            continue;
        CHECK(hit.rect.y > floor);
        ++numbers;
    }
    CHECK(numbers > 3);
}

TEST_CASE("a sphere over two parameters is round, and hides a curve through it") {
    Document document = documentOf("0x");
    document.panels[0].plots = {plotOf("S(u, v)", "surface"), plotOf("c(t)", "line")};
    const Figure figure = drawFigure(document);
    REQUIRE(figure.panels[0].problems[0].empty());
    REQUIRE(figure.panels[0].problems[1].empty());
    const Frame& frame = figure.panels[0].frame();
    const Point middle = frame.onSheet(Place{0, 0, 0});
    const double perUnit = frame.map.x.length / (frame.map.x.high - frame.map.x.low);
    const ImageItem* picture = pictureIn(figure);
    REQUIRE(picture);
    double covered = 0;
    for (const std::uint32_t dot : picture->pixels) covered += (dot >> 24) / 255.0;
    const double mm = picture->rect.width / picture->width;
    CHECK(covered * mm * mm == Approx(M_PI * perUnit * perUnit).epsilon(2e-3));
    // Of the curve, what is within the circle and behind it does not show.
    double shown = 0;
    for (const SceneItem& item : figure.scene.items) {
        const auto* stroke = std::get_if<StrokeItem>(&item);
        if (!stroke || stroke->colour == Colour{0x1f, 0x1d, 0x1a} || stroke->width < 0.35) continue;
        for (const auto& line : stroke->lines) {
            for (std::size_t i = 1; i < line.size(); ++i) {
                if (std::hypot(line[i].x - middle.x, line[i].y - middle.y) < 30)
                    shown += std::hypot(line[i].x - line[i - 1].x, line[i].y - line[i - 1].y);
            }
        }
    }
    const Point one = frame.onSheet(Place{0, -3, 0}), other = frame.onSheet(Place{0, 3, 0});
    const double whole = std::hypot(one.x - other.x, one.y - other.y);
    CHECK(shown < whole - perUnit);
    CHECK(shown > 0.2 * whole);
}

TEST_CASE("surfaces refuse what they cannot show, in one sentence") {
    Document document = documentOf("x y");
    document.panels[0].plots = {plotOf("w(x, y)", "surface")};
    CHECK(drawFigure(document).panels[0].problems[0].at(0).sentence ==
          "A surface is a height or a place in space, and this is a vector of the plane.");
    document.panels[0].plots = {plotOf("f(x, y)", "surface")};
    document.panels[0].plots[0].settings["coloured by"] = std::string("x +");
    CHECK_FALSE(drawFigure(document).panels[0].problems[0].empty());
    for (const char* formula : {"sqrt(-1 - x^2)", "2 + 0x", "1/x"}) {
        CAPTURE(formula);
        CHECK_NOTHROW(drawFigure(documentOf(formula)));
    }
    Document large = documentOf("x y");
    large.page[1] = "x in [-3, 3], count 3000";
    large.page[2] = "y in [-2, 2], count 3000";
    CHECK(drawFigure(large).panels[0].problems[0].at(0).sentence ==
          "The grid of x and y has 9000000 points; at most 4000000 are drawn as a surface.");
    Document edgeOn = documentOf("x y");
    edgeOn.panels[0].view = {0, 0};
    CHECK(drawFigure(edgeOn).finished);
    edgeOn.panels[0].view = {0, 90};
    CHECK(drawFigure(edgeOn).finished);
}
