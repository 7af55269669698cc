#include "files/file_access.h"
#include "files/recipe.h"
#include "run_program.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <png.h>
#include <unistd.h>
#include <vector>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

struct Dots {
    int width = 0, height = 0;
    std::vector<unsigned char> rgb;
    int at(int x, int y, int channel) const { return rgb[static_cast<std::size_t>((y * width + x) * 3 + channel)]; }
};

Dots readDots(const std::string& path) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    REQUIRE(png_image_begin_read_from_file(&image, path.c_str()) != 0);
    image.format = PNG_FORMAT_RGB;
    Dots dots{static_cast<int>(image.width), static_cast<int>(image.height), {}};
    dots.rgb.resize(PNG_IMAGE_SIZE(image));
    const png_color white{255, 255, 255};
    REQUIRE(png_image_finish_read(&image, &white, dots.rgb.data(), 0, nullptr) != 0);
    return dots;
}

/// How far two pictures are apart in squares of 1 mm, whose means forgive how edges and letters are smoothed, and.
struct Apart {
    double mean = 0;   ///< of all squares, of 255
    double strong = 0; ///< share of squares that are more than a fifth of white to black apart
};
Apart apartOf(const Dots& a, const Dots& b) {
    REQUIRE(std::abs(a.width - b.width) <= 1);
    REQUIRE(std::abs(a.height - b.height) <= 1);
    constexpr int side = 8;
    Apart found;
    int squares = 0;
    for (int y = 0; y + side <= std::min(a.height, b.height); y += side) {
        for (int x = 0; x + side <= std::min(a.width, b.width); x += side) {
            double most = 0;
            for (int channel = 0; channel < 3; ++channel) {
                int difference = 0;
                for (int j = 0; j < side; ++j) {
                    for (int i = 0; i < side; ++i)
                        difference += a.at(x + i, y + j, channel) - b.at(x + i, y + j, channel);
                }
                most = std::max(most, std::abs(difference) / double(side * side));
            }
            found.mean += most;
            found.strong += most > 51 ? 1 : 0;
            ++squares;
        }
    }
    found.mean /= squares;
    found.strong /= squares;
    return found;
}

struct Viewer {
    const char *name, *format, *command; ///< {in} and {out} stand for files, {width} and {height} for dots
};
constexpr Viewer viewers[] = {
    {"poppler", "pdf", "pdftoppm -png -r 200 -singlefile {in} {out}"},
    {"librsvg", "svg", "rsvg-convert -w {width} {in} -o {out}.png"},
    {"Ghostscript", "eps",
     "gs -q -dBATCH -dNOPAUSE -dSAFER -g{width}x{height} -dTextAlphaBits=4 -dGraphicsAlphaBits=4 "
     "-sDEVICE=png16m -r200 -sOutputFile={out}.png {in}"},
};

std::string filled(std::string command, const std::string& in, const std::string& out, const Dots& size) {
    const auto put = [&](const std::string& name, const std::string& value) {
        if (const std::size_t at = command.find(name); at != std::string::npos) command.replace(at, name.size(), value);
    };
    put("{in}", in);
    put("{out}", out);
    put("{width}", std::to_string(size.width));
    put("{height}", std::to_string(size.height));
    return command;
}

} // namespace

TEST_CASE("poppler, librsvg and Ghostscript show what the bitmap shows") {
    const fs::path folder = fs::temp_directory_path() / ("coulter-renderers-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const std::string program = std::getenv("COULTER_PROGRAM"),
                      demos = std::string(std::getenv("COULTER_SOURCE")) + "/demos/";
    // Each as a recipe of the newest format, whatever its own is.
    const auto recipeOf = [&](const std::string& demo) {
        Document document = *readRecipe(*readFile(demos + demo + "/" + demo + ".coulter").bytes).document;
        document.format = newestFormat;
        const std::string path = folder / (demo + ".coulter");
        REQUIRE_FALSE(writeFile(path, writeRecipe(document)));
        return path;
    };
    const auto render = [&](const std::string& demo, const std::string& more, const std::string& to) {
        REQUIRE(shell(program + " render " + recipeOf(demo) + " " + more + " -o " + to).status == 0);
    };
    struct Figure {
        const char *demo, *more;
    };
    for (const Figure& figure : {Figure{"soil-temperature", ""}, Figure{"two-wells", ""}, Figure{"hill", ""},
                                 Figure{"hill", "--set sheet.surfaces=vectors"}, Figure{"infiltration", ""}}) {
        const std::string png = folder / "ours.png";
        render(figure.demo, std::string(figure.more) + " --dpi 200", png);
        const Dots ours = readDots(png);
        for (const Viewer& viewer : viewers) {
            const std::string file = folder / ("figure." + std::string(viewer.format)), out = folder / "theirs";
            render(figure.demo, figure.more, file);
            REQUIRE(shell(filled(viewer.command, file, out, ours)).status == 0);
            const Apart apart = apartOf(ours, readDots(out + ".png"));
            INFO(figure.demo << " " << figure.more << " by " << viewer.name << ": " << apart.mean << ", "
                             << apart.strong);
            CHECK(apart.mean < 2);
            CHECK(apart.strong < 0.001);
        }
    }
    render("retention", "--dpi 200 --size 160x90", folder / "another.png");
    render("infiltration", "--dpi 200 --size 160x90", folder / "one.png");
    CHECK(apartOf(readDots(folder / "one.png"), readDots(folder / "another.png")).mean > 8); // it tells them apart
    fs::remove_all(folder);
}
