// Pictures, grids and meshes on the sheet.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "make_document.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

/// Two by two numbers, 0 but at the upper right, whose dots are so wide.
Document picture(const std::string& line, const std::string& of = "p(x, y)") {
    Document d = document({line, "x in [-6, 6]", "y in [-6, 6]"}, {});
    DataTable table;
    table.source = "a.tif";
    table.columns = {{"", "", "", std::make_shared<const std::vector<double>>(std::vector<double>{0, 0, 0, 1})}};
    const auto places = std::make_shared<const std::vector<double>>(std::vector<double>{0.5, 1.5});
    table.axes = {{"", "", "", places, true}, {"", "", "", places, true}};
    d.tables.put(table);
    d.panels[0].plots = {plotOf(of, "heatmap")};
    d.panels[0].x.limits = AxisLimits({-6, 6});
    d.panels[0].y.limits = AxisLimits({-6, 6});
    d.sheet.resolution = 5080; // 200 dots for each mm
    d.sheet.width = 60;
    d.sheet.height = 40;
    return d;
}

} // namespace

TEST_CASE("the edges of a picture's dots lie where pitch and origin say, to a hundredth of a millimetre") {
    const Figure figure = drawFigure(picture("p(x, y) from \"a.tif\", pitch 3.3, 2.6, origin -4.1, -2.2"));
    REQUIRE(figure.panels[0].problems[0].empty());
    const ImageItem* image = nullptr;
    for (const SceneItem& item : figure.scene.items) {
        if (const auto* each = std::get_if<ImageItem>(&item); each && (!image || each->width > image->width))
            image = each;
    }
    REQUIRE(image);
    const Frame& frame = figure.panels[0].frame();
    const auto mm = [&](int x, int y) {
        return Point{image->rect.x + (x + 0.5) * image->rect.width / image->width,
                     image->rect.y + (y + 0.5) * image->rect.height / image->height};
    };
    const auto dot = [&](int x, int y) {
        return image->pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(image->width) +
                             static_cast<std::size_t>(x)];
    };
    // Along a row through the upper two dots: paper, 0, 1, paper; upwards through the right two.
    const Point right = frame.onSheet(-4.1 + 1.5 * 3.3, -2.2 + 1.5 * 2.6);
    const int row = static_cast<int>((right.y - image->rect.y) / image->rect.height * image->height),
              column = static_cast<int>((right.x - image->rect.x) / image->rect.width * image->width);
    std::vector<double> across, up;
    for (int x = 1; x < image->width; ++x) {
        if (dot(x, row) != dot(x - 1, row)) across.push_back((mm(x - 1, row).x + mm(x, row).x) / 2);
    }
    for (int y = 1; y < image->height; ++y) {
        if (dot(column, y) != dot(column, y - 1)) up.push_back((mm(column, y - 1).y + mm(column, y).y) / 2);
    }
    REQUIRE(across.size() == 3);
    REQUIRE(up.size() == 3);
    for (int k = 0; k < 3; ++k) {
        CHECK(across[static_cast<std::size_t>(k)] == Approx(frame.onSheet(-4.1 + 3.3 * k, 0).x).margin(0.01));
        CHECK(up[static_cast<std::size_t>(2 - k)] == Approx(frame.onSheet(0, -2.2 + 2.6 * k).y).margin(0.01));
    }
}

TEST_CASE("a measured field is looked at where it was measured, unless its variables or its arguments say otherwise") {
    const auto samplesOf = [](Document d) {
        const Figure figure = drawFigure(d);
        INFO((figure.panels[0].problems[0].empty() ? "" : describe(figure.panels[0].problems[0][0])));
        REQUIRE(figure.panels[0].problems[0].empty());
        return *fieldSamplesOf(figure.panels[0].drawn[0]);
    };
    const std::string line = "p(x, y) from \"a.tif\", pitch 3, origin -3, -3";
    Document d = picture(line, "2 p(x, y)");
    d.sheet.resolution = 100;
    CHECK(samplesOf(d).columns == std::vector<double>{-1.5, 1.5});
    d.panels[0].plots[0].of = "p(x, y)/[x > 0]"; // what is divided by zero is undefined
    const FieldSamples masked = samplesOf(d);
    CHECK(std::isnan(masked.values[0][0]));
    CHECK(masked.values[0][3] == 1);
    d.panels[0].plots[0].of = "p(y, x)"; // still its own variables
    CHECK(samplesOf(d).columns.size() == 2);
    d.panels[0].plots[0].of = "p(x + y, y)";
    CHECK(samplesOf(d).isMesh());
    d.page[1] = "x in [-6, 6], count 7";
    d.panels[0].plots[0].of = "p(x, y)";
    CHECK(samplesOf(d).columns.size() == 7);
    d.page[1] = "x in [20, 30]";
    CHECK(drawFigure(d).panels[0].problems[0][0].sentence.find("No place of the measured field") != std::string::npos);
}

TEST_CASE("a legend outside stands beyond the colour bar") {
    Document d = picture("p(x, y) from \"a.tif\", pitch 3, origin -3, -3");
    d.sheet.resolution = 100;
    d.sheet.width = 120;
    d.page.push_back("f(x) = x");
    Plot line = plotOf("f(x)");
    line.name = "a line";
    d.panels[0].plots.push_back(line);
    d.panels[0].legend.place = LegendPlace::Outside;
    const PanelLayout layout = drawFigure(d).panels[0].layout;
    CHECK(layout.legend.rect.x > layout.colours.rect.right());
    CHECK(layout.legend.rect.right() < 120);
}
