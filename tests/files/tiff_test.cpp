#include "composition/draw_figure.h"
#include "data/tiff_source.h"
#include "drawing/cairo_painter.h"
#include "files/export.h"
#include "files/recipe.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document documentOf(double width, double height, double resolution) {
    Document d;
    d.page = {"f(x) = sin(x)", "x in [0, 9]", "# läßt sich – nachlesen"};
    d.panels[0].plots = {plotOf("f(x)")};
    d.sheet.width = width;
    d.sheet.height = height;
    d.sheet.resolution = resolution;
    return d;
}

/// The dots of a TIFF by libtiff's own way of seeing pictures: 0xAABBGGRR, the lowest row first.
struct Seen {
    std::uint32_t width = 0, height = 0;
    std::uint16_t samples = 0;
    float resolution = 0;
    std::vector<std::uint32_t> dots;
};
Seen seen(const std::string& bytes) {
    TiffSource source{bytes};
    const Tiff tiff = openTiff(source);
    REQUIRE(tiff);
    Seen found;
    std::uint16_t unit = 0;
    TIFFGetField(tiff.get(), TIFFTAG_IMAGEWIDTH, &found.width);
    TIFFGetField(tiff.get(), TIFFTAG_IMAGELENGTH, &found.height);
    TIFFGetField(tiff.get(), TIFFTAG_SAMPLESPERPIXEL, &found.samples);
    TIFFGetField(tiff.get(), TIFFTAG_XRESOLUTION, &found.resolution);
    TIFFGetField(tiff.get(), TIFFTAG_RESOLUTIONUNIT, &unit);
    CHECK(unit == RESUNIT_INCH);
    found.dots.resize(std::size_t{found.width} * found.height);
    REQUIRE(TIFFReadRGBAImage(tiff.get(), found.width, found.height, found.dots.data(), 1) == 1);
    return found;
}

} // namespace

TEST_CASE("a TIFF has the dots of the sheet at its resolution, and is rebuilt byte for byte") {
    for (const double resolution : {72.0, 300.0}) {
        const Document d = documentOf(100, 60, resolution);
        const Exported tiff = exportFigure(d, *findFormat("tiff"));
        REQUIRE(tiff.bytes);
        const Seen found = seen(*tiff.bytes);
        const Raster raster = paintRaster(drawFigure(d).scene, resolution / 25.4);
        REQUIRE(found.width == static_cast<std::uint32_t>(raster.width));
        REQUIRE(found.height == static_cast<std::uint32_t>(raster.height));
        CHECK(found.samples == 3);
        CHECK(found.resolution == Approx(resolution));
        std::size_t different = 0;
        for (std::uint32_t y = 0; y < found.height; ++y) {
            for (std::uint32_t x = 0; x < found.width; ++x) {
                const std::uint32_t dot = found.dots[std::size_t{found.height - 1 - y} * found.width + x],
                                    wanted = raster.pixels[std::size_t{y} * found.width + x];
                if (TIFFGetR(dot) != (wanted >> 16 & 255) || TIFFGetG(dot) != (wanted >> 8 & 255) ||
                    TIFFGetB(dot) != (wanted & 255))
                    ++different;
            }
        }
        CHECK(different == 0);
        CHECK_FALSE(verifyFigure(*tiff.bytes));
        CHECK(*findRecipe(*tiff.bytes).recipe == writeRecipe(d));
        CHECK(*exportFigure(d, *findFormat("tif")).bytes == *tiff.bytes);
    }
}

TEST_CASE("a TIFF without paper lets what lies behind show through") {
    Document d = documentOf(60, 40, 100);
    d.sheet.settings["paper"] = std::string("none");
    const Exported tiff = exportFigure(d, *findFormat("tiff"));
    REQUIRE(tiff.bytes);
    const Seen found = seen(*tiff.bytes);
    CHECK(found.samples == 4);
    CHECK(TIFFGetA(found.dots[0]) == 0);
    CHECK_FALSE(verifyFigure(*tiff.bytes));
}

TEST_CASE("a TIFF too large for dots, one of another hand and a damaged one are refused in a sentence") {
    CHECK(exportFigure(documentOf(2000, 2000, 2400), *findFormat("tiff")).problem.sentence.find("million dots") !=
          std::string::npos);
    TiffSink sink;
    {
        const Tiff tiff = startTiff(sink);
        TIFFSetField(tiff.get(), TIFFTAG_IMAGEWIDTH, 2);
        TIFFSetField(tiff.get(), TIFFTAG_IMAGELENGTH, 1);
        TIFFSetField(tiff.get(), TIFFTAG_BITSPERSAMPLE, 8);
        TIFFSetField(tiff.get(), TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_MINISBLACK);
        unsigned char row[] = {1, 2};
        REQUIRE(TIFFWriteScanline(tiff.get(), row, 0) == 1);
    }
    CHECK(findRecipe(sink.bytes).problem.sentence == "This figure has no recipe inside.");
    const std::string good = *exportFigure(documentOf(60, 40, 100), *findFormat("tiff")).bytes;
    for (std::size_t length = 8; length < good.size(); length += good.size() / 40)
        CHECK(verifyFigure(good.substr(0, length)));
}
