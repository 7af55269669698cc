#include "drawing/cairo_painter.h"
#include "drawing/scene_extent.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include "composition/draw_figure.h"
#include "data/attach_tables.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

/// What is not white of a picture, in dots: left, top, right, bottom, the last ones counted in.
std::array<int, 4> inkOf(const Raster& raster) {
    std::array<int, 4> ink{raster.width, raster.height, -1, -1};
    for (int y = 0; y < raster.height; ++y) {
        for (int x = 0; x < raster.width; ++x) {
            const auto at =
                static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.width) + static_cast<std::size_t>(x);
            if ((raster.pixels[at] & 0xffffffU) == 0xffffffU) continue;
            ink = {std::min(ink[0], x), std::min(ink[1], y), std::max(ink[2], x), std::max(ink[3], y)};
        }
    }
    return ink;
}

Document demo(const std::string& name) {
    const fs::path path = fs::path(std::getenv("COULTER_SOURCE")) / "demos" / name / (name + ".coulter");
    RecipeRead read = readRecipe(*readFile(path).bytes);
    REQUIRE(read.document);
    attachTables(*read.document, path.parent_path());
    return *read.document;
}

} // namespace

TEST_CASE("the extent of a figure is that of its ink, to a tenth of a millimetre") {
    constexpr double perMm = 20;
    for (const char* name : {"valve", "plume", "hill", "grains", "retention", "wave-poles", "drawdown-cone", "flow"}) {
        INFO(name);
        const Scene scene = drawFigure(demo(name)).scene;
        const Rect extent = extentOf(scene);
        const auto ink = inkOf(paintRaster(scene, perMm));
        CHECK(extent.x == Approx(ink[0] / perMm).margin(0.1));
        CHECK(extent.y == Approx(ink[1] / perMm).margin(0.1));
        CHECK(extent.right() == Approx((ink[2] + 1) / perMm).margin(0.1));
        CHECK(extent.bottom() == Approx((ink[3] + 1) / perMm).margin(0.1));
    }
}

TEST_CASE("a file may hold no more than what is drawn, with a margin, in every format, and is rebuilt") {
    Document d;
    d.page = {"f(x) = sin(x)", "x in [0, 9]"};
    d.panels[0].plots = {plotOf("f(x)")};
    d.sheet.width = 200;
    d.sheet.height = 150;
    d.sheet.resolution = 254; // ten dots a mm
    d.panels[0].title = "Narrow";
    d.sheet.settings["extent"] = std::string("what is drawn");
    for (const double margin : {0.0, 3.5}) {
        d.sheet.settings["margin"] = margin;
        const Scene whole = drawFigure(d).scene, cropped = croppedToContent(whole, margin);
        CHECK(cropped.width == Approx(extentOf(whole).width + 2 * margin));
        if (margin == 0) CHECK(cropped.width < whole.width);
        const Rect inside = extentOf(cropped);
        CHECK(inside.x == Approx(margin).margin(1e-9));
        CHECK(inside.bottom() == Approx(cropped.height - margin));
        const auto ink = inkOf(paintRaster(cropped, 10));
        CHECK(ink[0] == Approx(10 * margin).margin(2));
        CHECK(ink[3] == Approx(10 * (cropped.height - margin) - 1).margin(2));
        for (const ExportFormat& format : exportFormats()) {
            INFO(format.name);
            const Exported file = exportFigure(d, format);
            REQUIRE(file.bytes);
            CHECK_FALSE(verifyFigure(*file.bytes));
        }
        const std::string svg = *exportFigure(d, *findFormat("svg")).bytes;
        CHECK(svg.find("width=\"200mm\"") == std::string::npos);
    }
}

TEST_CASE("an empty sheet has no extent, and stays whole") {
    Scene scene;
    scene.width = 30;
    scene.height = 20;
    CHECK(extentOf(scene).width == 0);
    CHECK(croppedToContent(scene, 1).width == 30);
    scene.items.emplace_back(StrokeItem{{{{10, 5}, {12, 8}}}, {}, 1, {}});
    CHECK(extentOf(scene).x == Approx(9.5));
    CHECK(extentOf(scene).right() == Approx(12.5));
    scene.items.emplace_back(FillItem{{{{-5, 3}, {40, 3}, {40, 4}}}, {}});
    CHECK(extentOf(scene).width == 30); // what lies off the sheet is cut
}
