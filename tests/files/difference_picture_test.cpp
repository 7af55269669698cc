// A picture of what differs between a figure and what its recipe gives.
#include "composition/draw_figure.h"
#include "files/export.h"
#include "files/figure_difference.h"
#include "files/formats.h"
#include "files/recipe.h"

#include <catch2/catch.hpp>
#include <png.h>

using namespace coulter;

namespace {

Document wave(const char* factor) {
    Document document;
    document.page = {std::string("f(x) = ") + factor + " sin(x)", "x in [0, 6]"};
    document.panels[0].plots = {plotOf("f(x)")};
    document.panels[0].y.limits = Limits{-2, 2};
    document.sheet = {60, 45, 8, 0.05, 100};
    return document;
}

struct Picture {
    std::uint32_t width = 0, height = 0;
    std::vector<unsigned char> rgb;
    std::size_t of(int red, int green, int blue) const {
        std::size_t count = 0;
        for (std::size_t i = 0; i < rgb.size(); i += 3)
            count += rgb[i] == red && rgb[i + 1] == green && rgb[i + 2] == blue;
        return count;
    }
};

Picture decoded(const std::string& bytes) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    REQUIRE(png_image_begin_read_from_memory(&image, bytes.data(), bytes.size()));
    image.format = PNG_FORMAT_RGB;
    Picture picture{image.width, image.height, std::vector<unsigned char>(PNG_IMAGE_SIZE(image))};
    REQUIRE(png_image_finish_read(&image, nullptr, picture.rgb.data(), 0, nullptr));
    return picture;
}

} // namespace

TEST_CASE("a picture of the difference has just the dots in red that differ") {
    const ExportFormat& png = *findFormat("png");
    const std::string one = *exportFigure(wave("1"), png).bytes, other = *exportFigure(wave("1.5"), png).bytes;
    const Picture a = decoded(one), b = decoded(other), difference = decoded(pictureOfDifference(one, other));
    REQUIRE(difference.width == a.width);
    REQUIRE(difference.height == a.height);
    std::size_t different = 0;
    for (std::size_t i = 0; i < a.rgb.size(); i += 3) different += !std::equal(&a.rgb[i], &a.rgb[i] + 3, &b.rgb[i]);
    CHECK(different > 100);
    CHECK(difference.of(0xc0, 0x20, 0x30) == different);
    CHECK(decoded(pictureOfDifference(one, one)).of(0xc0, 0x20, 0x30) == 0);
    CHECK(pictureOfDifference(one, *exportFigure(wave("1"), *findFormat("svg")).bytes).empty());
    Document larger = wave("1");
    larger.sheet.width = 61;
    CHECK(pictureOfDifference(one, *exportFigure(larger, png).bytes).empty());
}

TEST_CASE("a figure whose dots are not those of its recipe is shown to differ") {
    const ExportFormat& png = *findFormat("png");
    const std::string changed = png.write(drawFigure(wave("1.5")), writeRecipe(wave("1")));
    std::string picture;
    const auto problem = verifyFigure(changed, {}, {}, &picture);
    REQUIRE(problem);
    CHECK(problem->sentence.find("dots differ") != std::string::npos);
    REQUIRE_FALSE(picture.empty());
    CHECK(decoded(picture).of(0xc0, 0x20, 0x30) > 100);
    picture.clear();
    CHECK_FALSE(verifyFigure(*exportFigure(wave("1"), png).bytes, {}, {}, &picture));
    CHECK(picture.empty());
}
