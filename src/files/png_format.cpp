#include "coulter_version.h"
#include "data/png_source.h"
#include "drawing/png_stream.h"
#include "files/figure_raster.h"
#include "files/formats.h"
#include "files/png_picture.h"

#include <algorithm>
#include <cmath>
#include <csetjmp>
#include <cstring>
#include <png.h>
#include <tbb/parallel_invoke.h>
#include <zlib.h>

namespace coulter {
namespace {

constexpr const char* keyword = "Coulter recipe";

/// Hardly larger than with zlib's utmost, of which gradients take ten times as long.
constexpr int quickLevel = 8;

/// How the dots are stored; every way shows the same.
enum class Way {
    Plain,   ///< as recipes of the first two formats were written: fast, and larger
    Rows,    ///< in full colour, rows as they are
    Slopes,  ///< in full colour, each row less what the best of PNG's filters expects
    Palette, ///< few colours, by their number
};

/// The colours of a raster in ascending order; none if there are more than a palette holds.
std::vector<std::uint32_t> paletteOf(const Raster& raster) {
    std::vector<std::uint32_t> colours;
    std::uint32_t before = 0;
    bool first = true;
    for (const std::uint32_t each : raster.pixels) {
        const std::uint32_t pixel = each & 0xffffffU;
        if (!first && pixel == before) continue;
        first = false;
        before = pixel;
        const auto at = std::ranges::lower_bound(colours, pixel);
        if (at != colours.end() && *at == pixel) continue;
        if (colours.size() == 256) return {};
        colours.insert(at, pixel);
    }
    return colours;
}

int bitsFor(std::size_t colours) { return colours <= 2 ? 1 : colours <= 4 ? 2 : colours <= 16 ? 4 : 8; }

std::size_t bytesOfDot(Way way, bool withOpacity) { return way == Way::Palette ? 1 : withOpacity ? 4 : 3; }

std::string encode(const Raster& raster, double resolution, const std::string& recipe, Way way,
                   const std::vector<std::uint32_t>& palette, bool withOpacity = false, int level = 9) {
    std::string out;
    const bool byNumber = way == Way::Palette;
    std::vector<png_byte> row(static_cast<std::size_t>(raster.width) * bytesOfDot(way, withOpacity));
    std::vector<png_color> colours;
    for (const std::uint32_t pixel : palette)
        colours.push_back(
            {static_cast<png_byte>(pixel >> 16), static_cast<png_byte>(pixel >> 8), static_cast<png_byte>(pixel)});
    std::string value = recipe; // libpng takes the text by pointer to non-const
    std::string name = keyword, software = "Software", version = std::string("Coulter ") + COULTER_VERSION;
    png_text texts[2] = {};
    texts[0].compression = PNG_TEXT_COMPRESSION_NONE;
    texts[0].key = software.data();
    texts[0].text = version.data();
    texts[1].compression = PNG_ITXT_COMPRESSION_NONE;
    texts[1].key = name.data();
    texts[1].text = value.data();
    char empty[1] = "";
    texts[1].lang = empty;
    texts[1].lang_key = empty;
    png_structp png = startPng(out);
    png_infop info = png_create_info_struct(png);
    if (setjmp(png_jmpbuf(png))) {
        png_destroy_write_struct(&png, &info);
        return {};
    }
    png_set_IHDR(png, info, static_cast<png_uint_32>(raster.width), static_cast<png_uint_32>(raster.height),
                 byNumber ? bitsFor(palette.size()) : 8,
                 byNumber      ? PNG_COLOR_TYPE_PALETTE
                 : withOpacity ? PNG_COLOR_TYPE_RGB_ALPHA
                               : PNG_COLOR_TYPE_RGB,
                 PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    const auto perMetre = static_cast<png_uint_32>(std::lround(resolution / 0.0254));
    png_set_pHYs(png, info, perMetre, perMetre, PNG_RESOLUTION_METER);
    png_set_sRGB(png, info, PNG_sRGB_INTENT_RELATIVE);
    if (byNumber) png_set_PLTE(png, info, colours.data(), static_cast<int>(colours.size()));
    png_set_text(png, info, texts, recipe.empty() ? 1 : 2);
    if (way == Way::Plain) {
        png_set_compression_level(png, 6);
        png_set_compression_strategy(png, Z_RLE); // mostly plain paper: twice as fast, and hardly larger
        png_set_filter(png, 0, PNG_FILTER_SUB);
    } else {
        png_set_compression_level(png, level);
        png_set_compression_strategy(png, way == Way::Slopes && level > quickLevel ? Z_FILTERED : Z_DEFAULT_STRATEGY);
        png_set_filter(png, 0, way == Way::Slopes ? PNG_ALL_FILTERS : PNG_FILTER_NONE);
    }
    png_write_info(png, info);
    if (byNumber) png_set_packing(png);
    for (int y = 0; y < raster.height; ++y) {
        const std::uint32_t* pixels =
            raster.pixels.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.width);
        std::uint32_t before = 0;
        png_byte number = 0;
        bool known = false;
        for (int x = 0; x < raster.width; ++x) {
            const std::uint32_t pixel = pixels[x] & 0xffffffU;
            if (byNumber) {
                if (!known || pixel != before)
                    number = static_cast<png_byte>(std::ranges::lower_bound(palette, pixel) - palette.begin());
                known = true;
                before = pixel;
                row[static_cast<std::size_t>(x)] = number;
                continue;
            }
            const auto at = static_cast<std::size_t>(x) * bytesOfDot(way, withOpacity);
            row[at] = static_cast<png_byte>(pixel >> 16);
            row[at + 1] = static_cast<png_byte>(pixel >> 8);
            row[at + 2] = static_cast<png_byte>(pixel);
            if (withOpacity) row[at + 3] = static_cast<png_byte>(pixels[x] >> 24);
        }
        png_write_row(png, row.data());
    }
    png_write_end(png, nullptr);
    png_destroy_write_struct(&png, &info);
    return out;
}

} // namespace

std::string writePng(const Figure& figure, const std::string& recipe) {
    const double resolution = figure.document.sheet.resolution;
    const FigureRaster drawn = rasterOf(figure);
    const Raster& raster = drawn.raster;
    const bool withOpacity = drawn.withOpacity;
    if (raster.pixels.empty()) return {};
    if (!rulesOf(figure.document.format).packsBitmaps && !withOpacity)
        return encode(raster, resolution, recipe, Way::Plain, {});
    const bool quick = rulesOf(figure.document.format).quickBitmaps;
    const int level = quick ? quickLevel : 9;
    if (const auto palette = withOpacity ? std::vector<std::uint32_t>{} : paletteOf(raster); !palette.empty())
        return encode(raster, resolution, recipe, Way::Palette, palette, false, level);
    // Which is smaller depends on the picture: plain areas want the one, gradients the other.
    std::string rows, slopes;
    const int tried = quick ? 2 : level;
    tbb::parallel_invoke([&] { rows = encode(raster, resolution, recipe, Way::Rows, {}, withOpacity, tried); },
                         [&] { slopes = encode(raster, resolution, recipe, Way::Slopes, {}, withOpacity, tried); });
    const bool sloping = slopes.size() < rows.size();
    if (quick) return encode(raster, resolution, recipe, sloping ? Way::Slopes : Way::Rows, {}, withOpacity, level);
    return sloping ? slopes : rows;
}

std::optional<std::string> pngPicture(const Raster& raster, double dotsPerInch) {
    if (raster.pixels.empty()) return std::nullopt;
    std::string bytes = encode(raster, dotsPerInch, "", Way::Slopes, {});
    return bytes.empty() ? std::nullopt : std::optional(std::move(bytes));
}

bool isPng(std::string_view bytes) { return bytes.starts_with("\x89PNG\r\n\x1a\n"); }

std::optional<std::string> recipeInPng(std::string_view bytes) {
    PngSource source{bytes};
    std::optional<std::string> recipe;
    png_structp png = startReadingPng(source);
    png_infop info = png ? png_create_info_struct(png) : nullptr;
    if (!info) {
        png_destroy_read_struct(&png, nullptr, nullptr);
        return std::nullopt;
    }
    if (setjmp(png_jmpbuf(png))) {
        png_destroy_read_struct(&png, &info, nullptr);
        return std::nullopt;
    }
    png_read_info(png, info);
    png_textp texts = nullptr;
    int count = 0;
    png_get_text(png, info, &texts, &count);
    for (int i = 0; i < count; ++i) {
        if (std::strcmp(texts[i].key, keyword) == 0) recipe = texts[i].text;
    }
    png_destroy_read_struct(&png, &info, nullptr);
    return recipe;
}

} // namespace coulter
