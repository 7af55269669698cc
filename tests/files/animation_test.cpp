// Animated PNG, read by a decoder that knows nothing of the writer.
#include "composition/draw_figure.h"
#include "drawing/cairo_painter.h"
#include "figure/sheet_settings.h"
#include "files/animation.h"
#include "files/held_still.h"
#include "files/recipe.h"
#include "files/set_value.h"

#include <catch2/catch.hpp>
#include <png.h>
#include <zlib.h>

using namespace coulter;

namespace {

std::uint32_t number(std::string_view bytes) {
    std::uint32_t value = 0;
    for (const char byte : bytes) value = value << 8 | static_cast<unsigned char>(byte);
    return value;
}

std::string bigEndian(std::uint32_t value) {
    return {static_cast<char>(value >> 24), static_cast<char>(value >> 16), static_cast<char>(value >> 8),
            static_cast<char>(value)};
}

struct Chunk {
    std::string type, data;
};

std::string spelled(const Chunk& chunk) {
    const std::string body = chunk.type + chunk.data;
    return bigEndian(static_cast<std::uint32_t>(chunk.data.size())) + body +
           bigEndian(static_cast<std::uint32_t>(
               crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size()))));
}

/// All chunks, whose sums are checked.
std::vector<Chunk> chunksOf(const std::string& png) {
    std::vector<Chunk> chunks;
    for (std::size_t at = 8; at < png.size();) {
        const std::size_t length = number(std::string_view(png).substr(at, 4));
        REQUIRE(at + 12 + length <= png.size());
        chunks.push_back({png.substr(at + 4, 4), png.substr(at + 8, length)});
        CHECK(spelled(chunks.back()) == png.substr(at, length + 12));
        at += length + 12;
    }
    return chunks;
}

/// Three bytes for each dot of a plain PNG.
std::vector<unsigned char> dotsOf(const std::string& png) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    REQUIRE(png_image_begin_read_from_memory(&image, png.data(), png.size()));
    image.format = PNG_FORMAT_RGB;
    std::vector<unsigned char> dots(PNG_IMAGE_SIZE(image));
    REQUIRE(png_image_finish_read(&image, nullptr, dots.data(), 0, nullptr));
    return dots;
}

struct Decoded {
    std::uint32_t width = 0, height = 0;
    std::vector<std::vector<unsigned char>> frames; ///< each whole
    std::vector<double> seconds;
};

Decoded decoded(const std::string& png) {
    Decoded result;
    const std::vector<Chunk> chunks = chunksOf(png);
    REQUIRE(chunks.front().type == "IHDR");
    REQUIRE(chunks.back().type == "IEND");
    const std::string header = chunks.front().data;
    result.width = number(std::string_view(header).substr(0, 4));
    result.height = number(std::string_view(header).substr(4, 4));
    std::vector<unsigned char> shown(std::size_t{3} * result.width * result.height);
    std::uint32_t sequence = 0, announced = 0;
    std::string control, data;
    const auto finish = [&] {
        if (control.empty()) return;
        const std::string_view c = control;
        const std::uint32_t w = number(c.substr(4, 4)), h = number(c.substr(8, 4)), x = number(c.substr(12, 4)),
                            y = number(c.substr(16, 4));
        REQUIRE(x + w <= result.width);
        REQUIRE(y + h <= result.height);
        CHECK(c.substr(24) == std::string_view("\0\0", 2)); // stays, and takes the place of what was there
        result.seconds.push_back(static_cast<double>(number(c.substr(20, 2))) / number(c.substr(22, 2)));
        const auto dots = dotsOf(png.substr(0, 8) + spelled({"IHDR", bigEndian(w) + bigEndian(h) + header.substr(8)}) +
                                 spelled({"IDAT", data}) + spelled({"IEND", ""}));
        for (std::uint32_t row = 0; row < h; ++row)
            std::copy_n(dots.begin() + std::ptrdiff_t{3} * w * row, 3 * w,
                        shown.begin() + std::ptrdiff_t{3} * (std::ptrdiff_t{result.width} * (y + row) + x));
        result.frames.push_back(shown);
        data.clear();
    };
    for (const Chunk& chunk : chunks) {
        if (chunk.type == "acTL") {
            announced = number(std::string_view(chunk.data).substr(0, 4));
            CHECK(number(std::string_view(chunk.data).substr(4, 4)) == 0); // again and again
        }
        if (chunk.type == "fcTL" || chunk.type == "fdAT")
            CHECK(number(std::string_view(chunk.data).substr(0, 4)) == sequence++);
        if (chunk.type == "fcTL") {
            finish();
            control = chunk.data;
        }
        if (chunk.type == "IDAT") data += chunk.data;
        if (chunk.type == "fdAT") data += chunk.data.substr(4);
    }
    finish();
    CHECK(result.frames.size() == announced);
    return result;
}

Document wave() {
    Document document;
    document.page = {"f(x) = q sin(x + q)", "q = 1", "x in [0, 6]"};
    document.sheet = {60, 40, 7, 0.05, 90};
    document.panels[0].plots = {plotOf("f(x)")};
    document.panels[0].title = "$q = {q}$";
    return document;
}

const Animation growing{"q", {"1", "2", "2", "4"}, 2};

} // namespace

TEST_CASE("an animated PNG shows each figure, dot for dot, with limits held still") {
    const Document document = wave();
    const Exported made = exportAnimation(document, growing);
    REQUIRE(made.bytes);
    const Decoded shown = decoded(*made.bytes);
    REQUIRE(shown.frames.size() == 4);
    for (const double seconds : shown.seconds) CHECK(seconds == 0.5);
    HeldStill seen;
    for (const std::string& value : growing.values)
        seen.add(drawFigure(*withNamedValue(document, "q", value).document));
    const Document still = seen.held(document);
    for (std::size_t i = 0; i < 4; ++i) {
        const Figure figure = drawFigure(*withNamedValue(still, "q", growing.values[i]).document);
        const Raster raster = paintRaster(figure.scene, 90 / 25.4);
        REQUIRE(static_cast<std::uint32_t>(raster.width) == shown.width);
        REQUIRE(static_cast<std::uint32_t>(raster.height) == shown.height);
        std::size_t wrong = 0;
        for (std::size_t k = 0; k < raster.pixels.size(); ++k) {
            const std::uint32_t dot = raster.pixels[k] & 0xffffffU;
            wrong += dot != (std::uint32_t{shown.frames[i][3 * k]} << 16 |
                             std::uint32_t{shown.frames[i][3 * k + 1]} << 8 | shown.frames[i][3 * k + 2]);
        }
        CHECK(wrong == 0);
    }
    CHECK(shown.frames[1] == shown.frames[2]);
    CHECK(shown.frames[0] != shown.frames[3]);
    CHECK(dotsOf(*made.bytes) == shown.frames[0]); // what programs that know of no animation show
}

TEST_CASE("limits, colours and legends that suit all figures of an animation; equal scales stay equal") {
    Document document = wave();
    document.page.insert(document.page.end(), {"c(t) = (q cos(t), sin(t))", "t in [0, 2pi]", "y in [0, 1]",
                                               "g(x, y) = q x y", "S(x, y) = q x y"});
    document.panels.resize(4);
    document.panels[1].plots = {plotOf("c(t)")};
    document.panels[2].plots = {plotOf("g(x, y)", "heatmap")};
    document.panels[3].plots = {plotOf("S(x, y)", "surface")};
    document.panels[0].y.limits.low = -1.5; // said by the recipe
    HeldStill seen;
    std::vector<Figure> alone;
    for (const char* value : {"1", "3"}) {
        alone.push_back(drawFigure(*withNamedValue(document, "q", value).document));
        seen.add(alone.back());
    }
    const Document still = seen.held(document);
    CHECK(still.panels[0].y.limits.low == -1.5);
    for (const char* value : {"1", "3"}) {
        const Figure figure = drawFigure(*withNamedValue(still, "q", value).document);
        for (const Figure& each : alone) {
            for (std::size_t p = 0; p < 2; ++p) {
                const PanelMap &held = figure.panels[p].frame().map, &own = each.panels[p].frame().map;
                CHECK(held.x.low <= own.x.low);
                CHECK(held.x.high >= own.x.high);
                CHECK(held.y.high >= own.y.high);
            }
            CHECK(figure.panels[2].frame().colour.high >= each.panels[2].frame().colour.high);
            CHECK(figure.panels[3].frame().space->maps[2].high >= each.panels[3].frame().space->maps[2].high);
        }
        const PanelMap& map = figure.panels[1].frame().map;
        CHECK((map.x.high - map.x.low) / map.x.length == Approx((map.y.high - map.y.low) / map.y.length).epsilon(0.02));
    }
}

TEST_CASE("an animation is verified by making it again, and its recipe is the one that it was made of") {
    const Document document = wave();
    const std::string bytes = *exportAnimation(document, growing).bytes;
    CHECK(animationIn(bytes) == growing);
    CHECK(*findRecipe(bytes).recipe == writeRecipe(document));
    CHECK_FALSE(verifyFigure(bytes));
    std::string changed = bytes;
    changed[changed.size() - 40] = static_cast<char>(changed[changed.size() - 40] ^ 1);
    const auto problem = verifyFigure(changed);
    REQUIRE(problem);
    CHECK(problem->sentence.find("animation") != std::string::npos);
    CHECK_FALSE(animationIn(*exportFigure(document, *findFormat("png")).bytes));
    for (std::size_t length = 0; length < bytes.size(); length += 7) { // cut off anywhere
        const auto found = animationIn(std::string_view(bytes).substr(0, length));
        if (found) CHECK(*found == growing);
    }
}

TEST_CASE("what is no animation is refused in a sentence") {
    const auto sentence = [](const Document& document, const Animation& animation) {
        const Exported made = exportAnimation(document, animation);
        CHECK_FALSE(made.bytes);
        return made.problem.sentence;
    };
    CHECK(sentence(wave(), {"q", {"1"}, 4}).find("from 2 to") != std::string::npos);
    CHECK(sentence(wave(), {"q", {"1", "2"}, 0}).find("lasts") != std::string::npos);
    CHECK(sentence(wave(), {"r", {"1", "2"}, 4}).find("“r”") != std::string::npos);
    Document wrong = wave();
    wrong.panels[0].plots = {plotOf("h(x)")};
    CHECK_FALSE(sentence(wrong, growing).empty());
    std::stop_source stop;
    stop.request_stop();
    CHECK(exportAnimation(wave(), growing, stop.get_token()).problem.sentence == "The export was stopped.");
}

TEST_CASE("an animation of what is drawn holds what any of its figures draws, and nothing moves") {
    Document document = wave();
    document.sheet.width = 120; // wide margins that are cut off
    document.panels[0].title.clear();
    document.panels[0].equalScales = true;
    set(document.sheet.settings, extentSetting, std::string("what is drawn"));
    const Animation animation{"q", {"1", "3", "2"}, 1};
    const Exported exported = exportAnimation(document, animation);
    REQUIRE(exported.bytes);
    const Decoded small = decoded(*exported.bytes);
    set(document.sheet.settings, extentSetting, std::nullopt);
    const Decoded whole = decoded(*exportAnimation(document, animation).bytes);
    CHECK(small.width < whole.width);
    REQUIRE(small.frames.size() == 3);
    // Each frame of the small one is a part of the whole one, at one and the same place.
    const auto inkLeft = [](const Decoded& of, std::size_t frame) {
        std::uint32_t least = of.width;
        for (std::uint32_t y = 0; y < of.height; ++y) {
            for (std::uint32_t x = 0; x < least; ++x) {
                if (of.frames[frame][3 * (std::size_t{of.width} * y + x)] < 128) least = x;
            }
        }
        return least;
    };
    const std::uint32_t moved = inkLeft(whole, 1) - inkLeft(small, 1);
    CHECK(moved > 0);
    for (std::size_t frame = 0; frame < 3; ++frame)
        CHECK(std::abs(int(inkLeft(whole, frame)) - int(inkLeft(small, frame)) - int(moved)) <= 1);
    CHECK_FALSE(verifyFigure(*exported.bytes));
}
